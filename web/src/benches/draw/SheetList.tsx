/** The sheets of the project as a tree by function, location or number: filtered, dragged, opened. */
import AddIcon from '@mui/icons-material/Add'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import { memo, useMemo, useState } from 'react'
import type { PageLine, SheetLine } from '../../api/shapes'
import { LINE, QUIET } from '../../theme/theme'
import { remember, remembered } from '../../kit/remember'
import { AddSheet } from './AddSheet'
import { SheetTree, type By, type Row } from './SheetTree'

/** The rows of the tree as they lie below each other; closed groups show their heading only. */
export function rowsOf(
  sheets: SheetLine[],
  pages: PageLine[],
  by: By,
  words: string,
  closed: Set<string>,
): Row[] {
  const wanted = words.toLowerCase().split(' ').filter(Boolean)
  const fits = (line: { number: string; title: string }) => {
    const text = `${line.number} ${line.title}`.toLowerCase()
    return wanted.every((w) => text.includes(w))
  }
  const found = sheets.filter(fits)
  const rows: Row[] = []
  const add = (key: string, label: string, first: SheetLine | null, members: Row[]) => {
    if (!members.length) return
    rows.push({ type: 'group', key, label, count: members.length, first })
    if (!closed.has(key) || wanted.length) rows.push(...members)
  }
  if (by === 'number') rows.push(...found.map((sheet) => ({ type: 'sheet', key: sheet.id, sheet }) as Row))
  else {
    const groups = new Map<string, SheetLine[]>()
    for (const sheet of found) {
      const name = by === 'function' ? `${sheet.function} ${sheet.function_text}`.trim() : sheet.location
      const group = groups.get(name)
      if (group) group.push(sheet)
      else groups.set(name, [sheet])
    }
    for (const [name, members] of groups)
      add(
        `${by}:${name}`,
        name || `no ${by} yet`,
        members[0]!,
        members.map((sheet) => ({ type: 'sheet', key: sheet.id, sheet })),
      )
  }
  add(
    'pages',
    'Made from the model',
    null,
    pages.filter(fits).map((page) => ({ type: 'page', key: page.id, page })),
  )
  return rows
}

interface Props {
  projectId: string
  sheets: SheetLine[]
  pages: PageLine[]
  current: string
  canEdit: boolean
}

const NAV = {
  width: 196,
  flexShrink: 0,
  borderRight: `1px solid ${LINE}`,
  bgcolor: '#FBF8F1',
  display: 'flex',
  flexDirection: 'column',
} as const

export const SheetList = memo(function SheetList({ projectId, sheets, pages, current, canEdit }: Props) {
  const [adding, setAdding] = useState<string | null>(null)
  const [words, setWords] = useState('')
  const [by, setBy] = useState<By>(() => remembered('sheets-by', 'function'))
  const [closed, setClosed] = useState<Set<string>>(new Set())
  const rows = useMemo(() => rowsOf(sheets, pages, by, words, closed), [sheets, pages, by, words, closed])
  const toggle = (key: string) => {
    const next = new Set(closed)
    if (!next.delete(key)) next.add(key)
    setClosed(next)
  }
  return (
    <Box component="nav" aria-label="Sheets" sx={NAV}>
      <Grouping by={by} set={setBy} />
      <Box sx={{ px: 1, pb: 0.5 }}>
        <input
          aria-label="Filter the sheets"
          placeholder="Filter"
          value={words}
          onChange={(e) => setWords(e.target.value)}
          style={FILTER}
        />
      </Box>
      <SheetTree
        {...{ projectId, sheets, rows, by, current, canEdit, toggle }}
        isClosed={(key) => closed.has(key) && !words}
        insert={setAdding}
        nothing={words && rows.length === 0 ? `No sheet has “${words}”.` : ''}
      />
      {canEdit && adding === null && (
        <Button
          startIcon={<AddIcon />}
          onClick={() => setAdding(sheets.some((s) => s.id === current) ? current : '')}
          sx={{ m: 0.5, flexShrink: 0 }}
        >
          Add a sheet
        </Button>
      )}
      {adding !== null && (
        <AddSheet projectId={projectId} sheets={sheets} after={adding} close={() => setAdding(null)} />
      )}
    </Box>
  )
})

const FILTER = {
  width: '100%',
  font: 'inherit',
  fontSize: 12.5,
  padding: '3px 7px',
  border: `1px solid ${LINE}`,
  borderRadius: 4,
  background: '#fff',
}

function Grouping({ by, set }: { by: By; set: (by: By) => void }) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', px: 1.25, height: 32, gap: 0.5 }}>
      <Box sx={{ fontSize: 11, fontWeight: 600, color: QUIET, letterSpacing: 0.6, flex: 1 }}>SHEETS BY</Box>
      <Select
        variant="standard"
        disableUnderline
        value={by}
        inputProps={{ 'aria-label': 'Group sheets by' }}
        onChange={(e) => {
          set(e.target.value as By)
          remember('sheets-by', e.target.value)
        }}
        sx={{ fontSize: 12 }}
      >
        <MenuItem value="function">function</MenuItem>
        <MenuItem value="location">location</MenuItem>
        <MenuItem value="number">number</MenuItem>
      </Select>
    </Box>
  )
}
