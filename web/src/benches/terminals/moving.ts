/** Places of a strip put elsewhere: shown at once, and as the server says as soon as it has answered. */
import { useMemo } from 'react'
import { create } from 'zustand'
import { useProject } from '../../project/store'
import type { Row, Strip } from './shapes'

/** An order shown ahead of the answer: of which strip, as the server sent it, and the keys of its places. */
const useAhead = create<{ from: Strip | null; order: string[] }>(() => ({ from: null, order: [] }))

/** The strip as the server sent it, of one that is shown in an order ahead. */
const sent = new WeakMap<Strip, Strip>()

/** A strip with its places in the order that was asked for last, while the answer is awaited. */
export function useMoved(strip: Strip | null): Strip | null {
  const { from, order } = useAhead()
  return useMemo(() => {
    if (!strip || strip !== from) return strip
    const rows = new Map(strip.rows.map((r) => [r.key, r]))
    const moved = { ...strip, rows: order.flatMap((key) => rows.get(key) ?? []) }
    sent.set(moved, strip)
    return moved
  }, [strip, from, order])
}

/** Put places at a position, counted without them, or on by so many places. */
export function movePlaces(strip: Strip, keys: string[], { to = 0, by = 0 }: { to?: number; by?: number }) {
  if (!keys.length) return
  // Blocks of several levels move as wholes; where there are some, the answer is awaited.
  if (strip.rows.every((r) => r.level === 1)) show(strip, keys, to, by)
  void useProject
    .getState()
    .send({ kind: 'move-strip-items', strip_id: strip.id, keys, to, by })
    .then((answer) => answer ?? useAhead.setState({ from: null, order: [] }))
}

function show(strip: Strip, keys: string[], to: number, by: number) {
  const lifted = (r: Row) => keys.includes(r.key)
  const left = strip.rows.filter((r) => !lifted(r))
  const first = strip.rows.findIndex(lifted)
  const at = by ? Math.max(0, first + by) : to
  const rows = [...left.slice(0, at), ...strip.rows.filter(lifted), ...left.slice(at)]
  useAhead.setState({ from: sent.get(strip) ?? strip, order: rows.map((r) => r.key) })
}
