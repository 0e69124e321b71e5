/**
 * A table one works in like in a spreadsheet: cells are edited in place, blocks pasted and copied, values filled down;
 * it sorts, filters, hides columns, and paints only the rows in view. It changes nothing itself: each act is handed
 * up as one list of changes.
 */
import ArrowDropDownIcon from '@mui/icons-material/ArrowDropDown'
import ArrowDropUpIcon from '@mui/icons-material/ArrowDropUp'
import ViewColumnOutlinedIcon from '@mui/icons-material/ViewColumnOutlined'
import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import IconButton from '@mui/material/IconButton'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { useEffect, useMemo, useRef, useState } from 'react'
import { COPPER, LINE, MONO, QUIET } from '../app/theme'
import { GridCell } from './GridCell'
import { remembered, remember } from './remember'

export const ROW_PX = 28
const HEAD_PX = 30
const OVER = 8

export interface Choice {
  id: string
  name: string
}

export interface Column<T> {
  key: string
  name: string
  width: number
  /** What the cell shows, and what sorting, filtering and copying take. */
  text: (row: T) => string
  /** Choices by which the cell is edited; a pasted name is taken as its id. */
  choices?: Choice[]
  /** Whether it can be edited in this row; not at all when left out. */
  edit?: (row: T) => boolean
  /** The value handed up is that of the choice, or the text. */
  value?: (row: T) => string
  mono?: boolean
}

export interface CellChange {
  id: string
  key: string
  value: string
}

interface Props<T extends { id: string }> {
  name: string
  columns: Column<T>[]
  rows: T[]
  selected: Set<string>
  onSelect: (ids: string[]) => void
  onChange?: (changes: CellChange[]) => void
  onOpen?: (row: T) => void
  filter?: string
  /** A pasted block that goes on below the last row: its rows are handed here. */
  onBeyond?: (rows: Record<string, string>[]) => void
  onProblem?: (words: string) => void
}

interface At {
  row: number
  column: number
}

/** The value a typed or pasted text stands for in a column, null when it is none of its choices. */
export function valueOf<T>(column: Column<T>, typed: string): string | null {
  if (!column.choices) return typed
  const wanted = typed.trim().toLowerCase()
  const found = column.choices.find((c) => c.id === typed || c.name.toLowerCase() === wanted)
  return found ? found.id : wanted === '' ? '' : null
}

