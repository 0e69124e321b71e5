/** What is selected among the blocks: a box with its connectors, a connector, or nothing, to add a box. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { makeEdit } from '../../api/client'
import { Choice } from '../../kit/Bench'
import { Field } from '../../kit/Field'
import { PanelPick } from '../../kit/Pick'
import { Section } from '../../kit/Section'
import { PartChoice } from '../../project/PartChoice'
import { usePick } from '../../project/store'
import { MONO, QUIET } from '../../theme/theme'
import { ConnectorPanel } from './ConnectorPanel'
import type { BlocksView } from './shapes'

interface Props {
  view: BlocksView
  selected: string
  canEdit: boolean
  onSelect: (id: string) => void
  onHarness: (id: string) => void
}

export function BlockPanel({ view, selected, canEdit, onSelect, onHarness }: Props) {
  const connector = view.connectors.find((c) => c.id === selected)
  const box = view.boxes.find((b) => `box:${b.id}` === selected)
  const link = selected.startsWith('link:') ? selected.slice(5) : ''
  return (
    <>
      {connector && (
        <ConnectorPanel
          device={connector}
          facts={connector.facts}
          others={view.connectors}
          {...{ canEdit, onHarness }}
        />
      )}
      {box && <BoxPanel {...{ view, box, canEdit, onSelect }} />}
      {link && <Button onClick={() => onHarness(link)}>Open its form board</Button>}
      {canEdit && !connector && !box && <NewBox onSelect={onSelect} />}
      {canEdit && !connector && !box && (
        <Box sx={{ color: QUIET, fontSize: 12.5, mt: 2 }}>
          Drag a box to move it. Drag from one connector to another to join them by a harness; its wires are
          said later.
        </Box>
      )}
    </>
  )
}

const CLASSES = [
  { id: 'circuit-board', name: 'Circuit board' },
  { id: 'fan', name: 'Fan' },
  { id: 'motor', name: 'Motor' },
  { id: 'plc-card', name: 'PLC card' },
  { id: 'drive', name: 'Drive' },
  { id: 'power-supply', name: 'Power supply' },
  { id: 'proximity-sensor', name: 'Sensor' },
  { id: 'enclosure', name: 'Enclosure' },
]

function NewBox({ onSelect }: { onSelect: (id: string) => void }) {
  const { send } = usePick('send')
  const [tag, setTag] = useState('')
  const [text, setText] = useState('')
  const [kind, setKind] = useState('circuit-board')
  const [part, setPart] = useState('')
  const add = async () => {
    const answer = await send(makeEdit('add-block', { tag, text, part_class: kind, part_id: part }))
    if (!answer) return
    setTag('')
    setText('')
    onSelect(`box:${answer.placed[0] ?? ''}`)
  }
  return (
    <Section title="Add a box">
      <PanelPick
        label="What it is"
        value={kind}
        options={CLASSES}
        onPick={(key) => {
          setKind(key)
          setPart('')
        }}
      />
      <PartChoice label="Part, if known" partClass={kind} value={part} onChoose={(p) => setPart(p.id)} />
      <TextField
        fullWidth
        margin="dense"
        label="Tag (empty: the next free)"
        value={tag}
        onChange={(e) => setTag(e.target.value)}
      />
      <TextField
        fullWidth
        margin="dense"
        label="What it does"
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => e.key === 'Enter' && void add()}
      />
      <Button variant="contained" onClick={() => void add()}>
        Add the box
      </Button>
    </Section>
  )
}

interface BoxProps {
  view: BlocksView
  box: BlocksView['boxes'][number]
  canEdit: boolean
  onSelect: (id: string) => void
}

function BoxPanel({ view, box, canEdit, onSelect }: BoxProps) {
  const { send } = usePick('send')
  const mine = view.connectors.filter((c) => c.facts.owner?.id === box.id)
  return (
    <>
      <Box sx={{ fontWeight: 600, fontFamily: MONO }}>{box.tag}</Box>
      <Field
        label="Tag"
        value={box.tag}
        disabled={!canEdit}
        mono
        onSave={(tag) => send({ kind: 'set-tag', device_id: box.id, tag })}
      />
      <Field
        label="What it does"
        value={box.text}
        disabled={!canEdit}
        onSave={(text) => send({ kind: 'set-text', device_id: box.id, text })}
      />
      <Box sx={{ color: QUIET, fontSize: 12.5, mt: 0.5 }}>{box.part?.number ?? 'no part yet'}</Box>
      <Section title={`Connectors · ${mine.length}`}>
        {mine.map((c) => (
          <Choice key={c.id} chosen={false} note={c.part?.number ?? ''} onClick={() => onSelect(c.id)}>
            <b style={{ fontFamily: MONO }}>{c.tag}</b>
          </Choice>
        ))}
        {canEdit && <NewConnector view={view} owner={box.id} />}
      </Section>
      {canEdit && (
        <Button
          onClick={() => void send({ kind: 'remove-block', device_id: box.id }).then(() => onSelect(''))}
        >
          Take out of the picture
        </Button>
      )}
    </>
  )
}

function NewConnector({ view, owner }: { view: BlocksView; owner: string }) {
  const { send } = usePick('send')
  const [part, setPart] = useState('')
  const [tag, setTag] = useState('')
  const loose = view.connectors.filter((c) => !c.facts.owner && c.id !== owner && !c.facts.mate)
  const add = async () => {
    if (await send(makeEdit('fit-connector', { owner_id: owner, part_id: part, tag }))) setTag('')
  }
  return (
    <>
      <PartChoice
        label="Connector on it"
        partClass="connector"
        value={part}
        onChoose={(p) => setPart(p.id)}
      />
      <TextField
        fullWidth
        margin="dense"
        label="Tag (empty: the next free)"
        value={tag}
        onChange={(e) => setTag(e.target.value)}
      />
      <Button variant="contained" disabled={!part} onClick={() => void add()}>
        Add the connector
      </Button>
      {loose.length > 0 && (
        <PanelPick
          label="Or one that is there"
          value=""
          options={loose.map((c) => ({ id: c.id, name: `${c.tag} ${c.text}`.trim() }))}
          onPick={(id) => void send(makeEdit('fit-connector', { owner_id: owner, device_id: id }))}
        />
      )}
    </>
  )
}
