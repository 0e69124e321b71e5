/** What a Grid is given and hands up, and the pure part of its work: values, pasted blocks, copied blocks, sorting. */
import { blockOf, cellsIn } from './block'

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
  /** What colour its text has in a row, where it has one of its own. */
  ink?: (row: T) => string | undefined
}

export interface CellChange {
  id: string
  key: string
  value: string
}

export interface At {
  row: number
  column: number
}

/** The cells between two, both included. */
export interface Range {
  top: number
  bottom: number
  left: number
  right: number
}

/** What is to become of a cell, as it was typed. */
export interface Wanted<T> {
  row: T
  column: Column<T>
  typed: string
}

export function rangeOf(at: At, until: At | null): Range {
  const other = until ?? at
  return {
    top: Math.min(at.row, other.row),
    bottom: Math.max(at.row, other.row),
    left: Math.min(at.column, other.column),
    right: Math.max(at.column, other.column),
  }
}

/** The rows that have all the words, in the order asked for. */
export function arranged<T>(
  rows: T[],
  columns: Column<T>[],
  words: string,
  sort: { key: string; down: boolean } | null,
): T[] {
  const wanted = words.toLowerCase().split(' ').filter(Boolean)
  const found = wanted.length
    ? rows.filter((r) => {
        const line = columns
          .map((c) => c.text(r))
          .join(' ')
          .toLowerCase()
        return wanted.every((w) => line.includes(w))
      })
    : rows
  const by = sort && columns.find((c) => c.key === sort.key)
  if (!by) return found
  const way = sort.down ? -1 : 1
  return [...found].sort((a, b) => way * by.text(a).localeCompare(by.text(b), undefined, { numeric: true }))
}

/** The value a typed or pasted text stands for in a column, null when it is none of its choices. */
export function valueOf<T>(column: Column<T>, typed: string): string | null {
  if (!column.choices) return typed
  const wanted = typed.trim().toLowerCase()
  const found = column.choices.find((c) => c.id === typed || c.name.toLowerCase() === wanted)
  return found ? found.id : wanted === '' ? '' : null
}

/**
 * The changes that make true what was typed; cells that cannot be edited are left out. What has that value already is
 * not: the rows at hand may be a moment old, and which changes have an effect is the server's to say.
 */
export function changesOf<T extends { id: string }>(wanted: Wanted<T>[]): CellChange[] | { problem: string } {
  const changes: CellChange[] = []
  for (const { row, column, typed } of wanted) {
    if (!column.edit?.(row)) continue
    const value = valueOf(column, typed)
    if (value === null)
      return { problem: `“${typed}” is none of the choices of ${column.name}. Nothing was changed.` }
    changes.push({ id: row.id, key: column.key, value })
  }
  return changes
}

/** What a pasted block says: of cells there are, and of rows below the last. One cell alone fills the range. */
export function pasted<T>(
  text: string,
  rows: T[],
  columns: Column<T>[],
  range: Range,
): { wanted: Wanted<T>[]; beyond: Record<string, string>[] } {
  const cells = cellsIn(text)
  const single = cells.length === 1 && cells[0]!.length === 1
  const wanted: Wanted<T>[] = []
  const beyond: Record<string, string>[] = []
  const deep = single ? range.bottom - range.top + 1 : cells.length
  for (let i = 0; i < deep; i++) {
    const line = single ? cells[0]! : cells[i]!
    const row = rows[range.top + i]
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
  return { wanted, beyond }
}

/** A range as a block for a spreadsheet. */
export function copied<T>(rows: T[], columns: Column<T>[], range: Range): string {
  const across = columns.slice(range.left, range.right + 1)
  return blockOf(rows.slice(range.top, range.bottom + 1).map((r) => across.map((c) => c.text(r))))
}

/** Every cell of a range below its first row, to become what the first row has. */
export function filledDown<T>(rows: T[], columns: Column<T>[], range: Range): Wanted<T>[] {
  const source = rows[range.top]!
  return rows
    .slice(range.top + 1, range.bottom + 1)
    .flatMap((row) =>
      columns
        .slice(range.left, range.right + 1)
        .map((column) => ({ row, column, typed: (column.value ?? column.text)(source) })),
    )
}

/** Every text of a range, to become empty. */
export function emptied<T>(rows: T[], columns: Column<T>[], range: Range): Wanted<T>[] {
  return rows.slice(range.top, range.bottom + 1).flatMap((row) =>
    columns
      .slice(range.left, range.right + 1)
      .filter((column) => !column.choices)
      .map((column) => ({ row, column, typed: '' })),
  )
}
