/** The chosen segment: its length or path, what is added, its angle on the board, what is put into it or over it. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { Field } from '../../kit/Field'
import { PanelPick } from '../../kit/Pick'
import { lengthIn } from '../../kit/lengths'
import { Section } from '../../kit/Section'
import { LengthField } from '../../project/LengthField'
import { PartChoice } from '../../project/PartChoice'
import { usePick } from '../../project/store'
import { useLengths } from '../../project/useLengths'
import { QUIET, SNAG } from '../../theme/theme'
import { lengthsIn, numberIn, written } from './numbers'
import type { HarnessValue, HarnessView, Segment } from './shapes'
import { counted } from '../../kit/counted'

const FORMS = [
  { id: 'typed', name: 'typed length' },
  { id: 'line', name: 'straight line' },
  { id: 'polyline', name: 'polyline' },
  { id: 'curve', name: 'curve (cubic Bezier)' },
]

interface Props {
  segment: Segment
  harness: HarnessValue
  free: HarnessView['free']
  canEdit: boolean
  onSelect: (id: string) => void
}

type Number = 'length_mm' | 'extra_mm' | 'extra_percent' | 'angle_deg'

/** Saving what is typed of a segment; what is no number is said. */
function useSave(segment: Segment) {
  const { send, say } = usePick('send', 'say')
  const set = (field: Number) => (value: number) =>
    void send({ kind: 'set-segment', segment_id: segment.id, [field]: value })
  const typed = (field: Number) => (typed: string) => {
    const value = numberIn(typed)
    if (value === null) say(`“${typed}” is no number.`, 'error')
    else set(field)(value)
  }
  return { set, typed }
}

export function SegmentPanel(props: Props) {
  const { segment, harness, canEdit } = props
  const { send } = usePick('send')
  const { set, typed: save } = useSave(segment)
  const name = (id: string) => harness.nodes.find((n) => n.id === id)?.name ?? ''
  const disabled = !canEdit
  const length = (label: string, value: number, what: 'length_mm' | 'extra_mm') => (
    <LengthField {...{ label, value, disabled }} onSave={set(what)} />
  )
  const turn = (typed: string) => {
    if (typed.trim()) save('angle_deg')(typed)
    else void send({ kind: 'set-segment', segment_id: segment.id, angled: false })
  }
  return (
    <>
      <Section title="Segment">
        <Box sx={{ fontSize: 12.5 }}>
          {name(segment.a)} to {name(segment.b)}
        </Box>
        <PathOf {...props} />
        {segment.form === 'typed' && length('Length', segment.base_mm, 'length_mm')}
        {segment.missing && <Box sx={{ color: SNAG, fontSize: 12.5 }}>{segment.missing}</Box>}
        <Stack direction="row" spacing={0.5}>
          {length('Extra', segment.extra_mm, 'extra_mm')}
          <Field
            label="Extra, %"
            value={String(segment.extra_percent)}
            disabled={disabled}
            onSave={save('extra_percent')}
          />
        </Stack>
        <Bundle segment={segment} />
        {!segment.on_trunk && (
          <Field
            label="Angle on the board, ° (0 right, 90 down)"
            value={segment.angled ? String(segment.angle_deg) : ''}
            placeholder="by rule"
            disabled={disabled}
            onSave={turn}
          />
        )}
      </Section>
      {canEdit && <Into {...props} name={name} />}
      {canEdit && <Cover segment={segment} />}
    </>
  )
}

/** What gives the segment its length: typed, or its path with what lies between its ends. */
function PathOf({ segment, canEdit }: Props) {
  const { send, say } = usePick('send', 'say')
  const { short, said } = useLengths()
  const setForm = (form: string) => {
    void send({ kind: 'set-segment', segment_id: segment.id, form: form as Segment['form'], path: [] })
  }
  const setPath = (typed: string) => {
    const path = lengthsIn(typed, short)
    if (path === null) say(`“${typed}” are no coordinates. Type x y z | x y z.`, 'error')
    else void send({ kind: 'set-segment', segment_id: segment.id, path })
  }
  const between = segment.form === 'curve' ? 'Control points' : 'Corners'
  return (
    <>
      <PanelPick
        label="Length by"
        value={segment.form}
        options={FORMS}
        disabled={!canEdit}
        onPick={(form) => form !== segment.form && setForm(form)}
      />
      {segment.form !== 'typed' && (
        <Box sx={{ fontSize: 12.5, mb: 0.75 }}>{said(segment.base_mm)} along its path</Box>
      )}
      {(segment.form === 'polyline' || segment.form === 'curve') && (
        <Field
          label={`${between}, x y z | x y z, ${short}`}
          value={written(segment.path, short)}
          disabled={!canEdit}
          mono
          onSave={setPath}
        />
      )}
    </>
  )
}

