/** The sheets of the project as a tree by function, location or number: filtered, dragged, opened. */
import AddIcon from '@mui/icons-material/Add'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import { memo, useEffect, useEffectEvent, useMemo, useRef, useState } from 'react'
import { makeEdit } from '../../api/client'
import type { PageLine, SheetLine } from '../../api/shapes'
import { COPPER, LINE, QUIET } from '../../theme/theme'
import { remember, remembered } from '../../kit/remember'
import { AddSheet } from './AddSheet'
import { GroupRow, SheetRow } from './SheetRow'
import { useProject } from '../../project/store'

const ROW_PX = 26
const OVER = 10
type By = 'function' | 'location' | 'number'

export type Row =
  | { type: 'group'; key: string; label: string; count: number; first: SheetLine | null }
  | { type: 'sheet'; key: string; sheet: SheetLine }
  | { type: 'page'; key: string; page: PageLine }

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
      <Tree
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

/** The rows in view of a list that scrolls, and bringing one of them into view. */
function useRows(rows: Row[], current: string) {
  const box = useRef<HTMLDivElement>(null)
  const [top, setTop] = useState(0)
  const [height, setHeight] = useState(600)
  useEffect(() => {
    const element = box.current
    if (!element) return
    const watch = new ResizeObserver(() => setHeight(element.clientHeight))
    watch.observe(element)
    return () => watch.disconnect()
  }, [])
  const bringIntoView = useEffectEvent((id: string) => {
    const at = rows.findIndex((r) => r.key === id)
    const element = box.current
    if (at < 0 || !element) return
    const y = at * ROW_PX
    if (y < element.scrollTop || y + ROW_PX > element.scrollTop + element.clientHeight)
      element.scrollTop = Math.max(0, y - element.clientHeight / 3)
  })
  // Only when another sheet is opened: scrolling by hand is left alone.
  useEffect(() => bringIntoView(current), [current])
  const first = Math.max(0, Math.floor(top / ROW_PX) - OVER)
  const last = Math.min(rows.length, Math.ceil((top + height) / ROW_PX) + OVER)
  return { box, setTop, first, last }
}

/** Put a dragged sheet behind another one, or at the front of a group, and into that one's group. */
function moveSheet(held: string, target: Row, sheets: SheetLine[], by: By) {
  const model = target.type === 'sheet' ? target.sheet : target.type === 'group' ? target.first : null
  if (!held || !model || model.id === held) return
  const order = sheets.filter((s) => s.id !== held)
  const at = order.findIndex((s) => s.id === model.id)
  const after = target.type === 'sheet' ? model.id : (order[at - 1]?.id ?? '-')
  const groups = {
    function: { function_id: model.function_id },
    location: { location_id: model.location_id },
    number: {},
  }
  const { send } = useProject.getState()
  void send(makeEdit('order-sheets', { sheet_ids: [held], after_id: after, ...groups[by], follow: true }))
}

interface TreeProps {
  projectId: string
  sheets: SheetLine[]
  rows: Row[]
  by: By
  current: string
  canEdit: boolean
  isClosed: (key: string) => boolean
  toggle: (key: string) => void
  insert: (after: string) => void
  nothing: string
}

function Tree(props: TreeProps) {
  const { sheets, rows, by, current, canEdit } = props
  const { box, setTop, first, last } = useRows(rows, current)
  const [held, setHeld] = useState('')
  const [over, setOver] = useState('')
  const drag = (key: string) => {
    setHeld(key)
    setOver('')
  }
  return (
    <Box
      ref={box}
      data-testid="sheet-tree"
      onScroll={(e) => setTop(e.currentTarget.scrollTop)}
      sx={{ flex: 1, minHeight: 60, overflow: 'auto', position: 'relative' }}
    >
      <Box sx={{ height: rows.length * ROW_PX, position: 'relative' }}>
        {rows.slice(first, last).map((row, i) => (
          <Box
            key={row.key}
            draggable={canEdit && row.type === 'sheet'}
            onDragStart={(e) => {
              drag(row.key)
              e.dataTransfer.effectAllowed = 'move'
              e.dataTransfer.setData('text/plain', row.key)
            }}
            onDragEnd={() => drag('')}
            onDragOver={(e) => {
              if (!held || row.type === 'page') return
              e.preventDefault()
              setOver(row.key)
            }}
            onDrop={(e) => {
              e.preventDefault()
              drag('')
              moveSheet(held, row, sheets, by)
            }}
            sx={{
              position: 'absolute',
              top: (first + i) * ROW_PX,
              height: ROW_PX,
              left: 0,
              right: 0,
              opacity: held === row.key ? 0.45 : 1,
              borderBottom: over === row.key ? `2px solid ${COPPER}` : undefined,
            }}
          >
            <OneRow row={row} {...props} />
          </Box>
        ))}
      </Box>
      {props.nothing && <Box sx={{ p: 1.5, color: QUIET }}>{props.nothing}</Box>}
    </Box>
  )
}

function OneRow({
  row,
  projectId,
  by,
  current,
  canEdit,
  isClosed,
  toggle,
  insert,
}: TreeProps & { row: Row }) {
  const people = useProject((s) => s.people)
  if (row.type === 'group')
    return (
      <GroupRow
        label={row.label}
        count={row.count}
        closed={isClosed(row.key)}
        onToggle={() => toggle(row.key)}
      />
    )
  return (
    <SheetRow
      projectId={projectId}
      page={row.type === 'sheet' ? row.sheet : row.page}
      current={row.key === current}
      indent={by !== 'number' || row.type === 'page'}
      people={people.filter((p) => p.sheet_id === row.key).map((p) => p.name)}
      onInsert={canEdit && row.type === 'sheet' ? () => insert(row.key) : undefined}
    />
  )
}
