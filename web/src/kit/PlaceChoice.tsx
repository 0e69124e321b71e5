/** Where a device is: one select that sets its location. */
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useQuery } from '@tanstack/react-query'
import { client, got } from '../api/client'
import { useSheet } from '../benches/draw/store'
import { useRevision } from './useRevision'

export type Side = 'panel' | 'door' | 'field' | 'machine'

export interface PlaceLine {
  id: string
  name: string
  code: string
  text: string
  parent_id: string
  /** What is there, in words, "" when nothing is. */
  used: string
}

export interface Places {
  functions: PlaceLine[]
  locations: (PlaceLine & { side: Side })[]
}

interface Props {
  deviceId: string
  functionId: string
  locationId: string
  canEdit: boolean
  label?: string
}

/** The functions and locations of the project. */
export function usePlaces() {
  const projectId = useSheet((s) => s.projectId)
  const revision = useRevision()
  return useQuery({
    queryKey: ['places', projectId, revision],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/places', { params: { path: { project_id: projectId } } }),
      ) as unknown as Promise<Places>,
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
        void useSheet.getState().send({
          kind: 'set-place',
          device_id: deviceId,
          function_id: functionId,
          location_id: e.target.value,
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
