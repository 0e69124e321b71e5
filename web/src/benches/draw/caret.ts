/** The caret: where something is put by keys, and where an armed tool goes with the arrows. */
import { GRID } from '../../scene/Surface'
import { now, type Point } from './store'
import { moments } from './tools/moments'

/** Move the caret; with `far`, to the next thing in that direction. */
export function moveCaret(dx: number, dy: number, far: boolean) {
  const s = now()
  const facts = s.view.sheet.sheet
  if (!facts) return
  const next: Point = far ? nextStop(s.caret, dx, dy) : [s.caret[0] + dx, s.caret[1] + dy]
  const caret: Point = [
    Math.min(Math.max(1, next[0]), Math.floor(facts.width / GRID) - 1),
    Math.min(Math.max(1, next[1]), Math.floor(facts.height / GRID) - 1),
  ]
  const { begin, steer } = moments()
  if (!steer) return s.set({ caret })
  begin?.(s.caret)
  steer(caret)
}

function nextStop(from: Point, dx: number, dy: number): Point {
  const s = now()
  const stops: Point[] = []
  for (const item of Object.values(s.view.items)) {
    stops.push(...(item.facts.pins ?? []), ...(item.facts.ends ?? []))
  }
  for (const [, y] of s.view.sheet.sheet?.lines ?? []) stops.push([from[0], y])
  const ahead = stops.filter(([x, y]) =>
    dx ? y === from[1] && (x - from[0]) * dx > 0 : Math.abs(x - from[0]) <= 1 && (y - from[1]) * dy > 0,
  )
  const distance = ([x, y]: Point) => Math.abs(x - from[0]) + Math.abs(y - from[1])
  ahead.sort((a, b) => distance(a) - distance(b))
  const found = ahead[0]
  if (!found) return [from[0] + dx * 10, from[1] + dy * 9]
  return dx ? [found[0], from[1]] : [from[0], found[1]]
}
