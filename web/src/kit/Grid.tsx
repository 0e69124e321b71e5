/**
 * A table one works in like in a spreadsheet: cells are edited in place, blocks pasted and copied, values filled down;
 * it sorts, filters, hides columns, and paints only the rows in view. It changes nothing itself: each act is handed
 * up as one list of changes.
 */
import Box from '@mui/material/Box'
import { useEffect, useEffectEvent, useMemo, useState } from 'react'
import { ROW_PX, useCursor, type Cursor } from './gridCursor'
import { GridHead, type Sort } from './GridHead'
import { GridRow, type Lift } from './GridRow'
import { arranged, changesOf, copied, pasted, type CellChange, type Column, type Wanted } from './gridData'
import { pressed, valueOf, type Sheet } from './gridKeys'
import { useUnsaved } from './gridUnsaved'
import { remembered } from './remember'

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
  /** Where one goes is what is selected: for tables that show what is drawn beside them. */
  follow?: boolean
  /** Rows can be dragged: the ids of those dragged, and before which row they are let go. */
  onReorder?: ((ids: string[], before: T | undefined) => void) | undefined
}

const LOOK = {
  flex: 1,
  minHeight: 0,
  overflow: 'auto',
  bgcolor: '#fff',
  fontSize: 12.5,
  position: 'relative',
  '&:focus-visible': { outline: 'none' },
} as const
const CHECKS_PX = 36

/** The rows and columns shown, and how. */
function useShown<T extends { id: string }>({ name, rows, columns, filter = '' }: Props<T>) {
  const [sort, setSort] = useState<Sort>(null)
  const [hidden, setHidden] = useState<string[]>(() => remembered(`columns-${name}`, []))
  const kept = useMemo(() => columns.filter((c) => !hidden.includes(c.key)), [columns, hidden])
  const shown = useMemo(() => arranged(rows, columns, filter, sort), [rows, columns, filter, sort])
  return { shown, kept, sort, setSort, hidden, setHidden }
}

/** The cursor, that takes the selection along where the table asks for it. */
function followed<T extends { id: string }>(cursor: Cursor, props: Props<T>, rows: T[]): Cursor {
  if (!props.follow) return cursor
  return {
    ...cursor,
    go: (to, extend = false) => {
      cursor.go(to, extend)
      const from = extend ? (cursor.at ?? to) : to
      const [a, b] = [Math.min(from.row, to.row), Math.max(from.row, to.row)]
      const kept = Math.max(0, Math.min(rows.length - 1, a))
      props.onSelect(rows.slice(kept, Math.max(kept, b) + 1).map((r) => r.id))
    },
  }
}

/** The cursor goes where something was chosen outside of the table. */
function useFollowing<T extends { id: string }>(props: Props<T>, rows: T[], cursor: Cursor) {
  const { follow, selected } = props
  const at = cursor.at?.row
  // Only another selection leads the cursor: where it goes by itself, the selection follows it.
  const lead = useEffectEvent((selected: Set<string>) => {
    if (!follow || !selected.size || (at !== undefined && selected.has(rows[at]?.id ?? ''))) return
    const first = rows.findIndex((r) => selected.has(r.id))
    if (first >= 0) cursor.show(first)
  })
  useEffect(() => lead(selected), [selected])
}

/** Rows that are dragged: those selected when one of them is lifted, else that one. */
function useLift<T extends { id: string }>(props: Props<T>, rows: T[]): Lift | undefined {
  const [lifted, setLifted] = useState(-1)
  const [over, setOver] = useState(-1)
  const { onReorder, selected } = props
  if (!onReorder) return undefined
  return {
    over: lifted >= 0 ? over : -1,
    onLift: setLifted,
    onOver: setOver,
    onDrop: () => {
      const id = rows[lifted]?.id
      if (id !== undefined && over >= 0) onReorder(selected.has(id) ? [...selected] : [id], rows[over])
      setLifted(-1)
      setOver(-1)
    },
  }
}

/** The table as keys and the clipboard take it. */
function useSheet<T extends { id: string }>(props: Props<T>, rows: T[], columns: Column<T>[]): Sheet<T> {
  const { selected, onSelect, onChange, onProblem } = props
  const cursor = followed(useCursor(rows.length, columns.length), props, rows)
  const unsaved = useUnsaved()
  const change = (wanted: Wanted<T>[]) => {
    const changes = changesOf(wanted)
    if ('problem' in changes) onProblem?.(changes.problem)
    else if (changes.length && onChange) unsaved.hand(changes, onChange)
  }
  const toggle = (id: string) =>
    onSelect(selected.has(id) ? [...selected].filter((s) => s !== id) : [...selected, id])
  return { rows, columns, cursor, change, toggle, unsaved, selectAll: () => onSelect(rows.map((r) => r.id)) }
}

