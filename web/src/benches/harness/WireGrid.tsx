/** The wires of a harness as a table one works in: what is drawn and what stands here are the same wires. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { counted } from '../../kit/counted'
import { Grid } from '../../kit/Grid'
import type { CellChange, Column } from '../../kit/gridData'
import { usePick } from '../../project/store'
import { useLengths } from '../../project/useLengths'
import { type Lengths } from '../../kit/lengths'
import { COPPER, SNAG } from '../../theme/theme'
import type { HarnessValue, HarnessWire } from './shapes'

type Row = HarnessWire & { id: string }
type Cell = 'signal' | 'colour' | 'size' | 'start' | 'end' | 'twisted' | 'shield'

interface Props {
  harness: HarnessValue
  canEdit: boolean
  chosen: Set<string>
  onChoose: (keys: Set<string>) => void
}

function columnsOf(canEdit: boolean, { said, bare }: Lengths): Column<Row>[] {
  const edit = () => canEdit
  const lengthOf = (w: Row) => {
    if (w.length_mm === null) return w.missing
    return w.spare_mm ? `${said(w.length_mm)}, ${bare(w.spare_mm)} spare` : said(w.length_mm)
  }
  return [
    { key: 'signal', name: 'Signal', width: 66, mono: true, edit, text: (w) => w.number },
    { key: 'colour', name: 'Colour', width: 54, edit, text: (w) => w.colour },
    { key: 'size', name: 'mm²', width: 44, edit, text: (w) => w.size },
    { key: 'start', name: 'From', width: 122, mono: true, edit, text: (w) => w.from },
    { key: 'end', name: 'To', width: 122, mono: true, edit, text: (w) => w.to },
    {
      key: 'length',
      name: 'Length',
      width: 124,
      text: lengthOf,
      ink: (w) => (w.length_mm === null ? SNAG : undefined),
    },
    { key: 'twisted', name: 'Twisted', width: 54, edit, text: (w) => w.twisted },
    { key: 'shield', name: 'Shield', width: 46, edit, text: (w) => w.shield },
    { key: 'sheet', name: 'Sheet', width: 50, mono: true, text: (w) => w.place, ink: () => COPPER },
  ]
}

export function WireGrid({ harness, canEdit, chosen, onChoose }: Props) {
  const { send, say, projectId } = usePick('send', 'say', 'projectId')
  const navigate = useNavigate()
  const lengths = useLengths()
  const columns = useMemo(() => columnsOf(canEdit, lengths), [canEdit, lengths])
  const rows = useMemo(() => harness.wires.map((w): Row => ({ ...w, id: w.key })), [harness.wires])
  const change = (changes: CellChange[]) => {
    const cells = changes.map((c) => ({ ...c, key: c.key as Cell }))
    void send({ kind: 'write-harness-wires', harness_id: harness.id, cells })
  }
  return (
    <>
      {canEdit && chosen.size > 0 && <Chosen {...{ harness, chosen, onChoose }} />}
      <Grid
        name="Wires"
        rows={rows}
        columns={columns}
        selected={chosen}
        onSelect={(keys) => onChoose(new Set(keys))}
        onChange={change}
        onProblem={(words) => say(words, 'error')}
        onOpen={(w) => void navigate(`/p/${projectId}/draw/${w.sheet_id}?sel=${w.wire_id}`)}
      />
    </>
  )
}

interface ChosenProps {
  harness: HarnessValue
  chosen: Set<string>
  onChoose: (keys: Set<string>) => void
}

/** What is done with the wires chosen: twisted together, into a shield or another harness, or taken away. */
function Chosen({ harness, chosen, onChoose }: ChosenProps) {
  const { send } = usePick('send')
  const [name, setName] = useState('')
  const keys = [...chosen]
  const write = (key: 'twisted' | 'shield') =>
    void send({
      kind: 'write-harness-wires',
      harness_id: harness.id,
      cells: keys.map((id) => ({ id, key, value: name })),
    })
  const away = (answer: unknown) => answer && onChoose(new Set())
  const remove = () =>
    void send({ kind: 'remove-harness-wires', harness_id: harness.id, wires: keys }).then(away)
  const lead = (to_id: string) =>
    void send({ kind: 'move-harness-wires', harness_id: harness.id, wires: keys, to_id }).then(away)
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, px: 1, fontSize: 12.5 }}>
      {counted(keys.length, 'wire')}
      <input
        aria-label="Name of the pair or shield"
        placeholder="P1"
        value={name}
        onChange={(e) => setName(e.target.value)}
        style={{ width: 60, font: 'inherit' }}
      />
      <Button onClick={() => write('twisted')}>Twist together</Button>
      <Button onClick={() => write('shield')}>Put into a shield</Button>
      {harness.shares.map((h) => (
        <Button key={h.id} onClick={() => lead(h.id)}>
          Lead in {h.code}
        </Button>
      ))}
      <Button onClick={remove}>Take away</Button>
    </Box>
  )
}
