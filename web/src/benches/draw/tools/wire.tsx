/** A wire, or a bus of several, by its corners; it ends where it meets something. */
import { makeEdit, type AnyEdit } from '../../../api/client'
import { remembered } from '../../../kit/remember'
import { GRID } from '../../../scene/Surface'
import { COPPER } from '../../../theme/theme'
import { now, type Point } from '../store'
import { cancel, defineTool, drop, hold, inHand, take } from './moments'

/** Arm the wire tool: the first click, or the caret at the first arrow key, is where the wire starts. */
export const startWire = () => take({ name: 'wire', bus: false, corners: [], end: now().caret })

/** Arm the bus tool: the same way as a wire's, for several conductors of the types in the bar. */
export const startBus = () => take({ name: 'wire', bus: true, corners: [], end: now().caret })

/** The corners of a wire from its last corner to a point: the longer leg first. */
function legs(from: Point, to: Point): Point[] {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]]
  if (!dx || !dy) return [to]
  return Math.abs(dx) >= Math.abs(dy) ? [[to[0], from[1]], to] : [[from[0], to[1]], to]
}

function edit(): AnyEdit | null {
  const { sheetId, wireType, busTypes, busSpacing } = now()
  const { bus, corners, end } = inHand('wire')
  const points = [...corners, ...legs(corners.at(-1)!, end)]
  if (points.every(([x, y]) => x === points[0]![0] && y === points[0]![1])) return null
  return bus
    ? makeEdit('draw-bus', {
        sheet_id: sheetId,
        points,
        wire_type_ids: busTypes,
        spacing: busSpacing || null,
      })
    : { kind: 'draw-wire', sheet_id: sheetId, points, wire_type_id: wireType }
}

/** Whether something a wire may end on lies at a grid point. */
function endsOnSomething(gx: number, gy: number): boolean {
  return Object.values(now().view.items).some(({ facts }) => {
    if (facts.pins?.some(([x, y]) => x === gx && y === gy)) return true
    if (!facts.ends) return false
    const [[x1, y1], [x2, y2]] = facts.ends
    return gx >= x1 && gx <= x2 && gy >= y1 && gy <= y2
  })
}

function enter() {
  const { set, say, projectId, usualBus, wireType } = now()
  set({ preview: null })
  if (!inHand('wire').bus) return
  set({
    busTypes: remembered(`bus-${projectId}`, usualBus.length ? usualBus : [wireType, wireType, wireType]),
  })
  say('Click where the bus begins and its corners; Enter ends it. On another bus it ties by type.')
}

function steer(to: Point) {
  const { end, corners } = inHand('wire')
  if (end[0] === to[0] && end[1] === to[1]) return
  hold('wire', { end: to })
  now().set({ caret: to })
  if (corners.length) now().ask(edit())
}

/** Put a corner, or end the wire where it meets something or `finish` is asked for. */
function putCorner(finish: boolean) {
  const { corners, end } = inHand('wire')
  if (!corners.length) return hold('wire', { corners: [end] })
  const wire = edit()
  if (wire && (finish || endsOnSomething(end[0], end[1]))) {
    drop()
    void now()
      .send(wire)
      .then((answer) => answer && now().set({ subject: answer.placed[0] ?? '' }))
  } else if (wire) hold('wire', { corners: [...corners, ...legs(corners.at(-1)!, end)] })
  else if (finish) cancel()
}

function Ghost() {
  const { corners, end } = inHand('wire')
  if (!corners.length) return null
  const points = [...corners, ...legs(corners.at(-1)!, end)].map(([x, y]) => `${x * GRID},${y * GRID}`)
  return (
    <polyline
      points={points.join(' ')}
      fill="none"
      stroke={COPPER}
      strokeWidth={0.5}
      strokeDasharray="1.6 1.2"
    />
  )
}

defineTool('wire', {
  enter,
  begin: (from) => {
    if (!inHand('wire').corners.length) hold('wire', { corners: [from], end: from })
  },
  steer,
  click: () => putCorner(false),
  finish: () => putCorner(true),
  begun: () => inHand('wire').corners.length > 0,
  ghost: Ghost,
})
