/** What is being drawn, with undo and redo of its own: nothing of it is in the library before it is kept. */
import { useCallback, useState } from 'react'

interface Past<T> {
  before: T[]
  now: T
  after: T[]
}

const MOST = 200

export function useDrawing<T>(start: T) {
  const [past, setPast] = useState<Past<T>>({ before: [], now: start, after: [] })
  const put = useCallback(
    (next: T) => setPast((p) => ({ before: [...p.before.slice(-MOST), p.now], now: next, after: [] })),
    [],
  )
  const undo = useCallback(
    () =>
      setPast((p) =>
        p.before.length
          ? { before: p.before.slice(0, -1), now: p.before.at(-1)!, after: [p.now, ...p.after] }
          : p,
      ),
    [],
  )
  const redo = useCallback(
    () =>
      setPast((p) =>
        p.after.length ? { before: [...p.before, p.now], now: p.after[0]!, after: p.after.slice(1) } : p,
      ),
    [],
  )
  return { now: past.now, put, undo, redo, canUndo: past.before.length > 0, canRedo: past.after.length > 0 }
}
