/** Which strip a row of terminals goes to, or which cable a band makes larger, while that stroke is armed. */
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import { client, got } from '../../api/client'
import { useBench } from '../../kit/useBench'
import { NEW_STRIP, useSheet } from './store'

interface Named {
  id: string
  tag: string
  text: string
}

export function StrokeTarget({ what }: { what: 'terminals' | 'band' }) {
  const { projectId, strokeTarget, set } = useSheet()
  const path = { params: { path: { project_id: projectId } } }
  const found = useBench<{ strips?: Named[]; cables?: Named[] }>(
    what === 'band' ? 'cables' : 'terminals',
    () =>
      what === 'band'
        ? got(client.GET('/api/projects/{project_id}/cables', path))
        : got(client.GET('/api/projects/{project_id}/terminals', path)),
  )
  const options = (what === 'band' ? found.data?.cables : found.data?.strips) ?? []
  const known = strokeTarget === NEW_STRIP ? what === 'terminals' : options.some((o) => o.id === strokeTarget)
  return (
    <Select
      size="small"
      variant="standard"
      displayEmpty
      disableUnderline
      value={known ? strokeTarget : ''}
      onChange={(e) => set({ strokeTarget: e.target.value })}
      inputProps={{ 'aria-label': what === 'band' ? 'Cable of the band' : 'Strip of the terminals' }}
      sx={{ fontSize: 13 }}
    >
      <MenuItem value="">{what === 'band' ? 'a new cable' : 'the strip used last'}</MenuItem>
      {what === 'terminals' && <MenuItem value={NEW_STRIP}>a new strip</MenuItem>}
      {options.map((o) => (
        <MenuItem key={o.id} value={o.id}>
          {o.tag} {o.text}
        </MenuItem>
      ))}
    </Select>
  )
}
