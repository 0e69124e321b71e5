/** What is chosen in the layout: places to type, bringing into line, what may lie in lanes, taking out. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { Field } from '../../kit/Field'
import { Section } from '../../kit/Section'
import { TagChip } from '../../kit/TagChip'
import { Why } from '../../kit/Why'
import { LengthField } from '../../project/LengthField'
import { usePick } from '../../project/store'
import { useLengths } from '../../project/useLengths'
import { QUIET, SNAG } from '../../theme/theme'
import { StripPanel } from './StripPanel'
import { LaneUse } from './LaneUse'
import { type EnclosureValue, type SpaceBox } from './shapes'
import type { State } from './useCabinet'

interface Props {
  enclosure: EnclosureValue
  state: State
  canEdit: boolean
}

const WAYS = [
  ['left', 'Left'],
  ['right', 'Right'],
  ['top', 'Top'],
  ['bottom', 'Bottom'],
  ['row', 'One row'],
  ['column', 'One column'],
  ['spread-across', 'Spread across'],
  ['spread-down', 'Spread down'],
  ['close-up', 'Close up'],
  ['mirror', 'Mirror'],
] as const

export function SelectedPanel({ enclosure, state, canEdit }: Props) {
  const { send } = usePick('send')
  const { selected } = state
  const boxes = enclosure.boxes?.filter((b) => selected.has(b.id)) ?? []
  const lanes = enclosure.lanes?.filter((l) => selected.has(l.id)) ?? []
  const devices = boxes.filter((b) => b.kind === 'device')
  if (!boxes.length && !lanes.length) return null
  const remove = () => {
    void send({ kind: 'remove-from-layout', ids: [...selected] })
    state.select([], false)
  }
  return (
    <Section title="Selected">
      {boxes.slice(0, 6).map((b) => (
        <Thing key={b.id} box={b} enclosure={enclosure} />
      ))}
      {boxes.length > 6 && <Box sx={{ color: QUIET, fontSize: 12 }}>and {boxes.length - 6} more</Box>}
      {boxes.length === 1 && <Single box={boxes[0]!} enclosure={enclosure} canEdit={canEdit} />}
      {canEdit && devices.length > 1 && <Arrange ids={devices.map((b) => b.id)} />}
      {lanes.length > 0 && <LaneUse lanes={lanes} canEdit={canEdit} />}
      {canEdit && <Keep ids={[...selected]} />}
      {canEdit && <Button onClick={remove}>Take out of the layout</Button>}
    </Section>
  )
}

interface SingleProps {
  box: SpaceBox
  enclosure: EnclosureValue
  canEdit: boolean
}

/** The one thing that is chosen: its tag, its terminals if it is a strip, its place. */
function Single({ box, enclosure, canEdit }: SingleProps) {
  const facts = enclosure.scene?.items.find((i) => i.id === box.id)?.facts
  const strip = facts?.strip ? facts.device : undefined
  return (
    <>
      {canEdit && <Tag box={box} enclosure={enclosure} />}
      {strip && <StripPanel key={strip} strip={strip} canEdit={canEdit} />}
      {canEdit && <Position box={box} enclosure={enclosure} />}
    </>
  )
}

/** What is chosen is kept under a name, to be put down again: a rail with all on it, a group of the door. */
function Keep({ ids }: { ids: string[] }) {
  const { send } = usePick('send')
  const [name, setName] = useState('')
  const keep = async () => {
    if (await send({ kind: 'keep-layout', ids, name: name.trim(), text: '' })) setName('')
  }
  return (
    <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'center' }}>
      <TextField
        margin="dense"
        label="Name of a layout stamp"
        value={name}
        onChange={(e) => setName(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Enter' && name.trim()) void keep()
        }}
        sx={{ flex: 1 }}
      />
      <Button disabled={!name.trim()} onClick={() => void keep()}>
        Keep
      </Button>
    </Box>
  )
}

/** How high the surface of a box is. */
const tall = (enclosure: EnclosureValue, box: SpaceBox) =>
  enclosure.surfaces?.find((s) => s.name === box.surface)?.height ?? 0

const tenth = (value: number) => Math.round(value * 10) / 10

function Thing({ box: b, enclosure }: { box: SpaceBox; enclosure: EnclosureValue }) {
  const fill = enclosure.fills?.find((f) => f.duct_id === b.id)
  const rail = enclosure.rails?.find((r) => r.id === b.id)
  const { bare, said } = useLengths()
  const kind = b.kind === 'device' ? '' : `${b.kind} `
  return (
    <Box sx={{ mb: 0.5 }}>
      {b.kind === 'device' ? <TagChip tag={b.tag} /> : <b>{`${kind}${b.tag}`}</b>}{' '}
      <span style={{ fontSize: 12, color: QUIET }}>
        {bare(tenth(b.width))} × {bare(tenth(b.height))}, {bare(tenth(b.x))} from the left,{' '}
        {said(tenth(tall(enclosure, b) - b.y - b.height))} from below
      </span>
      {fill && (
        <Box sx={{ fontSize: 12.5 }}>
          {fill.words} <Why text={fill.why} />
        </Box>
      )}
      {rail && (
        <Box sx={{ fontSize: 12.5, color: rail.load > rail.length ? SNAG : undefined }}>
          {bare(rail.load)} of {said(rail.length)} taken
        </Box>
      )}
    </Box>
  )
}

/** The tag of a device, changed here as on its sheet. */
function Tag({ box, enclosure }: { box: SpaceBox; enclosure: EnclosureValue }) {
  const { send } = usePick('send')
  const device = enclosure.scene?.items.find((i) => i.id === box.id)?.facts.device
  if (box.kind !== 'device' || typeof device !== 'string') return null
  const own = box.tag.slice(box.tag.lastIndexOf('-') + 1)
  return (
    <Field label="Tag" mono value={own} onSave={(tag) => send({ kind: 'set-tag', device_id: device, tag })} />
  )
}

/** Where it is, typed: from the lower left corner of its surface. */
function Position({ box, enclosure }: { box: SpaceBox; enclosure: EnclosureValue }) {
  const { send } = usePick('send')
  const save = (which: 'from_left' | 'from_below') => (value: number) =>
    void send({ kind: 'set-position', id: box.id, [which]: value })
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 0.5 }}>
      <LengthField label="From the left" value={tenth(box.x)} onSave={save('from_left')} />
      <LengthField
        label="From below"
        value={tenth(tall(enclosure, box) - box.y - box.height)}
        onSave={save('from_below')}
      />
    </Box>
  )
}

function Arrange({ ids }: { ids: string[] }) {
  const { send } = usePick('send')
  const ways = ids.length === 2 ? [...WAYS, ['swap', 'Swap'] as const] : WAYS
  return (
    <Box
      component="section"
      aria-label="Arrange"
      sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.25, my: 0.5 }}
    >
      {ways.map(([how, label]) => (
        <Button key={how} onClick={() => void send({ kind: 'arrange-in-layout', ids, how })}>
          {label}
        </Button>
      ))}
    </Box>
  )
}
