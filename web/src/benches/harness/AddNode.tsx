/** Adding a connector or splice to a harness. */
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { lengthIn } from '../../kit/lengths'
import { PanelPick } from '../../kit/Pick'
import { Section } from '../../kit/Section'
import { PartChoice } from '../../project/PartChoice'
import { usePick } from '../../project/store'
import { useLengths } from '../../project/useLengths'
import type { HarnessValue, HarnessView } from './shapes'

interface AddNodeProps {
  harness: HarnessValue
  free: HarnessView['free']
  /** Connectors of other harnesses; this one may begin at them, too. */
  others: HarnessView['others']
  from: string
}

/** Adding a connector or splice: one that is drawn, or a new one of a part. */
export function AddNode({ harness, free, others, from }: AddNodeProps) {
  const { send } = usePick('send')
  const [device, setDevice] = useState('')
  const [part, setPart] = useState('')
  const [tag, setTag] = useState('')
  const [join, setJoin] = useState('')
  const { short } = useLengths()
  const [typed, setLength] = useState<string | null>(null)
  const length = typed ?? (short === 'in' ? '8' : '200')
  const length_mm = lengthIn(length, short) ?? 0
  const root = join || from || harness.nodes[0]?.id || ''
  const fresh = device === NEW
  const add = async () => {
    const shared = { harness_id: harness.id, from_id: root, length_mm }
    const answer = fresh
      ? await send({ kind: 'add-connector', ...shared, part_id: part, tag, text: '' })
      : await send({ kind: 'add-node', ...shared, device_id: device, name: '' })
    if (!answer) return
    // What was chosen since for the next one stays.
    setTag((now) => (now === tag ? '' : now))
    if (!fresh) setDevice((now) => (now === device ? '' : now))
  }
  return (
    <Section title="Add a connector or splice">
      <PanelPick
        label="Connector"
        value={device}
        options={[
          ...free.map((f) => ({ id: f.id, name: `${f.tag} ${f.text}` })),
          { id: NEW, name: 'a new one, by its part' },
          ...others.map((f) => ({ id: f.id, name: `${f.tag} ${f.text} (in another harness)` })),
        ]}
        onPick={setDevice}
        helperText={free.length ? '' : 'All that are drawn are in a harness.'}
      />
      {fresh && <Fresh {...{ part, setPart, tag, setTag }} />}
      {harness.nodes.length > 0 && (
        <>
          <PanelPick label="Joins" value={root} options={harness.nodes} onPick={setJoin} />
          <TextField
            fullWidth
            margin="dense"
            label={`Length, ${short}`}
            value={length}
            onChange={(e) => setLength(e.target.value)}
          />
        </>
      )}
      <Button
        variant="contained"
        disabled={!device || (fresh && !part) || !(length_mm > 0)}
        onClick={() => void add()}
      >
        Add to {harness.code}
      </Button>
    </Section>
  )
}

const NEW = 'new'
const NEW_CLASSES = [
  ['connector', 'Housing'],
  ['splice', 'or splice'],
  ['ring-lug', 'or ring lug'],
  ['blade-terminal', 'or blade terminal'],
] as const

interface FreshProps {
  part: string
  setPart: (id: string) => void
  tag: string
  setTag: (tag: string) => void
}

/** What a new connector is: its part, and its tag. */
function Fresh({ part, setPart, tag, setTag }: FreshProps) {
  return (
    <>
      {NEW_CLASSES.map(([key, words]) => (
        <PartChoice key={key} label={words} partClass={key} value={part} onChoose={(p) => setPart(p.id)} />
      ))}
      <TextField
        fullWidth
        margin="dense"
        label="Tag (empty: the next free)"
        value={tag}
        onChange={(e) => setTag(e.target.value)}
      />
    </>
  )
}
