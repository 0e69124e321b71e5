/** A numbering rule: put together of pieces, with its condition; what would change is listed before it is saved. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { asGiven, makeEdit, type Edit } from '../../api/client'
import { LINE, MONO } from '../../theme/theme'
import { Act, Acts } from '../../kit/Act'
import { usePlaces } from '../../project/PlaceChoice'
import { usePick } from '../../project/store'
import { PanelPick, plain, type Option } from '../../kit/Pick'
import { ChangeTable } from './ChangeTable'
import type { NumberRuleRecord, WiringHabits } from './shapes'

export const PIECE_NAMES: Record<string, string> = {
  sheet: 'sheet',
  line: 'line',
  column: 'column',
  running: 'running number',
  address: 'PLC address',
  potential: 'potential',
  text: 'fixed text',
}

interface Draft {
  piece: Edit<'put-number-rule'>['pieces'][number]['piece']
  text: string
  digits: number
  start: number
}

const draftOf = ([piece, args]: [string, string[]]): Draft => ({
  piece: asGiven(piece),
  text: piece === 'text' ? (args[0] ?? '') : '',
  digits: piece === 'running' ? Number(args[0]) : 1,
  start: piece === 'running' ? Number(args[1]) : 1,
})

/** A rule in a line: its pieces as they would be read. */
export function piecesLine(pieces: [string, string[]][]): string {
  return pieces
    .map(([piece, args]) => {
      if (piece === 'text') return `“${args[0]}”`
      if (piece === 'running') return (args[1] ?? '1').padStart(Number(args[0]), '0') + '…'
      return PIECE_NAMES[piece] ?? piece
    })
    .join(' · ')
}

interface Props {
  data: WiringHabits
  rule: NumberRuleRecord | null
  close: () => void
}

/** For which nets a rule is: "" for any. */
interface When {
  category: string
  type_id: string
  potential: string
  function_id: string
  location_id: string
}

const whenOf = (rule: NumberRuleRecord | null): When => ({
  category: rule?.category ?? '',
  type_id: rule?.type_id ?? '',
  potential: rule?.potential ?? '',
  function_id: rule?.function_id ?? '',
  location_id: rule?.location_id ?? '',
})

const SCOPES = [
  { id: 'potential', name: 'the potential: feed-through terminals pass it on' },
  { id: 'net', name: 'each net: terminals part it' },
]
const FIRST: Draft[] = [{ piece: 'running', text: '', digits: 1, start: 1 }]

export function RuleForm({ data, rule, close }: Props) {
  const { send } = usePick('send')
  const [name, setName] = useState(rule?.name ?? '')
  const [pieces, setPieces] = useState<Draft[]>(rule ? rule.pieces.map(draftOf) : FIRST)
  const [when, setWhen] = useState(() => whenOf(rule))
  const [atChannel, setAtChannel] = useState(rule?.at_channel ?? false)
  const [scope, setScope] = useState<string>(rule?.scope ?? 'potential')
  const edit = makeEdit('put-number-rule', {
    rule_id: rule?.id ?? '',
    name: name || 'New rule',
    pieces,
    ...when,
    category: asGiven(when.category),
    at_channel: atChannel,
    scope: asGiven(scope),
  })
  return (
    <Box
      component="form"
      aria-label="Numbering rule"
      onSubmit={(e: React.FormEvent) => {
        e.preventDefault()
        void send(edit).then((answer) => answer && close())
      }}
    >
      <Box sx={{ fontWeight: 600 }}>{rule ? `Rule “${rule.name}”` : 'New rule'}</Box>
      <TextField
        autoFocus
        fullWidth
        margin="dense"
        label="Name"
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <Box sx={{ fontSize: 12, fontWeight: 600, mt: 1 }}>The number is made of</Box>
      <Pieces pieces={pieces} set={setPieces} />
      <Box sx={{ fontSize: 12, fontWeight: 600, mt: 1 }}>For nets</Box>
      <Nets data={data} when={when} set={(part) => setWhen({ ...when, ...part })} />
      <FormControlLabel
        control={
          <Checkbox size="small" checked={atChannel} onChange={(e) => setAtChannel(e.target.checked)} />
        }
        label="that touch a PLC channel"
        slotProps={{ typography: { sx: { fontSize: 12.5 } } }}
      />
      <PanelPick label="One number for" value={scope} options={SCOPES} onPick={setScope} />
      <ChangeTable edit={edit} />
      <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
        <Button type="submit" variant="contained" disabled={!name.trim() || !pieces.length}>
          Save the rule
        </Button>
        <Button onClick={close}>Cancel</Button>
      </Box>
    </Box>
  )
}

