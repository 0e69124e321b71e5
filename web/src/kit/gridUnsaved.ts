/** What was typed into cells of a table and refused: it stays at its cell until it is taken, or put back. */
import { useState } from 'react'
import { allSent, useLine } from '../api/line'
import type { CellChange } from './gridData'

export interface Unsaved {
  /** What was typed into a cell and is not saved, undefined where that is nothing. */
  of: (id: string, key: string) => string | undefined
  drop: (id: string, key: string) => void
  /** Hand changes up, and keep them where they are refused. */
  hand: (changes: CellChange[], up: (changes: CellChange[]) => void) => void
}

const nameOf = (id: string, key: string) => `${id}|${key}`

/** What is unsaved after changes were refused, or taken. */
export function after(before: Map<string, string>, changes: CellChange[], refused: boolean) {
  const names = changes.map((c) => nameOf(c.id, c.key))
  if (!refused && !names.some((name) => before.has(name))) return before
  const now = new Map(before)
  changes.forEach((c, n) => (refused ? now.set(names[n]!, c.value) : now.delete(names[n]!)))
  return now
}

export function useUnsaved(): Unsaved {
  const [cells, setCells] = useState<Map<string, string>>(new Map())
  return {
    of: (id, key) => cells.get(nameOf(id, key)),
    drop: (id, key) => setCells((before) => after(before, [{ id, key, value: '' }], false)),
    hand: (changes, up) => {
      const { refused } = useLine.getState()
      up(changes)
      void allSent().then(() => {
        const wasRefused = useLine.getState().refused > refused
        setCells((before) => after(before, changes, wasRefused))
      })
    },
  }
}
