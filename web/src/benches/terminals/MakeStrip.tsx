/** A new strip, with terminals that are planned and drawn later. */
import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { makeEdit } from '../../api/client'
import { PanelPick } from '../../kit/Pick'
import { PartChoice } from '../../project/PartChoice'
import { usePlaces } from '../../project/PlaceChoice'
import { usePick } from '../../project/store'
import { FormDialog } from '../../kit/FormDialog'
import { KINDS, type StripLine, type TerminalKind } from './shapes'

interface Props {
  /** The strip that was open: a new one is for the same place unless told otherwise. */
  beside: StripLine | undefined
  close: () => void
  go: (id: string) => void
}

const NONE = 'none'
const START = {
  text: '',
  tag: '',
  function_id: NONE,
  location_id: NONE,
  count: '10',
  start: '1',
  kind: 'feed-through' as TerminalKind,
  levels: '1',
  part: '',
  each: false,
  backward: false,
  odd: false,
}
type Wanted = typeof START

interface End {
  holds: string
  kind: string
}
const HOLDS = [
  { id: 'bracket', name: 'an end bracket' },
  { id: 'bracket-plate', name: 'an end bracket and a plate' },
  { id: NONE, name: 'nothing' },
]
const END_KINDS = [{ id: NONE, name: 'as the others' }, ...KINDS]

/** An end as the edit says it; from the outside in. */
const endOf = ({ holds, kind }: End) => ({
  accessories: (holds === NONE ? [] : holds === 'bracket' ? ['end-bracket'] : ['end-bracket', 'plate']) as (
    'end-bracket' | 'plate'
  )[],
  accessory_part_id: '',
  part_id: '',
  terminal_kind: kind === NONE ? null : (kind as TerminalKind),
})

const editOf = (w: Wanted, first: End, last: End) =>
  makeEdit('make-strip', {
    ...{
      text: w.text,
      tag: w.tag,
      terminal_kind: w.kind,
      part_id: w.part,
      each: w.each,
      backward: w.backward,
    },
    function_id: w.function_id === NONE ? '' : w.function_id,
    location_id: w.location_id === NONE ? '' : w.location_id,
    count: Math.max(0, Math.floor(Number(w.count)) || 0),
    start: Math.max(0, Math.floor(Number(w.start)) || 0),
    step: w.odd ? 2 : 1,
    levels: Math.max(1, Math.floor(Number(w.levels)) || 1),
    first: endOf(first),
    last: endOf(last),
  })

export function MakeStrip({ beside, close, go }: Props) {
  const { send } = usePick('send')
  const [w, setW] = useState<Wanted>({
    ...START,
    function_id: beside?.function_id || NONE,
    location_id: beside?.location_id || NONE,
  })
  const [first, setFirst] = useState<End>({ holds: 'bracket', kind: NONE })
  const [last, setLast] = useState<End>({ holds: 'bracket', kind: NONE })
  const set = (part: Partial<Wanted>) => setW({ ...w, ...part })
  const make = () =>
    void send(editOf(w, first, last)).then((answer) => {
      if (!answer) return
      close()
      if (answer.placed[0]) go(answer.placed[0])
    })
  return (
    <FormDialog title="New strip" act="Make the strip" close={close} onAct={make}>
      <Where {...{ w, set }} />
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Typed label="Terminals" type="number" value={w.count} onType={(count) => set({ count })} />
        <Typed label="First number" type="number" value={w.start} onType={(start) => set({ start })} />
        <Typed label="Levels" type="number" value={w.levels} onType={(levels) => set({ levels })} />
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap' }}>
        <Ticked
          label="Numbered from the other end"
          value={w.backward}
          onTick={(backward) => set({ backward })}
        />
        <Ticked label="Every second number" value={w.odd} onTick={(odd) => set({ odd })} />
      </Box>
      <PanelPick
        label="Kind"
        value={w.kind}
        options={KINDS}
        onPick={(id) => set({ kind: id as TerminalKind, part: '' })}
      />
      <PartChoice
        key={w.kind}
        label="Part"
        partClass="terminal"
        filters={w.kind === 'feed-through' ? '' : `terminal_kind=${w.kind}`}
        value={w.part}
        onChoose={(p) => set({ part: p.id })}
      />
      <Ticked label="The part is each terminal’s own" value={w.each} onTick={(each) => set({ each })} />
      <EndPick label="At the start" end={first} onEnd={setFirst} />
      <EndPick label="At the end" end={last} onEnd={setLast} />
    </FormDialog>
  )
}

function Where({ w, set }: { w: Wanted; set: (part: Partial<Wanted>) => void }) {
  const places = usePlaces().data
  const named = (list: { id: string; name: string }[] | undefined) => [
    { id: NONE, name: 'none' },
    ...(list ?? []).map(({ id, name }) => ({ id, name })),
  ]
  return (
    <>
      <Typed label="Text" value={w.text} autoFocus onType={(text) => set({ text })} />
      <Typed label="Tag, if not the next one" value={w.tag} onType={(tag) => set({ tag })} />
      <Box sx={{ display: 'flex', gap: 1 }}>
        <PanelPick
          label="Function"
          value={w.function_id}
          options={named(places?.functions)}
          onPick={(function_id) => set({ function_id })}
        />
        <PanelPick
          label="Location"
          value={w.location_id}
          options={named(places?.locations)}
          onPick={(location_id) => set({ location_id })}
        />
      </Box>
    </>
  )
}

interface TypedProps {
  label: string
  value: string
  type?: string
  autoFocus?: boolean
  onType: (value: string) => void
}

function Typed({ label, value, type = 'text', autoFocus = false, onType }: TypedProps) {
  return (
    <TextField
      {...{ label, value, type, autoFocus, fullWidth: true, margin: 'dense' }}
      onChange={(e) => onType(e.target.value)}
    />
  )
}

function Ticked({
  label,
  value,
  onTick,
}: {
  label: string
  value: boolean
  onTick: (value: boolean) => void
}) {
  return (
    <FormControlLabel
      control={<Checkbox checked={value} onChange={(e) => onTick(e.target.checked)} />}
      label={label}
    />
  )
}

function EndPick({ label, end, onEnd }: { label: string; end: End; onEnd: (end: End) => void }) {
  return (
    <Box sx={{ display: 'flex', gap: 1 }}>
      <PanelPick
        label={label}
        value={end.holds}
        options={HOLDS}
        onPick={(holds) => onEnd({ ...end, holds })}
      />
      <PanelPick
        label={`Terminal ${label.toLowerCase()}`}
        value={end.kind}
        options={END_KINDS}
        onPick={(kind) => onEnd({ ...end, kind })}
      />
    </Box>
  )
}
