/** Field wires in no cable that could be one: which, what a cable for them needs, and gathering them. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import { useState } from 'react'
import { makeEdit } from '../../api/client'
import { PanelPick } from '../../kit/Pick'
import { IntoCable, NEW_CABLE } from '../../project/IntoCable'
import { usePick } from '../../project/store'
import { MONO, QUIET } from '../../theme/theme'
import type { Cable, Group } from './shapes'

interface Props {
  group: Group
  cables: Cable[]
  canEdit: boolean
  go: (id: string) => void
}

const NONE = 'none'

export function GroupPage({ group, cables, canEdit, go }: Props) {
  const [left, leave] = useState<Set<string>>(new Set())
  const keys = group.wires.map((w) => w.key).filter((k) => !left.has(k))
  const toggle = (key: string) => {
    const next = new Set(left)
    if (!next.delete(key)) next.add(key)
    leave(next)
  }
  return (
    <Box sx={{ p: 2, overflow: 'auto', maxWidth: 620 }}>
      <Box sx={{ fontSize: 16, fontWeight: 600 }}>
        {group.wires.length} {group.use} wire{group.wires.length > 1 ? 's' : ''} from {group.source} to{' '}
        {group.destination}
      </Box>
      <Box sx={{ color: QUIET, fontSize: 12.5, mb: 1 }}>
        They run in no cable yet. They need {group.need}.
      </Box>
      {group.wires.map((w) => (
        <Box key={w.key} component="label" sx={{ display: 'block', fontFamily: MONO, fontSize: 12.5 }}>
          <Checkbox
            size="small"
            sx={{ p: 0.3 }}
            disabled={!canEdit}
            checked={!left.has(w.key)}
            onChange={() => toggle(w.key)}
          />
          {w.number} {w.name}
        </Box>
      ))}
      {canEdit && <Into {...{ group, cables, keys, go }} />}
    </Box>
  )
}

interface IntoProps {
  group: Group
  cables: Cable[]
  keys: string[]
  go: (id: string) => void
}

/** The cable they are gathered into: a new one of a part that fits, or one with cores to spare. */
function Into({ group, cables, keys, go }: IntoProps) {
  const { send } = usePick('send')
  const [into, setInto] = useState(NEW_CABLE)
  const [part, setPart] = useState(group.parts[0]?.id ?? NONE)
  const fresh = into === NEW_CABLE
  const gather = () =>
    void send(
      makeEdit('gather-wires', {
        keys,
        device_id: fresh ? '' : into,
        part_id: fresh && part !== NONE ? part : '',
      }),
    ).then((answer) => answer?.placed[0] && go(answer.placed[0]))
  const none = group.parts.length ? 'none yet' : 'none that fits is in the library'
  return (
    <Box sx={{ mt: 1, maxWidth: 420 }}>
      <IntoCable cables={cables} value={into} onPick={setInto} />
      {fresh && (
        <PanelPick
          label="Cable part"
          value={part}
          options={[
            ...group.parts.map((p) => ({ id: p.id, name: `${p.number} · ${p.text}` })),
            { id: NONE, name: none },
          ]}
          onPick={setPart}
        />
      )}
      <Button variant="contained" sx={{ mt: 1 }} disabled={!keys.length} onClick={gather}>
        {keys.length === group.wires.length ? 'Gather these' : `Gather these ${keys.length}`}
      </Button>
    </Box>
  )
}
