/** What keys do in a table: they lead, select, fill down, empty, and begin typing. */
import type { Cursor } from './gridCursor'
import type { Unsaved } from './gridUnsaved'
import { emptied, filledDown, type At, type Column, type Wanted } from './gridData'

export interface Sheet<T> {
  rows: T[]
  columns: Column<T>[]
  cursor: Cursor
  change: (wanted: Wanted<T>[]) => void
  toggle: (id: string) => void
  selectAll: () => void
  unsaved?: Unsaved
}

type Key = React.KeyboardEvent

/** What a cell holds when it is edited. */
export const valueOf = <T>(column: Column<T>, row: T) => (column.value ?? column.text)(row)

/** Where a key leads from a cell, in rows and columns; null when it does not lead. */
function stepOf(event: Key, page: number): [number, number] | null {
  if (event.altKey) return null // these keys are the bench's
  const steps: Record<string, [number, number]> = {
    ArrowDown: [1, 0],
    ArrowUp: [-1, 0],
    ArrowLeft: [0, -1],
    ArrowRight: [0, 1],
    PageDown: [page, 0],
    PageUp: [-page, 0],
    Tab: [0, event.shiftKey ? -1 : 1],
  }
  return steps[event.key] ?? null
}

function lead<T>(event: Key, { cursor, columns }: Sheet<T>, at: At): boolean {
  const step = stepOf(event, cursor.page)
  const last = event.shiftKey ? 0 : columns.length - 1
  // At the end of a row Tab goes on to what comes after the table.
  if (!step || (event.key === 'Tab' && at.column === last)) return false
  const extend = event.shiftKey && event.key !== 'Tab'
  const from = extend ? (cursor.until ?? at) : at
  cursor.go({ row: from.row + step[0], column: from.column + step[1] }, extend)
  return true
}

/** The act on what is selected that a key stands for. */
function actOf<T extends { id: string }>(
  event: Key,
  sheet: Sheet<T>,
  row: T | undefined,
): (() => void) | null {
  const { rows, columns, cursor, change, toggle, selectAll } = sheet
  const { range } = cursor
  const letter = event.ctrlKey ? `Ctrl+${event.key.toLowerCase()}` : event.key
  if (letter === 'Ctrl+a') return selectAll
  if (letter === ' ' && row) return () => toggle(row.id)
  if (letter === 'Ctrl+d' && range) return () => change(filledDown(rows, columns, range))
  if (letter === 'Delete' && range) return () => change(emptied(rows, columns, range))
  return null
}

/** What a key begins to type into a cell; null when it types nothing. What was refused there is gone on with. */
function beginning<T extends { id: string }>(
  event: Key,
  row: T | undefined,
  column: Column<T> | undefined,
  unsaved: Unsaved | undefined,
): string | null {
  if (!row || !column?.edit?.(row)) return null
  if (event.key === 'Enter' || event.key === 'F2')
    return unsaved?.of(row.id, column.key) ?? valueOf(column, row)
  const plain = !event.ctrlKey && !event.metaKey && !event.altKey
  return event.key.length === 1 && plain && !column.choices ? event.key : null
}

/** Do what a key stands for; whether it did something. */
export function pressed<T extends { id: string }>(event: Key, sheet: Sheet<T>): boolean {
  const { at, typing } = sheet.cursor
  if (typing !== null || !at) return false
  const [row, column] = [sheet.rows[at.row], sheet.columns[at.column]]
  if (lead(event, sheet, at)) return true
  const act = actOf(event, sheet, row)
  if (act) {
    act()
    return true
  }
  if (event.key === 'Escape' && row && column && sheet.unsaved?.of(row.id, column.key) !== undefined) {
    sheet.unsaved.drop(row.id, column.key)
    return true
  }
  const words = beginning(event, row, column, sheet.unsaved)
  if (words !== null) sheet.cursor.type(words)
  return words !== null
}
