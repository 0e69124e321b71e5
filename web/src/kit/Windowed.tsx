/** A long list of which only the part in view is painted; the height of every entry is known beforehand. */
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import { useHeight } from './useHeight'

interface Props<T> {
  items: T[]
  heightOf: (item: T) => number
  children: (item: T) => ReactNode
  /** What the list is and is called, for those who hear it. */
  role?: string
  name?: string
  /** An entry that is brought into view, by its place in the list; -1 for none. */
  shown?: number
  padding?: number
}

/** Entries painted beyond what is in view, px. */
const BEYOND_PX = 300

export function Windowed<T>({ items, heightOf, children, role, name, shown = -1, padding = 0 }: Props<T>) {
  const frame = useRef<HTMLDivElement>(null)
  const [top, setTop] = useState(0)
  const tall = useHeight(frame, 800)
  const ends = useMemo(() => {
    let sum = 0
    return items.map((item) => (sum += heightOf(item)))
  }, [items, heightOf])
  useEffect(() => {
    const element = frame.current
    if (!element || shown < 0) return
    const [from, to] = [ends[shown - 1] ?? 0, ends[shown] ?? 0]
    if (from < element.scrollTop || to > element.scrollTop + element.clientHeight) element.scrollTop = from
  }, [shown, ends])
  const first = ends.findIndex((end) => end > top - BEYOND_PX)
  const past = ends.findIndex((end) => end > top + tall + BEYOND_PX)
  const [a, b] = [Math.max(0, first), past < 0 ? items.length : past + 1]
  return (
    <div
      ref={frame}
      role={role}
      aria-label={name}
      onScroll={(e) => setTop(e.currentTarget.scrollTop)}
      style={{ overflow: 'auto', flex: 1, minHeight: 0, padding }}
    >
      <div style={{ height: ends[a - 1] ?? 0 }} />
      {items.slice(a, b).map(children)}
      <div style={{ height: (ends.at(-1) ?? 0) - (ends[b - 1] ?? 0) }} />
    </div>
  )
}
