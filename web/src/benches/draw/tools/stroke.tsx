/** A stroke with two ends: a row of terminals, a cable band, marks at wire ends, a boundary, a line, an arrow, a dimension, a picture, a table. */
import { asGiven, makeEdit, type AnyEdit } from '../../../api/client'
import { GRID } from '../../../scene/Surface'
import { COPPER } from '../../../theme/theme'
import { NEW_STRIP, now, type Line, type Point, type Stroke } from '../store'
import { defineTool, drop, hold, inHand, take } from './moments'

interface Ends {
  sheet_id: string
  x1: number
  y1: number
  x2: number
  y2: number
}

/** One kind of stroke: the hint, whether it may run at a slant and spans a rectangle, and the edit it makes. */
interface StrokeKind {
  hint: string
  free?: boolean
  area?: boolean
  edit: (ends: Ends) => AnyEdit
}

const figure = (what: 'boundary' | Line | 'picture' | 'table', ends: Ends) =>
  makeEdit('draw-figure', {
    ...ends,
    figure: what,
    text: what === 'table' ? 'sheet-parts' : '',
    location_id: '',
    picture_id: what === 'picture' ? now().pictureId : '',
  })

const STROKES: Record<Stroke, StrokeKind> = {
  terminals: {
    hint: 'Click both ends of the row, across the wires.',
    edit: (ends) => {
      const { strokeTarget: target, strokeUnits, terminalKind } = now()
      const fresh = target === NEW_STRIP
      const device_id = fresh ? '' : target
      return makeEdit('place-terminals', {
        ...ends,
        device_id,
        new_strip: fresh,
        definition: asGiven(terminalKind),
        units: strokeUnits,
      })
    },
  },
  band: {
    hint: 'Click both ends of the band, across the wires.',
    edit: (ends) => {
      // A chosen band is extended; otherwise what was picked in the bar counts.
      const { selection, view, strokeTarget } = now()
      const chosen = [...selection].map((id) => view.items[id]).find((i) => i?.kind === 'band')
      return { kind: 'draw-band', ...ends, device_id: chosen?.facts.device ?? strokeTarget, part_id: '' }
    },
  },
  marks: {
    hint: 'Type the names above, then click both ends of a stroke over the ends of the wires.',
    edit: (ends) => {
      const names = now()
        .markNames.split(',')
        .map((n) => n.trim())
        .filter(Boolean)
      return { kind: 'place-continuations', ...ends, names: names.length ? names : ['?'] }
    },
  },
  boundary: {
    hint: 'Click two corners of the boundary.',
    free: true,
    area: true,
    edit: (ends) => figure('boundary', ends),
  },
  line: { hint: 'Click both ends of the line.', free: true, edit: (ends) => figure('line', ends) },
  arrow: {
    hint: 'Click where the arrow begins, then what it points at.',
    free: true,
    edit: (ends) => figure('arrow', ends),
  },
  dimension: {
    hint: 'Click both ends of the dimension; what it says is typed in the inspector.',
    free: true,
    edit: (ends) => figure('dimension', ends),
  },
  picture: {
    hint: 'Choose the picture above, then click two corners.',
    free: true,
    area: true,
    edit: (ends) => figure('picture', ends),
  },
  table: {
    hint: 'Click two corners of the table; what it shows is chosen in the inspector.',
    free: true,
    area: true,
    edit: (ends) => figure('table', ends),
  },
}

export const startStroke = (what: Stroke) => take({ name: 'stroke', what, start: null, end: now().caret })

/** A row of terminals that are planned, in the order of the wires the stroke crosses. */
export function startPlannedRow(strip: string, units: number[]) {
  startStroke('terminals')
  now().set({ strokeTarget: strip, strokeUnits: units })
  now().say('Draw the stroke across the wires, in the order of the terminals.')
}

/** The end of a stroke: level or upright, whichever is nearer. */
function squared(from: Point, to: Point): Point {
  return Math.abs(to[0] - from[0]) >= Math.abs(to[1] - from[1]) ? [to[0], from[1]] : [from[0], to[1]]
}

function edit(): AnyEdit | null {
  const { what, start, end } = inHand('stroke')
  if (!start || (start[0] === end[0] && start[1] === end[1])) return null
  return STROKES[what].edit({ sheet_id: now().sheetId, x1: start[0], y1: start[1], x2: end[0], y2: end[1] })
}

function steer(to: Point) {
  const { what, start, end } = inHand('stroke')
  const next = start && !STROKES[what].free ? squared(start, to) : to
  if (next[0] === end[0] && next[1] === end[1]) return
  hold('stroke', { end: next })
  now().set({ caret: next })
  if (start) now().ask(edit())
}

function put() {
  const { start, end } = inHand('stroke')
  if (!start) return hold('stroke', { start: end })
  const stroke = edit()
  if (!stroke) return
  drop()
  void now()
    .send(stroke)
    .then((answer) => {
      if (!answer) return
      if (stroke.kind === 'draw-band' || stroke.kind === 'draw-figure') now().select(answer.placed)
      else now().set({ subject: answer.placed[0] ?? '' })
    })
}

function Ghost() {
  const { what, start, end } = inHand('stroke')
  if (!start) return null
  const [x1, y1, x2, y2] = [start[0] * GRID, start[1] * GRID, end[0] * GRID, end[1] * GRID]
  if (!STROKES[what].area) return <line x1={x1} y1={y1} x2={x2} y2={y2} stroke={COPPER} strokeWidth={0.7} />
  return (
    <rect
      x={Math.min(x1, x2)}
      y={Math.min(y1, y2)}
      width={Math.abs(x2 - x1)}
      height={Math.abs(y2 - y1)}
      fill="none"
      stroke={COPPER}
      strokeWidth={0.4}
      strokeDasharray="1.6 1.2"
    />
  )
}

defineTool('stroke', {
  enter: () => {
    now().set({ preview: null, strokeTarget: '', strokeUnits: [] })
    now().say(STROKES[inHand('stroke').what].hint)
  },
  steer,
  click: put,
  finish: put,
  ghost: Ghost,
})
