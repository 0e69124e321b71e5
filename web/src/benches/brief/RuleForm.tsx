/** A numbering rule: put together of pieces, with its condition; what would change is listed before it is saved. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { makeEdit } from '../../api/client'
import { LINE, MONO } from '../../theme/theme'
import { Act, Acts } from '../../kit/Act'
import { usePlaces } from '../../project/PlaceChoice'
import { usePick } from '../../project/store'
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
  piece: string
  text: string
  digits: number
  start: number
}

const draftOf = ([piece, args]: [string, string[]]): Draft => ({
  piece,
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

export function RuleForm({ data, rule, close }: Props) {
  const { send } = usePick('send')
  const places = usePlaces()
  const [name, setName] = useState(rule?.name ?? '')
  const [pieces, setPieces] = useState<Draft[]>(
    rule ? rule.pieces.map(draftOf) : [{ piece: 'running', text: '', digits: 1, start: 1 }],
  )
  const [when, setWhen] = useState({
    category: rule?.category ?? '',
    type_id: rule?.type_id ?? '',
    potential: rule?.potential ?? '',
    function_id: rule?.function_id ?? '',
    location_id: rule?.location_id ?? '',
  })
  const [atChannel, setAtChannel] = useState(rule?.at_channel ?? false)
  const [scope, setScope] = useState(rule?.scope ?? 'potential')
  const edit = makeEdit('put-number-rule', {
    rule_id: rule?.id ?? '',
    name: name || 'New rule',
    pieces,
    ...when,
    at_channel: atChannel,
    scope,
  })
  const put = (n: number, part: Partial<Draft>) =>
    setPieces(pieces.map((p, i) => (i === n ? { ...p, ...part } : p)))
  const choice = (key: keyof typeof when, label: string, options: { id: string; name: string }[]) => (
    <TextField
      select
      fullWidth
      margin="dense"
      label={label}
      value={options.some((o) => o.id === when[key]) ? when[key] : ''}
      onChange={(e) => setWhen({ ...when, [key]: e.target.value })}
      slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
    >
      <MenuItem value="">any</MenuItem>
      {options.map((o) => (
        <MenuItem key={o.id} value={o.id}>
          {o.name}
        </MenuItem>
      ))}
    </TextField>
  )
  const plain = (list: string[]) => list.map((id) => ({ id, name: id }))
  const named = (list: { id: string; name: string }[] | undefined) => list ?? []
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
      {pieces.map((p, n) => (
        <Box
          key={n}
          sx={{
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
          }}
        >
          <span style={{ flex: 1 }}>{PIECE_NAMES[p.piece]}</span>
          {p.piece === 'text' && (
            <Small label="Text" value={p.text} set={(text) => put(n, { text })} width={70} />
          )}
          {p.piece === 'running' && (
            <>
              <Small
                label="Digits"
                value={String(p.digits)}
                set={(v) => put(n, { digits: Number(v) || 1 })}
                width={30}
              />
              <Small
                label="From"
                value={String(p.start)}
                set={(v) => put(n, { start: Number(v) || 0 })}
                width={44}
              />
            </>
          )}
          <Act
            hint="Earlier"
            disabled={n === 0}
            onClick={() => setPieces([...pieces.slice(0, n - 1), p, pieces[n - 1]!, ...pieces.slice(n + 1)])}
          >
            ↑
          </Act>
          <Act hint="Take out" onClick={() => setPieces(pieces.filter((_, i) => i !== n))}>
            ×
          </Act>
        </Box>
      ))}
      <Acts>
        {Object.entries(PIECE_NAMES)
          .filter(([piece]) => piece !== 'running' || !pieces.some((p) => p.piece === 'running'))
          .map(([piece, words]) => (
            <Act
              key={piece}
              onClick={() =>
                setPieces([...pieces, { piece, text: piece === 'text' ? '-' : '', digits: 1, start: 1 }])
              }
            >
              + {words}
            </Act>
          ))}
      </Acts>
      <Box sx={{ fontSize: 12, fontWeight: 600, mt: 1 }}>For nets</Box>
      {choice('category', 'With a wire of the category', plain(data.categories))}
      {choice('type_id', 'With a wire of the type', data.types)}
      {choice('potential', 'With a continuation called', plain(data.potentials))}
      {choice('function_id', 'That begin in the function', named(places.data?.functions))}
      {choice('location_id', 'That begin in the location', named(places.data?.locations))}
      <FormControlLabel
        control={
          <Checkbox size="small" checked={atChannel} onChange={(e) => setAtChannel(e.target.checked)} />
        }
        label="that touch a PLC channel"
        slotProps={{ typography: { sx: { fontSize: 12.5 } } }}
      />
      <TextField
        select
        fullWidth
        margin="dense"
        label="One number for"
        value={scope}
        onChange={(e) => setScope(e.target.value === 'net' ? 'net' : 'potential')}
      >
        <MenuItem value="potential">the potential: feed-through terminals pass it on</MenuItem>
        <MenuItem value="net">each net: terminals part it</MenuItem>
      </TextField>
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
