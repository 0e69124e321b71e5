/** The chosen wires: the way of the last with what its length is made of, and what they are led through. */
import { momentsOf } from './planTools'
import Box from '@mui/material/Box'
import Chip from '@mui/material/Chip'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'
import { COPPER, MONO, QUIET, SNAG } from '../../theme/theme'
import type { EnclosureValue, Route, Way } from './shapes'
import type { State } from './useCabinet'
import { useWays } from './useWays'

interface Props {
  enclosure: EnclosureValue
  state: State
  canEdit: boolean
}

export function WirePanel({ enclosure, state, canEdit }: Props) {
  const { send } = usePick('send')
  const chosen = state.wires
    .map((key) => enclosure.routes?.find((r) => r.key === key))
    .filter((r): r is Route => r !== undefined)
  const wire = chosen[chosen.length - 1]
  const way = useWays(enclosure, wire ? [wire.key] : []).find((w) => w.key === wire?.key)
  if (!wire) return null
  const passed = new Map(chosen.flatMap((r) => r.through).map(([name, words]) => [name, words]))
  const drop = (name: string) =>
    void send({
      kind: 'lead-through',
      conductors: chosen.filter((r) => r.through.some(([n]) => n === name)).map((r) => r.key),
      through: [name],
      how: 'take',
    })
  return (
    <Section title={chosen.length > 1 ? `Wires: ${chosen.length} chosen` : 'Wire'}>
      <Box sx={{ fontFamily: MONO, fontSize: 12.5 }}>
        <b>{wire.number}</b> {wire.from} → {wire.to}
      </Box>
      <Box sx={{ fontSize: 12, color: QUIET }}>
        {wire.type} {wire.colour}, {wire.category}
      </Box>
      <Box sx={{ fontSize: 20, fontWeight: 600 }}>{wire.length || 'no length yet'}</Box>
      {wire.missing && <Box sx={{ color: SNAG, fontSize: 12.5 }}>{wire.missing}</Box>}
      {way && way.pieces.length > 0 && <Pieces way={way} />}
      {[...passed].map(([name, words]) => (
        <Chip
          key={name}
          variant="outlined"
          label={`Led through ${words}`}
          sx={{ mt: 1, maxWidth: '100%', color: COPPER, borderColor: COPPER, fontWeight: 600 }}
          {...(canEdit ? { onDelete: () => drop(name) } : {})}
        />
      ))}
      {canEdit && (
        <Box sx={{ fontSize: 12, color: QUIET, mt: 0.5 }}>
          {momentsOf(state.tool).opens
            ? 'Point at an eyelet or lane to add it; Shift takes it back.'
            : 'With Through (T), point at an eyelet or lane to lead it there.'}
        </Box>
      )}
    </Section>
  )
}

/** What a length is made of. */
function Pieces({ way }: { way: Way }) {
  return (
    <Box component="table" aria-label="Way" sx={{ width: '100%', fontSize: 12.5, mt: 0.5 }}>
      <tbody>
        {way.pieces.map(([words, , shown], n) => (
          <tr key={n}>
            <td>{words}</td>
            <td style={{ textAlign: 'right', fontFamily: MONO }}>{shown}</td>
          </tr>
        ))}
      </tbody>
    </Box>
  )
}
