/** The answers of the stamp at the pointer: one field a question, or a table with a row for each copy. */
import { held } from '../../kit/held'
import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import TextField from '@mui/material/TextField'
import { useQuery } from '@tanstack/react-query'
import { useDeferredValue, useMemo, useState } from 'react'
import { client, got, wordsOf } from '../../api/client'
import { LINE, MONO, QUIET, SNAG } from '../../theme/theme'
import { Act, Acts } from '../../kit/Act'
import type { StampLine } from './stampShapes'
import { usePick } from '../../project/store'
import { useTools, now } from './store'
import { moments, stampEdit, startStamp, tellStamp } from './tools'
import { counted } from '../../kit/counted'

type Row = Record<string, string>

/** A block from a spreadsheet as rows of answers; a first row that names the questions says which column is which. */
export function rowsOf(text: string, names: string[]): Row[] {
  const lines = text
    .replace(/\r/g, '')
    .split('\n')
    .filter((l) => l.trim())
  const cells = lines.map((l) => l.split(l.includes('\t') ? '\t' : ';').map((c) => c.trim()))
  const known = (c: string) => names.find((n) => n.toLowerCase() === c.toLowerCase())
  const headed = cells[0]?.some((c) => known(c)) ?? false
  const heads = headed ? cells[0]!.map((c) => known(c) ?? '') : names
  return cells
    .slice(headed ? 1 : 0)
    .map((line) => Object.fromEntries(line.map((c, i) => [heads[i] ?? '', c]).filter(([n]) => n)))
}

/** What is chosen from ratings is shown with the reason before anything is put down. */
function useChosen(stamp: StampLine, answers: string) {
  const { projectId, sheetId } = usePick('projectId', 'sheetId')
  const asked = useDeferredValue(answers)
  return useQuery({
    queryKey: ['stamp-choice', projectId, sheetId, stamp.id, asked],
    queryFn: () =>
      got(
        client.POST('/api/projects/{project_id}/preview', {
          params: { path: { project_id: projectId } },
          body: { edit: stampEdit()!, sheet_id: '', since: -1, key: '' },
        }),
      ),
    enabled: asked !== '' && stamp.questions.some((q) => q.kind === 'motor-kw'),
    retry: false,
    placeholderData: (before) => before,
  })
}

export function StampAnswers({ stamp }: { stamp: StampLine }) {
  const { tool } = useTools('tool')
  const [table, setTable] = useState(false)
  const [text, setText] = useState('')
  const names = useMemo(() => stamp.questions.map((q) => q.name), [stamp])
  const [answers, setAnswers] = useState<Row>(() =>
    Object.fromEntries(stamp.questions.map((q) => [q.name, q.suggestion])),
  )
  const hold = (rows: Row[]) => {
    if (held(now().tool, 'stamp')) tellStamp({ rows })
    else startStamp(stamp.id, rows)
  }
  const answer = (name: string, value: string) => {
    const next = { ...answers, [name]: value }
    setAnswers(next)
    hold([next])
  }
  const rows = rowsOf(text, names)
  const inHand = held(tool, 'stamp')
  const chosen = useChosen(stamp, inHand ? JSON.stringify(inHand.rows) : '')
  const lines = chosen.error ? [] : (chosen.data?.table ?? []).slice(1)
  return (
    <Box>
      {stamp.text && <Box sx={{ fontSize: 12, color: QUIET, my: 0.5 }}>{stamp.text}</Box>}
      <FormControlLabel
        control={
          <Checkbox
            size="small"
            checked={table}
            onChange={(e) => {
              setTable(e.target.checked)
              hold(e.target.checked && rows.length ? rows : [answers])
            }}
          />
        }
        label="From a table: one row, one copy"
        slotProps={{ typography: { sx: { fontSize: 12.5 } } }}
      />
      {table ? (
        <FromTable
          {...{ stamp, names, text, setText }}
          hold={(next) => hold(next.length ? next : [answers])}
        />
      ) : (
        <Fields {...{ stamp, answers, answer }} />
      )}
      {chosen.error && <Box sx={{ color: SNAG, fontSize: 12.5 }}>{wordsOf(chosen.error)}</Box>}
      {lines.length > 0 && <ChoiceLines lines={lines} copies={rows.length > 1 && table} />}
      <Acts>
        <Act disabled={!inHand} onClick={() => moments().finish?.()}>
          Put down at the caret
        </Act>
      </Acts>
      <Box sx={{ fontSize: 11.5, color: QUIET }}>
        {inHand ? 'Or click on the sheet where it goes.' : 'Click a field to take it up again.'}
      </Box>
    </Box>
  )
}

