/** Numbering sheets again: what would become what is shown before anything is changed. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { asGiven, makeEdit, wordsOf } from '../../api/client'
import { MONO, QUIET, SNAG } from '../../theme/theme'
import { counted } from '../../kit/counted'
import { PanelPick } from '../../kit/Pick'
import { usePick } from '../../project/store'
import { usePreview } from '../../project/usePreview'
import type { Sheets } from './shapes'

interface Props {
  table: Sheets
  picked: string[]
  close: () => void
}

const LINES = [
  { id: 'number', name: 'begin with the sheet’s number' },
  { id: 'run', name: 'run on from sheet to sheet' },
  { id: 'keep', name: 'stay as they are' },
]

export function NumberPanel({ table, picked, close }: Props) {
  const { send } = usePick('send')
  const [start, setStart] = useState('1')
  const [step, setStep] = useState('1')
  const [prefix, setPrefix] = useState('')
  const [lines, setLines] = useState('number')
  const [firstLine, setFirstLine] = useState('101')
  const edit = makeEdit('number-sheets', {
    sheet_ids: picked,
    start: Number(start) || 0,
    step: Number(step) || 1,
    prefix,
    lines: asGiven(lines),
    first_line: Number(firstLine) || 0,
  })
  const preview = usePreview(edit)
  const rows = preview.error ? [] : (preview.data?.table ?? [])
  const text = (label: string, value: string, set: (v: string) => void) => (
    <TextField label={label} value={value} margin="dense" onChange={(e) => set(e.target.value)} />
  )
  return (
    <Box
      component="form"
      aria-label="Number again"
      onSubmit={(e: React.FormEvent) => {
        e.preventDefault()
        void send(edit).then((answer) => answer && close())
      }}
    >
      <Box sx={{ fontWeight: 600 }}>Number again</Box>
      <Box sx={{ color: QUIET, fontSize: 12 }}>
        {picked.length
          ? counted(picked.length, 'chosen sheet')
          : table.sheets.length === 1
            ? 'The only sheet'
            : `All ${table.sheets.length} sheets`}
        , in their order. Tags and numbers made of lines follow; fixed ones stay.
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 0.75 }}>
        {text('Prefix', prefix, setPrefix)}
        {text('From', start, setStart)}
        {text('Steps of', step, setStep)}
      </Box>
      <PanelPick label="Ladder lines" value={lines} options={LINES} onPick={setLines} />
      {lines === 'run' && text('First line of all', firstLine, setFirstLine)}
      <Box sx={{ display: 'flex', gap: 1, my: 1 }}>
        <Button type="submit" variant="contained" disabled={rows.length === 0}>
          Number {rows.length || ''} again
        </Button>
        <Button onClick={close}>Cancel</Button>
      </Box>
      {preview.error && <Problem words={wordsOf(preview.error)} />}
      <WouldChange rows={rows} />
    </Box>
  )
}

interface WouldChangeProps {
  rows: string[][]
}

function WouldChange({ rows }: WouldChangeProps) {
  return (
    <Box component="ol" aria-label="What would change" sx={{ listStyle: 'none', p: 0, m: 0, fontSize: 12 }}>
      {rows.slice(0, 300).map(([was, now, title, follows]) => (
        <Box component="li" key={was} sx={{ py: 0.3, borderTop: '1px solid #EDE7D8' }}>
          <b style={{ fontFamily: MONO }}>
            {was} → {now}
          </b>{' '}
          {title}
          {follows && <Box sx={{ color: QUIET }}>{follows}</Box>}
        </Box>
      ))}
      {rows.length > 300 && <li>and {rows.length - 300} more</li>}
    </Box>
  )
}

interface ProblemProps {
  words: string
}

function Problem({ words }: ProblemProps) {
  return (
    <Box role="alert" sx={{ color: words === 'Nothing would change.' ? QUIET : SNAG, fontSize: 12.5 }}>
      {words}
    </Box>
  )
}
