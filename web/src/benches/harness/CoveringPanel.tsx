/** The chosen covering: its part and the stretch it lies over. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { Section } from '../../kit/Section'
import { LengthField } from '../../project/LengthField'
import { PartChoice } from '../../project/PartChoice'
import { usePick } from '../../project/store'
import { useLengths } from '../../project/useLengths'
import type { HarnessValue } from './shapes'

interface Props {
  covering: HarnessValue['coverings'][number]
  canEdit: boolean
  onSelect: (id: string) => void
}

export function CoveringPanel({ covering: c, canEdit, onSelect }: Props) {
  const { send } = usePick('send')
  const { said } = useLengths()
  const change = (values: { part_id?: string; from_mm?: number; to_mm?: number }) =>
    send({ kind: 'cover-segment', ids: [], covering_id: c.id, ...values })
  return (
    <Section title="Covering">
      <PartChoice
        label="Part"
        partClass="covering"
        value={c.part_id}
        now={c.part_id ? { id: c.part_id, number: c.part, text: c.text } : null}
        onChoose={(p) => change({ part_id: p.id })}
      />
      <LengthField
        {...{ label: 'From', value: c.from_mm, disabled: !canEdit }}
        onSave={(from_mm) => change({ from_mm })}
      />
      <LengthField
        {...{ label: 'To', value: c.to_mm, disabled: !canEdit }}
        onSave={(to_mm) => change({ to_mm })}
      />
      <Box sx={{ fontSize: 12.5 }}>
        {said(c.length_mm)}, takes {said(c.used_mm)}
      </Box>
      {canEdit && (
        <Button onClick={() => void send({ kind: 'uncover', covering_id: c.id }).then(() => onSelect(''))}>
          Take it off
        </Button>
      )}
    </Section>
  )
}
