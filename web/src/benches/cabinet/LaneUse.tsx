/** Which wires may lie in the chosen ducts and lanes and pass the chosen crossings. */
import Box from '@mui/material/Box'
import { Field } from '../../kit/Field'
import { usePick } from '../../project/store'
import { QUIET } from '../../theme/theme'
import { Categories, type Category } from './Categories'
import { numberIn, type LaneValue } from './shapes'

export function LaneUse({ lanes, canEdit }: { lanes: LaneValue[]; canEdit: boolean }) {
  const { send, say } = usePick('send', 'say')
  const ids = lanes.map((l) => l.id)
  const shared = (lanes[0]?.categories ?? []).filter((c) => lanes.every((l) => l.categories.includes(c)))
  const crossing = lanes.length === 1 && lanes[0]!.kind === 'crossing' ? lanes[0]! : null
  const extra = (typed: string) => {
    const value = numberIn(typed)
    if (value === null) say(`“${typed}” is no number.`, 'error')
    else void send({ kind: 'set-lane-use', ids, extra_mm: value })
  }
  return (
    <Box component="section" aria-label="For which wires" sx={{ my: 0.5 }}>
      <Box sx={{ fontSize: 12, color: QUIET }}>
        {lanes.map((l) => `${l.kind === 'crossing' ? 'crossing ' : ''}${l.name}`).join(', ')}:{' '}
        {shared.length ? `for ${shared.join(', ')} wires` : 'for all wires'}
      </Box>
      <Categories
        chosen={shared as Category[]}
        canEdit={canEdit}
        onChange={(categories) => void send({ kind: 'set-lane-use', ids, categories })}
      />
      {crossing && (
        <Field
          label="Wire it takes, mm"
          value={String(crossing.extra_mm)}
          disabled={!canEdit}
          onSave={extra}
        />
      )}
    </Box>
  )
}