interface FromTableProps {
  stamp: StampLine
  names: string[]
  hold: (rows: Row[]) => void
  text: string
  setText: (text: string) => void
}

function FromTable({ stamp, names, hold, text, setText }: FromTableProps) {
  const [pitch, setPitch] = useState<[string, string]>(['', ''])
  const rows = rowsOf(text, names)
  const spread = (next: [string, string]) => {
    setPitch(next)
    if (held(now().tool, 'stamp')) tellStamp({ dx: Number(next[0]) || 0, dy: Number(next[1]) || 0 })
  }
  return (
    <>
      <TextField
        fullWidth
        multiline
        minRows={4}
        maxRows={10}
        margin="dense"
        label="Rows from a spreadsheet"
        placeholder={names.join('\t')}
        value={text}
        onChange={(e) => {
          setText(e.target.value)
          hold(rowsOf(e.target.value, names))
        }}
        slotProps={{
          inputLabel: { shrink: true },
          htmlInput: { style: { fontFamily: MONO, fontSize: 11.5 } },
        }}
      />
      <Box sx={{ fontSize: 11.5, color: QUIET }}>
        Columns: {names.join(', ')}. A heading row with these names may be in any order.
      </Box>
      {rows.length > 0 && (
        <Box sx={{ fontSize: 12.5, my: 0.5 }}>{counted(rows.length, 'copy', 'copies')}</Box>
      )}
      <Box sx={{ display: 'flex', gap: 0.75 }}>
        {(['Pitch across', 'Pitch down'] as const).map((label, i) => (
          <TextField
            key={label}
            margin="dense"
            label={label}
            placeholder={i ? '0' : String(stamp.pitch)}
            value={pitch[i]}
            onChange={(e) => spread(i ? [pitch[0], e.target.value] : [e.target.value, pitch[1]])}
            slotProps={{ inputLabel: { shrink: true } }}
          />
        ))}
      </Box>
    </>
  )
}

interface ChoiceLinesProps {
  lines: string[][]
  copies: boolean
}

function ChoiceLines({ lines, copies }: ChoiceLinesProps) {
  return (
    <Box sx={{ fontSize: 11.5, borderTop: `1px solid ${LINE}`, mt: 0.5, maxHeight: 190, overflow: 'auto' }}>
      {lines.map((line, i) => (
        <Box key={i} sx={{ py: 0.4, borderBottom: `1px solid ${LINE}` }}>
          {copies ? `${line[0]}: ` : ''}
          {line[1]} <b style={{ fontFamily: MONO }}>{line[2]}</b>
          <Box sx={{ color: QUIET }}>{line[3]}</Box>
        </Box>
      ))}
    </Box>
  )
}

interface FieldsProps {
  stamp: StampLine
  answers: Row
  answer: (name: string, value: string) => void
}

function Fields({ stamp, answers, answer }: FieldsProps) {
  return (
    <>
      {stamp.questions.map((q) => (
        <TextField
          key={q.name}
          fullWidth
          margin="dense"
          label={q.name}
          value={answers[q.name] ?? ''}
          onChange={(e) => answer(q.name, e.target.value)}
        />
      ))}
    </>
  )
}
