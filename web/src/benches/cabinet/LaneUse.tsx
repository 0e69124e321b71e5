/** Which wires may lie in the chosen ducts and lanes and pass the chosen crossings. */
import Box from '@mui/material/Box'
import { LengthField } from '../../project/LengthField'
import { usePick } from '../../project/store'
import { QUIET } from '../../theme/theme'
import { Categories, type Category } from './Categories'
import { type LaneValue } from './shapes'

export function LaneUse({ lanes, canEdit }: { lanes: LaneValue[]; canEdit: boolean }) {
  const { send } = usePick('send')
  const ids = lanes.map((l) => l.id)
  const shared = (lanes[0]?.categories ?? []).filter((c) => lanes.every((l) => l.categories.includes(c)))
  const crossing = lanes.length === 1 && lanes[0]!.kind === 'crossing' ? lanes[0]! : null
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
        <LengthField
          label="Wire it takes"
          value={crossing.extra_mm}
          disabled={!canEdit}
          onSave={(extra_mm) => send({ kind: 'set-lane-use', ids, extra_mm })}
        />
      )}
    </Box>
  )
}
