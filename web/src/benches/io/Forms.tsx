/** The forms of the bench: cards addressed together with what changes, a new card, a new rack, a new point. */
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { makeEdit } from '../../api/client'
import { FormDialog } from '../../kit/FormDialog'
import { PanelPick } from '../../kit/Pick'
import { PreviewLines } from '../../kit/PreviewLines'
import { PartChoice } from '../../project/PartChoice'
import { usePlaces } from '../../project/PlaceChoice'
import { usePick } from '../../project/store'
import { usePreview } from '../../project/usePreview'
import { AgainForm } from './AgainForm'
import { DrawForm } from './DrawForm'
import { MoveForm } from './MoveForm'
import { Prefixes } from './Prefixes'
import { TieForm } from './TieForm'
import { SCHEMES, TYPES, type IoType, type IoView, type Scheme } from './shapes'
import type { Io } from './useIo'

interface Props {
  io: Io
  view: IoView
  close: () => void
}

export function Forms({ io, view }: { io: Io; view: IoView }) {
  const close = () => io.open('')
  if (io.form === 'address') return <AddressForm {...{ io, view, close }} />
  if (io.form === 'card') return <CardForm {...{ io, view, close }} />
  if (io.form === 'rack') return <RackForm close={close} />
  if (io.form === 'draw') return <DrawForm {...{ io, view, close }} />
  if (io.form === 'again') return <AgainForm {...{ io, view, close }} />
  if (io.form === 'move') return <MoveForm {...{ io, view, close }} />
  if (io.form === 'tie') return <TieForm {...{ io, view, close }} />
  if (io.form === 'point') return <PointForm {...{ io, view, close }} />
  return null
}

const KEEP = { id: 'keep', name: 'as each card has them' }

function AddressForm({ io, view, close }: Props) {
  const { send } = usePick('send')
  const [scheme, setScheme] = useState<Scheme | 'keep'>('keep')
  const [start, setStart] = useState('')
  const [rack, setRack] = useState('all')
  const edit = makeEdit('address-cards', {
    ...{ device_ids: [], start, rack_id: rack === 'all' ? '' : rack },
    scheme: scheme === 'keep' ? null : scheme,
  })
  const preview = usePreview(edit)
  const rows = preview.data?.table ?? []
  const problem = preview.error instanceof Error ? preview.error.message : ''
  const address = () =>
    void send(edit).then((answer) => {
      if (answer) close()
    })
  return (
    <FormDialog
      title="Address cards one after another"
      act="Address"
      enabled={!problem && rows.length > 0}
      close={close}
      onAct={address}
    >
      <PanelPick
        label="Which cards"
        value={rack}
        options={[
          { id: 'all', name: 'all cards' },
          ...view.racks.map((r) => ({ id: r.rack_id, name: `those of ${r.tag}` })),
        ]}
        onPick={setRack}
      />
      <PanelPick
        label="Addresses"
        value={scheme}
        options={[KEEP, ...SCHEMES.filter((s) => s.id !== 'word')]}
        onPick={(id) => setScheme(id as Scheme | 'keep')}
      />
      <TextField
        {...{
          label: 'First address (empty: behind what stays)',
          fullWidth: true,
          margin: 'dense',
          value: start,
        }}
        onChange={(e) => setStart(e.target.value)}
      />
      <Prefixes projectId={io.projectId} />
      <PreviewLines
        name="What would change"
        problem={problem}
        nothing="No address would change."
        lines={rows.map(([tag, now, then]) => `${tag}: ${now} → ${then}`)}
      />
    </FormDialog>
  )
}

function CardForm({ io, view, close }: Props) {
  const { send } = usePick('send')
  const places = usePlaces().data
  const [part, setPart] = useState('')
  const [location, setLocation] = useState('')
  const [scheme, setScheme] = useState<Scheme | 'usual'>('usual')
  const [start, setStart] = useState('')
  const [rack, setRack] = useState('none')
  const where = location || (places?.locations.find((p) => p.side === 'panel')?.id ?? '')
  const add = () =>
    void send(
      makeEdit('add-card', {
        ...{ part_id: part, location_id: where, start, text: '' },
        function_id: places?.functions[0]?.id ?? '',
        scheme: scheme === 'usual' ? null : scheme,
        rack_id: rack === 'none' ? '' : rack,
      }),
    ).then((answer) => {
      if (!answer) return
      close()
      io.go('allocate')
    })
  return (
    <FormDialog title="Add a card" act="Add" enabled={part !== ''} close={close} onAct={add}>
      <PartChoice label="Card part" partClass="plc-card" value={part} onChoose={(p) => setPart(p.id)} />
      <PanelPick label="Location" value={where} options={places?.locations ?? []} onPick={setLocation} />
      {view.racks.length > 0 && (
        <PanelPick
          label="Rack"
          value={rack}
          options={[{ id: 'none', name: 'none' }, ...view.racks.map((r) => ({ id: r.rack_id, name: r.tag }))]}
          onPick={setRack}
        />
      )}
      <PanelPick
        label="Addresses"
        value={scheme}
        options={[{ id: 'usual', name: 'as usual for the card' }, ...SCHEMES]}
        onPick={(id) => setScheme(id as Scheme | 'usual')}
      />
      <TextField
        {...{ label: 'First address (empty: goes on)', fullWidth: true, margin: 'dense', value: start }}
        onChange={(e) => setStart(e.target.value)}
      />
    </FormDialog>
  )
}

function RackForm({ close }: { close: () => void }) {
  const { send } = usePick('send')
  const places = usePlaces().data
  const [part, setPart] = useState('')
  const [location, setLocation] = useState('')
  const [text, setText] = useState('')
  const where = location || (places?.locations.find((p) => p.side === 'panel')?.id ?? '')
  const add = () =>
    void send(
      makeEdit('add-rack', {
        ...{ part_id: part, location_id: where, text },
        function_id: places?.functions[0]?.id ?? '',
      }),
    ).then((answer) => {
      if (answer) close()
    })
  return (
    <FormDialog title="Add a rack" act="Add" close={close} onAct={add}>
      <PartChoice label="Rack part" partClass="plc-rack" value={part} onChoose={(p) => setPart(p.id)} />
      <PanelPick label="Location" value={where} options={places?.locations ?? []} onPick={setLocation} />
      <TextField
        {...{ label: 'Text', fullWidth: true, margin: 'dense', value: text }}
        onChange={(e) => setText(e.target.value)}
      />
    </FormDialog>
  )
}

function PointForm({ io, close }: Props) {
  const { send } = usePick('send')
  const [tag, setTag] = useState('')
  const [text, setText] = useState('')
  const [type, setType] = useState<IoType>('DI')
  const after = io.chosen.size === 1 ? [...io.chosen][0]! : ''
  const add = () =>
    void send(makeEdit('add-point', { tag, text, io_type: type, after_id: after })).then((answer) => {
      if (!answer) return
      io.choose(new Set(answer.placed))
      close()
    })
  return (
    <FormDialog title="Add a point" act="Add" enabled={tag.trim() !== ''} close={close} onAct={add}>
      <TextField
        {...{ label: 'Tag', fullWidth: true, margin: 'dense', value: tag, autoFocus: true }}
        onChange={(e) => setTag(e.target.value)}
      />
      <PanelPick
        label="Type"
        value={type}
        options={TYPES.map((id) => ({ id, name: id }))}
        onPick={(id) => setType(id as IoType)}
      />
      <TextField
        {...{ label: 'Text', fullWidth: true, margin: 'dense', value: text }}
        onChange={(e) => setText(e.target.value)}
      />
    </FormDialog>
  )
}