interface NetsProps {
  data: WiringHabits
  when: When
  set: (part: Partial<When>) => void
}

/** What a net must have for the rule to be its. */
function Nets({ data, when, set }: NetsProps) {
  const places = usePlaces()
  const rows: [keyof When, string, Option[]][] = [
    ['category', 'With a wire of the category', plain(data.categories)],
    ['type_id', 'With a wire of the type', data.types],
    ['potential', 'With a continuation called', plain(data.potentials)],
    ['function_id', 'That begin in the function', places.data?.functions ?? []],
    ['location_id', 'That begin in the location', places.data?.locations ?? []],
  ]
  return rows.map(([key, label, options]) => (
    <PanelPick
      key={key}
      label={label}
      value={when[key]}
      options={[{ id: '', name: 'any' }, ...options]}
      onPick={(id) => set({ [key]: id })}
    />
  ))
}

interface PiecesProps {
  pieces: Draft[]
  set: (pieces: Draft[]) => void
}

/** The pieces of a number in order, and those that can be added. */
function Pieces({ pieces, set }: PiecesProps) {
  const runs = pieces.some((p) => p.piece === 'running')
  const add = (piece: string) =>
    set([...pieces, { piece: asGiven(piece), text: piece === 'text' ? '-' : '', digits: 1, start: 1 }])
  return (
    <>
      {pieces.map((p, n) => (
        <Piece
          key={n}
          piece={p}
          put={(part) => set(pieces.map((other, i) => (i === n ? { ...p, ...part } : other)))}
          earlier={
            n > 0
              ? () => set([...pieces.slice(0, n - 1), p, pieces[n - 1]!, ...pieces.slice(n + 1)])
              : undefined
          }
          remove={() => set(pieces.filter((_, i) => i !== n))}
        />
      ))}
      <Acts>
        {Object.entries(PIECE_NAMES)
          .filter(([piece]) => piece !== 'running' || !runs)
          .map(([piece, words]) => (
            <Act key={piece} onClick={() => add(piece)}>
              + {words}
            </Act>
          ))}
      </Acts>
    </>
  )
}

const PIECE = {
  display: 'flex',
  gap: 0.5,
  alignItems: 'center',
  border: `1px solid ${LINE}`,
  borderRadius: 1,
  bgcolor: '#fff',
  px: 0.75,
  py: 0.25,
  mt: 0.5,
  fontSize: 12.5,
} as const

interface PieceProps {
  piece: Draft
  put: (part: Partial<Draft>) => void
  earlier?: () => void
  remove: () => void
}

function Piece({ piece: p, put, earlier, remove }: PieceProps) {
  const digits = (v: string) => put({ digits: Number(v) || 1 })
  const start = (v: string) => put({ start: Number(v) || 0 })
  return (
    <Box sx={PIECE}>
      <span style={{ flex: 1 }}>{PIECE_NAMES[p.piece]}</span>
      {p.piece === 'text' && <Small label="Text" value={p.text} set={(text) => put({ text })} width={70} />}
      {p.piece === 'running' && (
        <>
          <Small label="Digits" value={String(p.digits)} set={digits} width={30} />
          <Small label="From" value={String(p.start)} set={start} width={44} />
        </>
      )}
      <Act hint="Earlier" disabled={!earlier} onClick={() => earlier?.()}>
        ↑
      </Act>
      <Act hint="Take out" onClick={remove}>
        ×
      </Act>
    </Box>
  )
}

interface SmallProps {
  label: string
  value: string
  set: (value: string) => void
  width: number
}

function Small({ label, value, set, width }: SmallProps) {
  return (
    <label style={{ fontSize: 11, display: 'flex', gap: 3, alignItems: 'center' }}>
      {label}
      <input
        value={value}
        onChange={(e) => set(e.target.value)}
        style={{
          width,
          font: `12px ${MONO}`,
          border: `1px solid ${LINE}`,
          borderRadius: 3,
          padding: '1px 3px',
        }}
      />
    </label>
  )
}
