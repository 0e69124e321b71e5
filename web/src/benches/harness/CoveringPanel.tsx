/** The chosen covering: its part and the stretch it lies over. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { Field } from '../../kit/Field'
import { Section } from '../../kit/Section'
import { PartChoice } from '../../project/PartChoice'
import { usePick } from '../../project/store'
import { numberIn } from './numbers'
import type { HarnessValue } from './shapes'

interface Props {
  covering: HarnessValue['coverings'][number]
  canEdit: boolean
  onSelect: (id: string) => void
}

export function CoveringPanel({ covering: c, canEdit, onSelect }: Props) {
  const { send, say } = usePick('send', 'say')
  const change = (values: { part_id?: string; from_mm?: number; to_mm?: number }) =>
    void send({ kind: 'cover-segment', ids: [], covering_id: c.id, ...values })
  const save = (field: 'from_mm' | 'to_mm') => (typed: string) => {
    const value = numberIn(typed)
    if (value === null) say(`“${typed}” is no number.`, 'error')
    else change({ [field]: value })
  }
  return (
    <Section title="Covering">
      <PartChoice
        label="Part"
        partClass="covering"
        value={c.part_id}
        now={c.part_id ? { id: c.part_id, number: c.part, text: c.text } : null}
        onChoose={(p) => change({ part_id: p.id })}
      />
      <Field label="From, mm" value={String(c.from_mm)} disabled={!canEdit} onSave={save('from_mm')} />
      <Field label="To, mm" value={String(c.to_mm)} disabled={!canEdit} onSave={save('to_mm')} />
      <Box sx={{ fontSize: 12.5 }}>
        {c.length_mm} mm, takes {c.used_mm} mm
      </Box>
      {canEdit && (
        <Button onClick={() => void send({ kind: 'uncover', covering_id: c.id }).then(() => onSelect(''))}>
          Take it off
        </Button>
      )}
    </Section>
  )
}
