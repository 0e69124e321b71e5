/** Where a device is: one select that sets its location. */
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useQuery } from '@tanstack/react-query'
import { client, got } from '../api/client'
import type { Schemas } from '../api/shapes'
import { useProject } from './store'
import { useRevision } from './useRevision'

export type Places = Schemas['Places']
export type PlaceLine = Schemas['FunctionPlace']
export type Side = Schemas['LocationPlace']['side']

interface Props {
  deviceId: string
  functionId: string
  locationId: string
  canEdit: boolean
  label?: string
}

/** The functions and locations of the project. */
export function usePlaces() {
  const projectId = useProject((s) => s.projectId)
  const revision = useRevision()
  return useQuery({
    queryKey: ['places', projectId, revision],
    queryFn: () =>
      got(client.GET('/api/projects/{project_id}/places', { params: { path: { project_id: projectId } } })),
    placeholderData: (before) => before,
    enabled: projectId !== '',
  })
}

export function PlaceChoice({ deviceId, functionId, locationId, canEdit, label }: Props) {
  const places = usePlaces()
  const options = places.data?.locations ?? []
  return (
    <TextField
      select
      fullWidth
      margin="dense"
      label={label ?? 'Location'}
      value={options.some((o) => o.id === locationId) ? locationId : ''}
      disabled={!canEdit}
      onChange={(e) =>
        void useProject.getState().send({
          kind: 'set-place',
          device_id: deviceId,
          function_id: functionId,
          location_id: e.target.value,
          keep_tag: false,
        })
      }
    >
      <MenuItem value="">none</MenuItem>
      {options.map((o) => (
        <MenuItem key={o.id} value={o.id}>
          {o.name} · {o.side}
        </MenuItem>
      ))}
    </TextField>
  )
}