export function Grid<T extends { id: string }>(props: Props<T>) {
  const { name, rows, selected, onSelect, onChange } = props
  const box = useRef<HTMLDivElement>(null)
  const [top, setTop] = useState(0)
  const [height, setHeight] = useState(400)
  const [at, setAt] = useState<At | null>(null)
  const [until, setUntil] = useState<At | null>(null)
  const [typing, setTyping] = useState<string | null>(null)
  const [sort, setSort] = useState<{ key: string; down: boolean } | null>(null)
  const [hidden, setHidden] = useState<string[]>(() => remembered(`columns-${name}`, []))
  const [menu, setMenu] = useState<HTMLElement | null>(null)
  const columns = useMemo(() => props.columns.filter((c) => !hidden.includes(c.key)), [props.columns, hidden])
  const words = (props.filter ?? '').toLowerCase().split(' ').filter(Boolean)
  const shown = useMemo(() => {
    const found = words.length
      ? rows.filter((r) => {
          const line = props.columns
            .map((c) => c.text(r))
            .join(' ')
            .toLowerCase()
          return words.every((w) => line.includes(w))
        })
      : rows
    const by = sort && props.columns.find((c) => c.key === sort.key)
    if (!by) return found
    const way = sort.down ? -1 : 1
    return [...found].sort((a, b) => way * by.text(a).localeCompare(by.text(b), undefined, { numeric: true }))
    // `words` is made anew each time; its text says when it differs.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [rows, props.columns, words.join(' '), sort])

  useEffect(() => {
    const element = box.current
    if (!element) return
    const watch = new ResizeObserver(() => setHeight(element.clientHeight))
    watch.observe(element)
    return () => watch.disconnect()
  }, [])

  const first = Math.max(0, Math.floor(top / ROW_PX) - OVER)
  const last = Math.min(shown.length, Math.ceil((top + height) / ROW_PX) + OVER)
  const wide = columns.reduce((sum, c) => sum + c.width, 36)

  /** Go to a cell and bring it into view. */
  const go = (to: At, extend = false) => {
    const row = Math.max(0, Math.min(shown.length - 1, to.row))
    const column = Math.max(0, Math.min(columns.length - 1, to.column))
    if (extend) setUntil({ row, column })
    else {
      setAt({ row, column })
      setUntil(null)
    }
    const element = box.current
    if (!element) return
    const y = row * ROW_PX
    if (y < element.scrollTop) element.scrollTop = y
    if (y + ROW_PX + HEAD_PX > element.scrollTop + element.clientHeight)
      element.scrollTop = y + ROW_PX + HEAD_PX - element.clientHeight
    element.focus({ preventScroll: true })
  }
  const range = at && {
    top: Math.min(at.row, until?.row ?? at.row),
    bottom: Math.max(at.row, until?.row ?? at.row),
    left: Math.min(at.column, until?.column ?? at.column),
    right: Math.max(at.column, until?.column ?? at.column),
  }

  /** Hand up what is to become of some cells; those that cannot be edited are left out. */
  const change = (wanted: { row: T; column: Column<T>; typed: string }[]) => {
    const changes: CellChange[] = []
    for (const { row, column, typed } of wanted) {
      if (!column.edit?.(row)) continue
      const value = valueOf(column, typed)
      if (value === null) {
        props.onProblem?.(`“${typed}” is none of the choices of ${column.name}. Nothing was changed.`)
        return
      }
      if (value !== (column.value ?? column.text)(row)) changes.push({ id: row.id, key: column.key, value })
    }
    if (changes.length) onChange?.(changes)
  }
  const paste = (text: string) => {
    if (!range || !onChange) return
    const lines = text.replace(/\r/g, '').replace(/\n$/, '').split('\n')
    const cells = lines.map((line) => line.split('\t'))
    const single = cells.length === 1 && cells[0]!.length === 1
    const wanted: { row: T; column: Column<T>; typed: string }[] = []
    const beyond: Record<string, string>[] = []
    const deep = single ? range.bottom - range.top + 1 : cells.length
    for (let i = 0; i < deep; i++) {
      const line = single ? cells[0]! : cells[i]!
      const row = shown[range.top + i]
      const made: Record<string, string> = {}
      const across = single ? range.right - range.left + 1 : line.length
      for (let j = 0; j < across; j++) {
        const column = columns[range.left + j]
        const typed = single ? line[0]! : line[j]!
        if (!column) continue
        if (row) wanted.push({ row, column, typed })
        else made[column.key] = valueOf(column, typed) ?? typed
      }
      if (!row && Object.keys(made).length) beyond.push(made)
    }
    change(wanted)
    if (beyond.length) props.onBeyond?.(beyond)
  }
  const copied = () =>
    range
      ? shown
          .slice(range.top, range.bottom + 1)
          .map((r) =>
            columns
              .slice(range.left, range.right + 1)
              .map((c) => c.text(r))
              .join('\t'),
          )
          .join('\n')
      : ''
  const onKeys = (event: React.KeyboardEvent) => {
    if (typing !== null || !at) return
    const row = shown[at.row]
    const column = columns[at.column]
    const step: Record<string, [number, number]> = {
      ArrowDown: [1, 0],
      ArrowUp: [-1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
      PageDown: [Math.floor(height / ROW_PX) - 2, 0],
      PageUp: [2 - Math.floor(height / ROW_PX), 0],
      Tab: [0, event.shiftKey ? -1 : 1],
    }
    // At the end of a row Tab goes on to what comes after the table.
    if (event.key === 'Tab' && at.column === (event.shiftKey ? 0 : columns.length - 1)) return
    const move = step[event.key]
    const from = event.shiftKey && event.key !== 'Tab' ? (until ?? at) : at
    if (move) {
      event.preventDefault()
      go({ row: from.row + move[0], column: from.column + move[1] }, event.shiftKey && event.key !== 'Tab')
    } else if (event.ctrlKey && event.key.toLowerCase() === 'd' && range) {
      event.preventDefault()
      const source = shown[range.top]!
      change(
        shown
          .slice(range.top + 1, range.bottom + 1)
          .flatMap((r) =>
            columns
              .slice(range.left, range.right + 1)
              .map((c) => ({ row: r, column: c, typed: (c.value ?? c.text)(source) })),
          ),
      )
    } else if (event.ctrlKey && event.key.toLowerCase() === 'a') {
      event.preventDefault()
      onSelect(shown.map((r) => r.id))
    } else if (event.key === ' ' && row) {
      event.preventDefault()
      toggle(row.id)
    } else if ((event.key === 'Enter' || event.key === 'F2') && row && column?.edit?.(row)) {
      event.preventDefault()
      setTyping((column.value ?? column.text)(row))
    } else if (event.key === 'Delete' && range) {
      event.preventDefault()
      change(
        shown.slice(range.top, range.bottom + 1).flatMap((r) =>
          columns
            .slice(range.left, range.right + 1)
            .filter((c) => !c.choices)
            .map((c) => ({ row: r, column: c, typed: '' })),
        ),
      )
    } else if (
      event.key.length === 1 &&
      !event.ctrlKey &&
      !event.metaKey &&
      !event.altKey &&
      row &&
      column?.edit?.(row) &&
      !column.choices
    ) {
      event.preventDefault()
      setTyping(event.key)
    }
  }
  const toggle = (id: string) =>
    onSelect(selected.has(id) ? [...selected].filter((s) => s !== id) : [...selected, id])
  const saveCell = (typed: string, down: boolean) => {
    setTyping(null)
    if (!at) return
    const row = shown[at.row]
    const column = columns[at.column]
    if (row && column) change([{ row, column, typed }])
    go({ row: at.row + (down ? 1 : 0), column: at.column })
  }
  const all = shown.length > 0 && shown.every((r) => selected.has(r.id))
  return (
    <Box
      ref={box}
      role="grid"
      aria-label={name}
      aria-rowcount={shown.length + 1}
      tabIndex={0}
      onScroll={(e) => setTop(e.currentTarget.scrollTop)}
      onKeyDown={onKeys}
      onFocus={() => {
        if (shown.length) setAt((now) => now ?? { row: 0, column: 0 })
      }}
      onCopy={(e) => {
        if (typing === null && range) {
          e.preventDefault()
          e.clipboardData.setData('text/plain', copied())
        }
      }}
      onPaste={(e) => {
        if (typing !== null) return
        e.preventDefault()
        paste(e.clipboardData.getData('text/plain'))
      }}
      sx={{
        flex: 1,
        minHeight: 0,
        overflow: 'auto',
        bgcolor: '#fff',
        fontSize: 12.5,
        position: 'relative',
        '&:focus-visible': { outline: 'none' },
      }}
    >
      <Box
        role="row"
        sx={{
          display: 'flex',
          position: 'sticky',
          top: 0,
          zIndex: 2,
          minWidth: wide,
          height: HEAD_PX,
          bgcolor: '#F6F1E7',
          borderBottom: `1px solid ${LINE}`,
          color: QUIET,
          fontSize: 11,
          fontWeight: 600,
        }}
      >
        <Box sx={{ width: 36, flexShrink: 0 }}>
          <Checkbox
            size="small"
            checked={all}
            indeterminate={!all && selected.size > 0}
            onChange={() => onSelect(all ? [] : shown.map((r) => r.id))}
            slotProps={{ input: { 'aria-label': 'Select all' } }}
            sx={{ p: 0.5 }}
          />
        </Box>
        {columns.map((c) => (
          <Box
            key={c.key}
            role="columnheader"
            aria-sort={sort?.key === c.key ? (sort.down ? 'descending' : 'ascending') : 'none'}
            onClick={() =>
              setSort(
                sort?.key !== c.key
                  ? { key: c.key, down: false }
                  : sort.down
                    ? null
                    : { ...sort, down: true },
              )
            }
            sx={{
              width: c.width,
              flexShrink: 0,
              px: 0.75,
              display: 'flex',
              alignItems: 'center',
              cursor: 'pointer',
            }}
          >
            {c.name}
            {sort?.key === c.key && (sort.down ? <ArrowDropDownIcon /> : <ArrowDropUpIcon />)}
          </Box>
        ))}
        <IconButton
          size="small"
          aria-label="Choose columns"
          onClick={(e) => setMenu(e.currentTarget)}
          sx={{ position: 'sticky', right: 0, ml: 'auto', bgcolor: '#F6F1E7' }}
        >
          <ViewColumnOutlinedIcon fontSize="small" />
        </IconButton>
        <Menu anchorEl={menu} open={menu !== null} onClose={() => setMenu(null)}>
          {props.columns.map((c) => (
            <MenuItem
              key={c.key}
              dense
              onClick={() => {
                const next = hidden.includes(c.key) ? hidden.filter((k) => k !== c.key) : [...hidden, c.key]
                setHidden(next)
                remember(`columns-${name}`, next)
              }}
            >
              <Checkbox size="small" checked={!hidden.includes(c.key)} sx={{ p: 0, mr: 1 }} />
              {c.name}
            </MenuItem>
          ))}
        </Menu>
      </Box>
      <Box sx={{ height: shown.length * ROW_PX, position: 'relative', minWidth: wide }}>
        {shown.slice(first, last).map((row, i) => {
          const n = first + i
          return (
            <Box
              key={row.id}
              role="row"
              aria-rowindex={n + 2}
              aria-selected={selected.has(row.id)}
              sx={{
                position: 'absolute',
                top: n * ROW_PX,
                height: ROW_PX,
                width: '100%',
                display: 'flex',
                borderBottom: `1px solid ${LINE}`,
                bgcolor: selected.has(row.id) ? '#F8EBDF' : undefined,
                '&:hover': { bgcolor: selected.has(row.id) ? '#F8EBDF' : '#FBF6EE' },
              }}
            >
              <Box sx={{ width: 36, flexShrink: 0 }}>
                <Checkbox
                  size="small"
                  checked={selected.has(row.id)}
                  onClick={(e) => {
                    if (!e.shiftKey || !at) return
                    e.preventDefault()
                    const [a, b] = [Math.min(at.row, n), Math.max(at.row, n)]
                    onSelect([...new Set([...selected, ...shown.slice(a, b + 1).map((r) => r.id)])])
                  }}
                  onChange={(e) => {
                    if (!(e.nativeEvent as MouseEvent).shiftKey) toggle(row.id)
                    setAt({ row: n, column: at?.column ?? 0 })
                  }}
                  slotProps={{ input: { 'aria-label': `Select ${columns[0]?.text(row) ?? ''}` } }}
                  sx={{ p: 0.4 }}
                />
              </Box>
              {columns.map((c, j) => {
                const here = at?.row === n && at.column === j
                const within =
                  range && n >= range.top && n <= range.bottom && j >= range.left && j <= range.right
                return (
                  <Box
                    key={c.key}
                    role="gridcell"
                    data-key={c.key}
                    onMouseDown={(e) => {
                      if (here && typing !== null) return
                      e.preventDefault()
                      go({ row: n, column: j }, e.shiftKey)
                    }}
                    onDoubleClick={() => {
                      if (c.edit?.(row)) setTyping((c.value ?? c.text)(row))
                      else props.onOpen?.(row)
                    }}
                    sx={{
                      width: c.width,
                      flexShrink: 0,
                      px: 0.75,
                      lineHeight: `${ROW_PX}px`,
                      overflow: 'hidden',
                      textOverflow: 'ellipsis',
                      whiteSpace: 'nowrap',
                      fontFamily: c.mono ? MONO : undefined,
                      color: c.edit?.(row) === false ? QUIET : undefined,
                      outline: here ? `2px solid ${COPPER}` : undefined,
                      outlineOffset: -2,
                      bgcolor: within && !here ? '#F5E2D2' : undefined,
                    }}
                  >
                    {here && typing !== null ? (
                      <GridCell
                        label={c.name}
                        start={typing}
                        choices={c.choices}
                        onSave={saveCell}
                        onCancel={() => {
                          setTyping(null)
                          go(at)
                        }}
                      />
                    ) : (
                      c.text(row)
                    )}
                  </Box>
                )
              })}
            </Box>
          )
        })}
      </Box>
    </Box>
  )
}
