/** The bus that is armed: how many conductors or which usual bus, each one's wire type, how far apart they lie. */
import Box from '@mui/material/Box'
import Divider from '@mui/material/Divider'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import type { BusLine, WireTypeLine } from '../../api/shapes'
import { remember } from '../../kit/remember'
import { usePick } from '../../project/store'
import { useTools } from './store'

const MOST = 6
const SPACINGS = [0, 2, 3, 4, 5, 6, 8, 10]
const ROOM_PX = 440

interface Props {
  types: WireTypeLine[]
  buses: BusLine[]
}

export function BusTypes({ types, buses }: Props) {
  const { projectId, busTypes, wireType, set } = {
    ...usePick('projectId'),
    ...useTools('busTypes', 'wireType', 'set'),
  }
  const put = (next: string[]) => {
    set({ busTypes: next })
    remember(`bus-${projectId}`, next)
  }
  const choose = (value: string | number) => {
    const usual = buses.find((b) => b.label === value)
    if (usual) put(usual.types)
    else put(Array.from({ length: Number(value) }, (_, i) => busTypes[i] ?? busTypes.at(-1) ?? wireType))
  }
  const same = buses.find((b) => b.types.join() === busTypes.join())
  const look = { fontSize: 12.5, maxWidth: Math.min(108, ROOM_PX / Math.max(1, busTypes.length)) }
  return (
    <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center', minWidth: 0, overflow: 'hidden' }}>
      <Select
        variant="standard"
        disableUnderline
        value={same?.label ?? busTypes.length}
        onChange={(e) => choose(e.target.value)}
        inputProps={{ 'aria-label': 'Conductors of the bus' }}
        sx={{ fontSize: 12.5, flexShrink: 0 }}
      >
        {buses.map((b) => (
          <MenuItem key={b.label} value={b.label}>
            {b.label}
          </MenuItem>
        ))}
        {buses.length > 0 && <Divider />}
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
      <Spacing />
    </Box>
  )
}

function Spacing() {
  const { busSpacing, set } = useTools('busSpacing', 'set')
  return (
    <Select
      variant="standard"
      disableUnderline
      value={busSpacing}
      onChange={(e) => set({ busSpacing: Number(e.target.value) })}
      inputProps={{ 'aria-label': 'Distance between conductors' }}
      title="How far apart the conductors lie, grid steps; at pins, as far as these"
      sx={{ fontSize: 12.5, flexShrink: 0, color: 'text.secondary' }}
    >
      {SPACINGS.map((n) => (
        <MenuItem key={n} value={n}>
          {n ? `${n} steps apart` : 'as poles'}
        </MenuItem>
      ))}
    </Select>
  )
}
