/** A row of a table: the box that selects it, and its cells. */
import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import { COPPER, LINE, MONO, QUIET, SNAG } from '../theme/theme'
import { GridCell } from './GridCell'
import { ROW_PX, type Cursor } from './gridCursor'
import type { Column } from './gridData'
import { valueOf } from './gridKeys'
import type { Unsaved } from './gridUnsaved'

interface RowProps<T extends { id: string }> {
  row: T
  n: number
  columns: Column<T>[]
  cursor: Cursor
  selected: boolean
  /** Select it or not; with `until`, all rows from the cursor to it. */
  onSelect: (until: boolean) => void
  onOpen?: (row: T) => void
  onSave: (typed: string, down: boolean) => void
  lift?: Lift | undefined
  unsaved?: Unsaved | undefined
}

/** Rows that can be dragged to another place of the table. */
export interface Lift {
  /** The row over which a lifted one is held, -1 while none is. */
  over: number
  onLift: (n: number) => void
  onOver: (n: number) => void
  onDrop: () => void
}

export function GridRow<T extends { id: string }>(props: RowProps<T>) {
  const { row, n, columns, cursor, selected, onSelect, onOpen, onSave, lift, unsaved } = props
  return (
    <Box
      role="row"
      data-row={row.id}
      aria-rowindex={n + 2}
      aria-selected={selected}
      onDragOver={(e) => {
        if (!lift) return
        e.preventDefault()
        if (lift.over !== n) lift.onOver(n)
      }}
      onDrop={lift?.onDrop}
      sx={{
        position: 'absolute',
        top: n * ROW_PX,
        height: ROW_PX,
        width: '100%',
        display: 'flex',
        borderBottom: `1px solid ${LINE}`,
        boxShadow: lift?.over === n ? `inset 0 2px 0 ${COPPER}` : undefined,
        bgcolor: selected ? '#F8EBDF' : undefined,
        '&:hover': { bgcolor: selected ? '#F8EBDF' : '#FBF6EE' },
      }}
    >
      <Box
        draggable={lift !== undefined}
        onDragStart={() => lift?.onLift(n)}
        onDragEnd={() => lift?.onOver(-1)}
        title={lift ? 'Drag the row to another place' : undefined}
        sx={{ width: 36, flexShrink: 0, cursor: lift ? 'grab' : undefined }}
      >
        <Checkbox
          size="small"
          checked={selected}
          onClick={(e) => {
            if (!e.shiftKey || !cursor.at) return
            e.preventDefault()
            onSelect(true)
          }}
          onChange={(e) => {
            if (!(e.nativeEvent as MouseEvent).shiftKey) onSelect(false)
            cursor.setAt({ row: n, column: cursor.at?.column ?? 0 })
          }}
          slotProps={{ input: { 'aria-label': `Select ${columns[0]?.text(row) ?? ''}` } }}
          sx={{ p: 0.4 }}
        />
      </Box>
      {columns.map((column, j) => (
        <Cell
          key={column.key}
          {...{ row, n, j, column, cursor, onOpen, onSave }}
          kept={unsaved?.of(row.id, column.key)}
        />
      ))}
    </Box>
  )
}

/** What was refused, where it was typed. */
function Kept({ words }: { words: string }) {
  return (
    <span
      data-unsaved
      style={{ color: SNAG, textDecoration: 'underline dotted' }}
      title="Not saved. Enter goes on with it, Escape puts back what was there."
    >
      {words || 'empty'}
    </span>
  )
}

function contentOf<T>(column: Column<T>, row: T, kept: string | undefined) {
  if (kept === undefined) return column.text(row)
  return <Kept words={column.choices?.find((c) => c.id === kept)?.name ?? kept} />
}

interface CellProps<T> {
  row: T
  n: number
  j: number
  column: Column<T>
  cursor: Cursor
  onOpen?: (row: T) => void
  onSave: (typed: string, down: boolean) => void
  /** What was typed here and refused. */
  kept?: string | undefined
}

function Cell<T>({ row, n, j, column, cursor, onOpen, onSave, kept }: CellProps<T>) {
  const { at, range, typing, go, type } = cursor
  const here = at?.row === n && at.column === j
  const within = range && n >= range.top && n <= range.bottom && j >= range.left && j <= range.right
  return (
    <Box
      role="gridcell"
      data-key={column.key}
      onMouseDown={(e) => {
        if (here && typing !== null) return
        e.preventDefault()
        go({ row: n, column: j }, e.shiftKey)
      }}
      onDoubleClick={() => {
        if (column.edit?.(row)) type(kept ?? valueOf(column, row))
        else onOpen?.(row)
      }}
      sx={{
        width: column.width,
        flexShrink: 0,
        px: 0.75,
        lineHeight: `${ROW_PX}px`,
        overflow: 'hidden',
        textOverflow: 'ellipsis',
        whiteSpace: 'nowrap',
        fontFamily: column.mono ? MONO : undefined,
        color: column.ink?.(row) ?? (column.edit?.(row) === false ? QUIET : undefined),
        outline: here ? `2px solid ${COPPER}` : undefined,
        outlineOffset: -2,
        bgcolor: within && !here ? '#F5E2D2' : undefined,
      }}
    >
      {here && typing !== null ? (
        <GridCell
          label={column.name}
          start={typing}
          choices={column.choices}
          onSave={onSave}
          onCancel={() => {
            type(null)
            go(at)
          }}
        />
      ) : (
        contentOf(column, row, kept)
      )}
    </Box>
  )
}
