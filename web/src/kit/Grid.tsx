/**
 * A table one works in like in a spreadsheet: cells are edited in place, blocks pasted and copied, values filled down;
 * it sorts, filters, hides columns, and paints only the rows in view. It changes nothing itself: each act is handed
 * up as one list of changes.
 */
import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import { useEffect, useMemo, useRef, useState } from 'react'
import { COPPER, LINE, MONO, QUIET } from '../theme/theme'
import { GridCell } from './GridCell'
import { GridHead, HEAD_PX, type Sort } from './GridHead'
import {
  arranged,
  changesOf,
  copied,
  emptied,
  filledDown,
  pasted,
  rangeOf,
  type At,
  type CellChange,
  type Column,
  type Wanted,
} from './gridData'
import { remembered } from './remember'

const ROW_PX = 28
const OVER = 8

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

export function Grid<T extends { id: string }>(props: Props<T>) {
  const { name, rows, selected, onSelect, onChange } = props
  const box = useRef<HTMLDivElement>(null)
  const [top, setTop] = useState(0)
  const [height, setHeight] = useState(400)
  const [at, setAt] = useState<At | null>(null)
  const [until, setUntil] = useState<At | null>(null)
  const [typing, setTyping] = useState<string | null>(null)
  const [sort, setSort] = useState<Sort>(null)
  const [hidden, setHidden] = useState<string[]>(() => remembered(`columns-${name}`, []))
  const columns = useMemo(() => props.columns.filter((c) => !hidden.includes(c.key)), [props.columns, hidden])
  const words = props.filter ?? ''
  const shown = useMemo(() => arranged(rows, props.columns, words, sort), [rows, props.columns, words, sort])

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
  const range = at && rangeOf(at, until)
  const change = (wanted: Wanted<T>[]) => {
    const changes = changesOf(wanted)
    if ('problem' in changes) props.onProblem?.(changes.problem)
    else if (changes.length) onChange?.(changes)
  }
  const paste = (text: string) => {
    if (!range || !onChange) return
    const { wanted, beyond } = pasted(text, shown, columns, range)
    change(wanted)
    if (beyond.length) props.onBeyond?.(beyond)
  }
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
      change(filledDown(shown, columns, range))
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
      change(emptied(shown, columns, range))
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
    // A cell that is left as it was is no act.
    if (row && column && typed !== (column.value ?? column.text)(row)) change([{ row, column, typed }])
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
          e.clipboardData.setData('text/plain', copied(shown, columns, range))
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
      <GridHead
        name={name}
        all={props.columns}
        shown={columns}
        hidden={hidden}
        wide={wide}
        sort={sort}
        onSort={setSort}
        onHide={setHidden}
        checked={all}
        some={selected.size > 0}
        onCheck={() => onSelect(all ? [] : shown.map((r) => r.id))}
      />
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
