/** The sheets of the project as a tree by function, location or number: filtered, dragged, opened. */
import { AddSheet } from './AddSheet'
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

export const SheetList = memo(function SheetList({ projectId, sheets, pages, current, canEdit }: Props) {
  const people = useProject((s) => s.people)
  const send = useProject((s) => s.send)
  const box = useRef<HTMLDivElement>(null)
  const [adding, setAdding] = useState<string | null>(null)
  const [words, setWords] = useState('')
  const [by, setBy] = useState<By>(() => remembered('sheets-by', 'function'))
  const [closed, setClosed] = useState<Set<string>>(new Set())
  const [top, setTop] = useState(0)
  const [height, setHeight] = useState(600)
  const [held, setHeld] = useState('')
  const [over, setOver] = useState('')
  const rows = useMemo(() => rowsOf(sheets, pages, by, words, closed), [sheets, pages, by, words, closed])

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

  /** Put the dragged sheet behind another one, or at the front of a group, and into that one's group. */
  const drop = (target: Row) => {
    setOver('')
    setHeld('')
    if (target.type === 'page' || !held) return
    const model = target.type === 'sheet' ? target.sheet : target.first
    if (!model || model.id === held) return
    const order = sheets.filter((s) => s.id !== held)
    const at = order.findIndex((s) => s.id === model.id)
    const after = target.type === 'sheet' ? model.id : (order[at - 1]?.id ?? '-')
    const group =
      by === 'function'
        ? { function_id: model.function_id }
        : by === 'location'
          ? { location_id: model.location_id }
          : {}
    void send(
      makeEdit('order-sheets', {
        sheet_ids: [held],
        after_id: after,
        ...group,
        follow: true,
      }),
    )
  }
  return (
    <Box
      component="nav"
      aria-label="Sheets"
      sx={{
        width: 196,
        flexShrink: 0,
        borderRight: `1px solid ${LINE}`,
        bgcolor: '#FBF8F1',
        display: 'flex',
        flexDirection: 'column',
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', px: 1.25, height: 32, gap: 0.5 }}>
        <Box sx={{ fontSize: 11, fontWeight: 600, color: QUIET, letterSpacing: 0.6, flex: 1 }}>SHEETS BY</Box>
        <Select
          variant="standard"
          disableUnderline
          value={by}
          inputProps={{ 'aria-label': 'Group sheets by' }}
          onChange={(e) => {
            setBy(e.target.value as By)
            remember('sheets-by', e.target.value)
          }}
          sx={{ fontSize: 12 }}
        >
          <MenuItem value="function">function</MenuItem>
          <MenuItem value="location">location</MenuItem>
          <MenuItem value="number">number</MenuItem>
        </Select>
      </Box>
      <Box sx={{ px: 1, pb: 0.5 }}>
        <input
          aria-label="Filter the sheets"
          placeholder="Filter"
          value={words}
          onChange={(e) => setWords(e.target.value)}
          style={{
            width: '100%',
            font: 'inherit',
            fontSize: 12.5,
            padding: '3px 7px',
            border: `1px solid ${LINE}`,
            borderRadius: 4,
            background: '#fff',
          }}
        />
      </Box>
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
                setHeld(row.key)
                e.dataTransfer.effectAllowed = 'move'
                e.dataTransfer.setData('text/plain', row.key)
              }}
              onDragEnd={() => {
                setHeld('')
                setOver('')
              }}
              onDragOver={(e) => {
                if (!held || row.type === 'page') return
                e.preventDefault()
                setOver(row.key)
              }}
              onDrop={(e) => {
                e.preventDefault()
                drop(row)
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
              {row.type === 'group' ? (
                <GroupRow
                  label={row.label}
                  count={row.count}
                  closed={closed.has(row.key) && !words}
                  onToggle={() => {
                    const next = new Set(closed)
                    if (!next.delete(row.key)) next.add(row.key)
                    setClosed(next)
                  }}
                />
              ) : (
                <SheetRow
                  projectId={projectId}
                  page={row.type === 'sheet' ? row.sheet : row.page}
                  current={row.key === current}
                  indent={by !== 'number' || row.type === 'page'}
                  people={people.filter((p) => p.sheet_id === row.key).map((p) => p.name)}
                  onInsert={canEdit && row.type === 'sheet' ? () => setAdding(row.key) : undefined}
                />
              )}
            </Box>
          ))}
        </Box>
        {words && rows.length === 0 && <Box sx={{ p: 1.5, color: QUIET }}>No sheet has “{words}”.</Box>}
      </Box>
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
