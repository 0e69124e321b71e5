/** A planned terminal at the pointer: let go over the sheet, or clicked there, it is drawn. */
import { makeEdit, type AnyEdit } from '../../../api/client'
import { now, type Point } from '../store'
import { defineTool, drop, hold, inHand, take } from './moments'

/** Take a planned terminal; it is carried while the pointer is down, and else put down by a click. */
export function startPlanned(strip: string, unit: number, symbol: string) {
  take({ name: 'planned', strip, unit, symbol, carried: true, end: now().caret })
}

function edit(): AnyEdit {
  const { strip, unit, symbol, end } = inHand('planned')
  const place = { sheet_id: now().sheetId, x: end[0], y: end[1] }
  return makeEdit('place-symbol', { ...place, definition: symbol, device_id: strip, unit, poles: 1 })
}

function steer(to: Point) {
  const { end } = inHand('planned')
  if (end[0] === to[0] && end[1] === to[1]) return
  hold('planned', { end: to })
  now().set({ caret: to })
  now().ask(edit())
}

function put() {
  const wanted = edit()
  drop()
  void now()
    .send(wanted)
    .then((answer) => answer && now().select(answer.placed))
}

defineTool('planned', {
  enter: () => now().say('Let the terminal go over the sheet, on a wire or beside it.'),
  steer,
  click: put,
  finish: put,
  release: () => {
    if (inHand('planned').carried) put()
  },
})
