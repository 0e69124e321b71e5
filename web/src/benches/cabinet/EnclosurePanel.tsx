/** The enclosure's own facts: part, door, how it stands, its neighbours, laying it out like another. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { Field } from '../../kit/Field'
import { PanelPick } from '../../kit/Pick'
import { Section } from '../../kit/Section'
import { TagChip } from '../../kit/TagChip'
import { PartChoice } from '../../project/PartChoice'
import { usePick } from '../../project/store'
import { MONO } from '../../theme/theme'
import { Beside } from './Beside'
import { numberIn, type EnclosureValue } from './shapes'

interface Props {
  enclosure: EnclosureValue
  others: { id: string; tag: string }[]
  canEdit: boolean
}

export const STANDINGS = [
  { id: '', name: 'as its neighbours say, on a wall' },
  { id: 'free', name: 'free on all sides' },
  { id: 'wall', name: 'single, on a wall' },
  { id: 'end-free', name: 'end of a row, free' },
  { id: 'end-wall', name: 'end of a row, on a wall' },
  { id: 'middle-free', name: 'middle of a row, free' },
  { id: 'middle-wall', name: 'middle of a row, on a wall' },
  { id: 'middle-covered', name: 'middle of a row, on a wall, roof covered' },
] as const

export function EnclosurePanel({ enclosure, others, canEdit }: Props) {
  const { send, say } = usePick('send', 'say')
  const id = enclosure.id
  const swing = (typed: string) => {
    const value = numberIn(typed)
    if (value === null) say(`“${typed}” is no angle.`, 'error')
    else void send({ kind: 'change-enclosure', enclosure_id: id, swing_deg: value })
  }
  return (
    <Section title="Enclosure">
      <TagChip tag={enclosure.tag} />{' '}
      <span style={{ fontFamily: MONO, fontSize: 12 }}>{enclosure.part?.number}</span>
      <Box sx={{ fontSize: 12.5, mt: 0.5 }}>{enclosure.part?.text}</Box>
      {canEdit && (
        <PartChoice
          label="Enclosure part"
          partClass="enclosure"
          value={enclosure.part?.id ?? ''}
          now={enclosure.part}
          onChoose={(p) => void send({ kind: 'assign-part', device_id: enclosure.device_id, part_id: p.id })}
        />
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 0.5 }}>
        <PanelPick
          label="Door hangs"
          value={enclosure.hinge}
          disabled={!canEdit}
          options={[
            { id: 'left', name: 'on the left' },
            { id: 'right', name: 'on the right' },
          ]}
          onPick={(side) =>
            void send({ kind: 'change-enclosure', enclosure_id: id, hinge: side as 'left' | 'right' })
          }
        />
        <Field label="Opens, °" value={String(enclosure.swing_deg)} disabled={!canEdit} onSave={swing} />
      </Box>
      {others.length > 0 && <Beside enclosure={enclosure} others={others} canEdit={canEdit} />}
      {canEdit && others.length > 0 && empty(enclosure) && <Like {...{ enclosure, others }} />}
    </Section>
  )
}

/** Nothing is laid out in it yet. */
const empty = (enclosure: EnclosureValue) => enclosure.boxes?.length === 0

/** Laying an empty enclosure out as another is. */
function Like({ enclosure, others }: Omit<Props, 'canEdit'>) {
  const { send } = usePick('send')
  const copy = (from: string, mirrored: boolean) =>
    void send({ kind: 'copy-layout', from_id: from, to_id: enclosure.id, mirrored })
  return (
    <Box component="section" aria-label="Lay out like">
      {others.map((o) => (
        <Box key={o.id}>
          <Button onClick={() => copy(o.id, false)}>Lay out like {o.tag}</Button>
          <Button onClick={() => copy(o.id, true)}>mirrored</Button>
        </Box>
      ))}
    </Box>
  )
}
