/** What is selected in the layout, and the enclosure's own facts: warmth, fill, faults, files. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import { MONO, QUIET, SNAG } from '../../theme/theme'
import { Field } from '../../kit/Field'
import { Section } from '../../kit/Section'
import { Setting } from '../../project/Setting'
import { TagChip } from '../../kit/TagChip'
import { Why } from '../../kit/Why'
import { usePick } from '../../project/store'
import { Beside } from './Beside'
import type { EnclosureValue } from './shapes'

interface Props {
  enclosure: EnclosureValue
  others: { id: string; tag: string }[]
  selected: Set<string>
  route: string
  canEdit: boolean
  onSelect: (ids: string[], add: boolean) => void
}

export function CabinetPanel({ enclosure, others, selected, route, canEdit, onSelect }: Props) {
  const { send, projectId } = usePick('send', 'projectId')
  const chosen = enclosure.routes?.find((r) => r.key === route)
  const boxes = enclosure.boxes?.filter((b) => selected.has(b.id)) ?? []
  const base = `/api/projects/${projectId}/layouts/${enclosure.id}`
  const remove = () => {
    void send({ kind: 'remove-from-layout', ids: [...selected] })
    onSelect([], false)
  }
  return (
    <>
      {chosen && <Wire wire={chosen} />}
      {boxes.length > 0 && (
        <Selected enclosure={enclosure} boxes={boxes} remove={canEdit ? remove : undefined} />
      )}
      <Section title="Enclosure">
        <TagChip tag={enclosure.tag} />{' '}
        <span style={{ fontFamily: MONO, fontSize: 12 }}>{enclosure.part?.number}</span>
        <Box sx={{ fontSize: 12.5, mt: 0.5 }}>{enclosure.part?.text}</Box>
        {others.length > 0 && <Beside enclosure={enclosure} others={others} canEdit={canEdit} />}
      </Section>
      <Warmth {...{ enclosure, canEdit }} />
      <Faults {...{ enclosure, onSelect }} />
      <Section title="Lengths">
        <Setting name="end_allowance_mm" label="At each end, mm" canEdit={canEdit} />
        <Setting name="door_allowance_mm" label="Loop to the door, mm" canEdit={canEdit} />
        <Setting name="free_run_mm" label="Outside ducts at most, mm" canEdit={canEdit} />
        <Setting name="length_step_mm" label="Rounded up to, mm" canEdit={canEdit} />
      </Section>
      <Section title="Files">
        <Stack direction="row" sx={{ flexWrap: 'wrap' }}>
          {(['plate', 'door'] as const).flatMap((s) =>
            (['pdf', 'dxf'] as const).map((f) => (
              <Button key={s + f} href={`${base}/${s}.${f}`}>
                {s} {f.toUpperCase()}
              </Button>
            )),
          )}
        </Stack>
      </Section>
    </>
  )
}

function Fill({ enclosure, id }: { enclosure: EnclosureValue; id: string }) {
  const fill = enclosure.fills?.find((f) => f.duct_id === id)
  if (!fill) return null
  return (
    <Box sx={{ fontSize: 12.5 }}>
      {fill.percent.toFixed(1)} % full, {fill.wires} wires <Why text={fill.why} />
    </Box>
  )
}

function Load({ enclosure, id }: { enclosure: EnclosureValue; id: string }) {
  const rail = enclosure.rails?.find((r) => r.id === id)
  if (!rail) return null
  return (
    <Box sx={{ fontSize: 12.5, color: rail.load > rail.length ? SNAG : undefined }}>
      {rail.load} of {rail.length} mm taken
    </Box>
  )
}

interface WireProps {
  wire: NonNullable<EnclosureValue['routes']>[number]
}

function Wire({ wire }: WireProps) {
  return (
    <Section title="Wire">
      <Box sx={{ fontFamily: MONO, fontSize: 12.5 }}>
        <b>{wire.number}</b> {wire.from} → {wire.to}
      </Box>
      <Box sx={{ fontSize: 20, fontWeight: 600 }}>
        {wire.length_mm === null ? 'no length yet' : `${wire.length_mm} mm`}
      </Box>
      {wire.missing ? <Box sx={{ color: SNAG }}>{wire.missing}</Box> : <Why text={wire.why} />}
    </Section>
  )
}

interface SelectedProps {
  enclosure: EnclosureValue
  boxes: NonNullable<EnclosureValue['boxes']>
  remove?: () => void
}

function Selected({ enclosure, boxes, remove }: SelectedProps) {
  return (
    <Section title="Selected">
      {boxes.slice(0, 6).map((b) => (
        <Box key={b.id} sx={{ mb: 0.5 }}>
          {b.kind === 'device' ? <TagChip tag={b.tag} /> : b.tag}{' '}
          <span style={{ fontSize: 12, color: QUIET }}>
            {b.width} × {b.height} at {Math.round(b.x * 10) / 10}, {Math.round(b.y * 10) / 10}
          </span>
          {b.kind === 'duct' && <Fill enclosure={enclosure} id={b.id} />}
          {b.kind === 'rail' && <Load enclosure={enclosure} id={b.id} />}
        </Box>
      ))}
      {remove && <Button onClick={remove}>Take out of the layout</Button>}
    </Section>
  )
}

interface WarmthProps {
  enclosure: EnclosureValue
  canEdit: boolean
}

function Warmth({ enclosure, canEdit }: WarmthProps) {
  const { send, say } = usePick('send', 'say')
  const { heat } = enclosure
  if (!heat) return null
  const ambient = (typed: string) => {
    const value = Number(typed.replace(',', '.'))
    if (Number.isNaN(value)) say(`“${typed}” is no temperature.`, 'error')
    else void send({ kind: 'change-enclosure', enclosure_id: enclosure.id, ambient_c: value })
  }
  return (
    <Section title="Warmth">
      <Box sx={{ fontSize: 20, fontWeight: 600 }}>+{heat.rise_k.toFixed(1)} K</Box>
      <Box sx={{ fontSize: 12.5 }}>
        {heat.loss_w} W inside: {heat.inside_c} °C at {enclosure.ambient_c} °C around
      </Box>
      <Why text={heat.why} />
      <Field label="Around it, °C" value={String(enclosure.ambient_c)} disabled={!canEdit} onSave={ambient} />
    </Section>
  )
}

interface FaultsProps {
  enclosure: EnclosureValue
  onSelect: (ids: string[], add: boolean) => void
}

function Faults({ enclosure, onSelect }: FaultsProps) {
  return (
    <Section title="Faults">
      {enclosure.faults.length === 0 && <Box sx={{ color: QUIET }}>none</Box>}
      {enclosure.faults.map((f, i) => (
        <Box
          key={i}
          component="button"
          type="button"
          onClick={() => onSelect(f.ids, false)}
          sx={{
            display: 'block',
            textAlign: 'left',
            font: 'inherit',
            fontSize: 12.5,
            color: SNAG,
            border: 0,
            bgcolor: 'transparent',
            p: 0,
            mb: 0.5,
            cursor: 'pointer',
          }}
        >
          {f.message}
        </Box>
      ))}
    </Section>
  )
}
