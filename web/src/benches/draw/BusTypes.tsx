/** The conductors of the bus that is armed: how many, and each one's wire type. */
import Box from '@mui/material/Box'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import type { WireTypeLine } from '../../api/shapes'
import { remember } from '../../kit/remember'
import { usePick } from './store'

const MOST = 6

export function BusTypes({ types }: { types: WireTypeLine[] }) {
  const { projectId, busTypes, wireType, set } = usePick('projectId', 'busTypes', 'wireType', 'set')
  const put = (next: string[]) => {
    set({ busTypes: next })
    remember(`bus-${projectId}`, next)
  }
  const count = (n: number) =>
    put(Array.from({ length: n }, (_, i) => busTypes[i] ?? busTypes.at(-1) ?? wireType))
  const look = { fontSize: 12.5, maxWidth: 108 }
  return (
    <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center', minWidth: 0, overflow: 'hidden' }}>
      <Select
        variant="standard"
        disableUnderline
        value={busTypes.length}
        onChange={(e) => count(Number(e.target.value))}
        inputProps={{ 'aria-label': 'Conductors of the bus' }}
        sx={look}
      >
        {Array.from({ length: MOST - 1 }, (_, i) => i + 2).map((n) => (
          <MenuItem key={n} value={n}>
            {n} of
          </MenuItem>
        ))}
      </Select>
      {busTypes.map((type, i) => (
        <Select
          key={i}
          variant="standard"
          disableUnderline
          value={types.some((t) => t.id === type) ? type : ''}
          onChange={(e) => put(busTypes.map((t, n) => (n === i ? e.target.value : t)))}
          inputProps={{ 'aria-label': `Type of conductor ${i + 1}` }}
          sx={look}
        >
          {types.map((t) => (
            <MenuItem key={t.id} value={t.id}>
              {t.name}
            </MenuItem>
          ))}
        </Select>
      ))}
    </Box>
  )
}
