/** Where one is in a table: the cell, the block from it to another, and what is typed; moving brings it into view. */
import { useRef, useState } from 'react'
import { useHeight } from './useHeight'
import { HEAD_PX } from './GridHead'
import { rangeOf, type At, type Range } from './gridData'

export const ROW_PX = 28
const OVER = 8

export interface Cursor {
  box: React.RefObject<HTMLDivElement | null>
  at: At | null
  until: At | null
  range: Range | null
  typing: string | null
  setAt: React.Dispatch<React.SetStateAction<At | null>>
  type: (words: string | null) => void
  /** Go to a cell; with `extend`, the block reaches to it. */
  go: (to: At, extend?: boolean) => void
  /** Stand in a row and bring it into view, without taking the keyboard. */
  show: (row: number) => void
  /** The rows in view, with some more above and below. */
  first: number
  last: number
  /** How many rows a page has. */
  page: number
  scrolled: (top: number) => void
}

export function useCursor(rows: number, columns: number): Cursor {
  const box = useRef<HTMLDivElement>(null)
  const [top, setTop] = useState(0)
  const height = useHeight(box, 400)
  const [at, setAt] = useState<At | null>(null)
  const [until, setUntil] = useState<At | null>(null)
  const [typing, type] = useState<string | null>(null)

  const go = (to: At, extend = false) => {
    const row = Math.max(0, Math.min(rows - 1, to.row))
    const column = Math.max(0, Math.min(columns - 1, to.column))
    if (!extend) setAt({ row, column })
    setUntil(extend ? { row, column } : null)
    if (box.current) bringIntoView(box.current, row * ROW_PX)
  }
  const show = (row: number) => {
    setAt((now) => ({ row, column: now?.column ?? 0 }))
    setUntil(null)
    if (box.current) scrollTo(box.current, row * ROW_PX)
  }
  return {
    box,
    show,
    at,
    until,
    range: at && rangeOf(at, until),
    typing,
    setAt,
    type,
    go,
    first: Math.max(0, Math.floor(top / ROW_PX) - OVER),
    last: Math.min(rows, Math.ceil((top + height) / ROW_PX) + OVER),
    page: Math.floor(height / ROW_PX) - 2,
    scrolled: setTop,
  }
}

function scrollTo(element: HTMLElement, y: number) {
  const beyond = y + ROW_PX + HEAD_PX - element.clientHeight
  if (y < element.scrollTop) element.scrollTop = y
  if (beyond > element.scrollTop) element.scrollTop = beyond
}

function bringIntoView(element: HTMLElement, y: number) {
  scrollTo(element, y)
  element.focus({ preventScroll: true })
}
