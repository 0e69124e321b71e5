/** What is proposed for a strip: looked at together, taken or left. */
import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import { useState } from 'react'
import { makeEdit } from '../../api/client'
import { Act, Acts } from '../../kit/Act'
import { Field } from '../../kit/Field'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'
import { COPPER, QUIET } from '../../theme/theme'
import type { Strip } from './shapes'
import type { Held } from './useHeld'

interface Props {
  strip: Strip
  canEdit: boolean
  held: Held
}

export function Offered({ strip, canEdit, held }: Props) {
  const { send, say } = usePick('send', 'say')
  const [left, leave] = useState<Set<string>>(new Set())
  if (!canEdit || !strip.proposed.length) return null
  const wanted = strip.proposed.filter((p) => !left.has(p.key)).map((p) => p.key)
  const toggle = (key: string) => {
    const next = new Set(left)
    if (!next.delete(key)) next.add(key)
    leave(next)
  }
  const percent = (typed: string) => {
    const number = Number(typed)
    if (Number.isInteger(number) && number >= 0 && number <= 100) held.setPercent(number)
    else say(`“${typed}” is no share. Type a whole number from 0 to 100.`, 'error')
  }
  const take = (keys: string[]) =>
    void send(makeEdit('take-proposals', { strip_id: strip.id, keys, spare_percent: held.percent }))
  return (
    <Section title="Offered">
      <Box sx={{ border: `1px solid ${COPPER}55`, borderRadius: 1, bgcolor: '#FFF6EC', p: 0.5 }}>
        {strip.proposed.map((p) => (
          <Box
            key={p.key}
            component="label"
            sx={{ display: 'flex', gap: 0.5, fontSize: 12.5, mb: 0.5, cursor: 'pointer' }}
          >
            <Checkbox
              size="small"
              sx={{ p: 0.2 }}
              checked={!left.has(p.key)}
              onChange={() => toggle(p.key)}
            />
            <span>
              <b>{p.title}</b>
              {p.part && ` · ${p.part}`}
              <div style={{ color: QUIET }}>{p.reason}</div>
            </span>
          </Box>
        ))}
        <Acts>
          <Act disabled={!wanted.length} onClick={() => take(wanted)}>
            {wanted.length === strip.proposed.length ? 'Take all' : `Take these ${wanted.length}`}
          </Act>
        </Acts>
        <Field label="Spare terminals, %" value={String(held.percent)} onSave={percent} />
      </Box>
    </Section>
  )
}