/** Keep what was typed into the cell; one that is left as it was is no act. */
function save<T extends { id: string }>(sheet: Sheet<T>, typed: string, down: boolean) {
  const { rows, columns, cursor, change, unsaved } = sheet
  cursor.type(null)
  const { at } = cursor
  if (!at) return
  const [row, column] = [rows[at.row], columns[at.column]]
  if (row && column && typed !== valueOf(column, row)) change([{ row, column, typed }])
  else if (row && column) unsaved?.drop(row.id, column.key)
  cursor.go({ row: at.row + (down ? 1 : 0), column: at.column })
}

/** What is copied and pasted, while nothing is typed. */
function clipboard<T extends { id: string }>(props: Props<T>, { rows, columns, cursor, change }: Sheet<T>) {
  const onCopy = (e: React.ClipboardEvent) => {
    if (cursor.typing !== null || !cursor.range) return
    e.preventDefault()
    e.clipboardData.setData('text/plain', copied(rows, columns, cursor.range))
  }
  const onPaste = (e: React.ClipboardEvent) => {
    if (cursor.typing !== null) return
    e.preventDefault()
    if (!cursor.range || !props.onChange) return
    const { wanted, beyond } = pasted(e.clipboardData.getData('text/plain'), rows, columns, cursor.range)
    change(wanted)
    if (beyond.length) props.onBeyond?.(beyond)
  }
  return { onCopy, onPaste }
}

export function Grid<T extends { id: string }>(props: Props<T>) {
  const { name, selected, onSelect } = props
  const { shown, kept, ...arrangement } = useShown(props)
  const sheet = useSheet(props, shown, kept)
  const { cursor } = sheet
  const lift = useLift(props, shown)
  useFollowing(props, shown, cursor)
  const select = (row: T, n: number, until: boolean) => {
    if (!until || !cursor.at) return sheet.toggle(row.id)
    const [a, b] = [Math.min(cursor.at.row, n), Math.max(cursor.at.row, n)]
    onSelect([...new Set([...selected, ...shown.slice(a, b + 1).map((r) => r.id)])])
  }
  const wide = kept.reduce((sum, c) => sum + c.width, CHECKS_PX)
  return (
    <Box
      ref={cursor.box}
      role="grid"
      aria-label={name}
      aria-rowcount={shown.length + 1}
      tabIndex={0}
      onScroll={(e) => cursor.scrolled(e.currentTarget.scrollTop)}
      onKeyDown={(e) => pressed(e, sheet) && e.preventDefault()}
      onFocus={() => shown.length && cursor.setAt((now) => now ?? { row: 0, column: 0 })}
      {...clipboard(props, sheet)}
      sx={LOOK}
    >
      <Head {...{ props, shown, kept, wide, arrangement }} />
      <Box sx={{ height: shown.length * ROW_PX, position: 'relative', minWidth: wide }}>
        {shown.slice(cursor.first, cursor.last).map((row, i) => (
          <GridRow
            key={row.id}
            {...{
              row,
              n: cursor.first + i,
              columns: kept,
              cursor,
              lift,
              onOpen: props.onOpen,
              unsaved: sheet.unsaved,
            }}
            selected={selected.has(row.id)}
            onSelect={(until) => select(row, cursor.first + i, until)}
            onSave={(typed, down) => save(sheet, typed, down)}
          />
        ))}
      </Box>
    </Box>
  )
}

interface HeadProps<T extends { id: string }> {
  props: Props<T>
  shown: T[]
  kept: Column<T>[]
  wide: number
  arrangement: Omit<ReturnType<typeof useShown<T>>, 'shown' | 'kept'>
}

function Head<T extends { id: string }>({ props, shown, kept, wide, arrangement }: HeadProps<T>) {
  const { name, columns, selected, onSelect } = props
  const all = shown.length > 0 && shown.every((r) => selected.has(r.id))
  return (
    <GridHead
      name={name}
      all={columns}
      shown={kept}
      hidden={arrangement.hidden}
      wide={wide}
      sort={arrangement.sort}
      onSort={arrangement.setSort}
      onHide={arrangement.setHidden}
      checked={all}
      some={selected.size > 0}
      onCheck={() => onSelect(all ? [] : shown.map((r) => r.id))}
    />
  )
}