function Bundle({ segment: s }: { segment: Segment }) {
  const { said } = useLengths()
  return (
    <Box sx={{ fontSize: 12.5, my: 0.5 }}>
      <div>
        {counted(s.wires, 'wire')}, bundle ⌀ {said(s.diameter_mm)}
        <span style={{ color: QUIET }}>{s.packed ? ', packed' : ', by rule of thumb'}</span>
      </div>
      {s.bend_mm !== null && <div>tightest bend {said(s.bend_mm)}</div>}
      {s.wires > 0 && (
        <div style={{ color: s.too_tight ? SNAG : undefined }}>bundle needs {said(s.needs_bend_mm)}</div>
      )}
    </Box>
  )
}

type Put = 'branching' | 'clip' | 'connector'
const PUTS = [
  { id: 'branching', name: 'branching' },
  { id: 'clip', name: 'clip' },
  { id: 'connector', name: 'connector or splice' },
]

/** Putting a branching, clip, connector or splice into the segment. */
function Into({ segment, free, name, onSelect }: Props & { name: (id: string) => string }) {
  const { send } = usePick('send')
  const [what, setWhat] = useState<Put>('branching')
  const { short } = useLengths()
  const [at, setAt] = useState('')
  const at_mm = lengthIn(at, short) ?? 0
  const [called, call] = useState('')
  const [device, setDevice] = useState('')
  const [part, setPart] = useState('')
  const put = async () => {
    const answer = await send({
      kind: 'split-segment',
      segment_id: segment.id,
      at_mm,
      name: what === 'connector' ? '' : called,
      device_id: what === 'connector' ? device : '',
      sort: what === 'clip' ? 'clip' : '',
      part_id: what === 'clip' ? part : '',
    })
    if (answer?.placed[0]) onSelect(answer.placed[0])
  }
  return (
    <Section title="Put into it">
      <PanelPick label="What" value={what} options={PUTS} onPick={(id) => setWhat(id as Put)} />
      {what === 'connector' ? (
        <PanelPick
          label="Connector or splice"
          value={device}
          options={free.map((f) => ({ id: f.id, name: `${f.tag} ${f.text}` }))}
          onPick={setDevice}
          helperText={free.length ? '' : 'All that are drawn are in a harness.'}
        />
      ) : (
        <TextField
          fullWidth
          margin="dense"
          label="Name"
          value={called}
          onChange={(e) => call(e.target.value)}
        />
      )}
      {what === 'clip' && (
        <PartChoice label="Clip" partClass="harness-clip" value={part} onChoose={(p) => setPart(p.id)} />
      )}
      <TextField
        fullWidth
        margin="dense"
        label={`At, ${short} from ${name(segment.a)}`}
        value={at}
        onChange={(e) => setAt(e.target.value)}
      />
      <Button disabled={!at_mm || (what === 'connector' && !device)} onClick={() => void put()}>
        Put into the segment
      </Button>
    </Section>
  )
}

/** Covering the segment, or a stretch of it. */
function Cover({ segment }: { segment: Segment }) {
  const { send } = usePick('send')
  const [part, setPart] = useState('')
  return (
    <Section title="Cover it">
      <PartChoice label="Covering" partClass="covering" value={part} onChoose={(p) => setPart(p.id)} />
      <Button
        disabled={!part}
        onClick={() =>
          void send({ kind: 'cover-segment', ids: [segment.id], covering_id: '', part_id: part })
        }
      >
        Cover the segment
      </Button>
    </Section>
  )
}
