/** What hangs at the pointer until it is put down: a copied piece or a stamp. */
import type { AnyEdit } from '../../../api/client'
import { held } from '../../../kit/held'
import { copied } from '../clipboard'
import { now, type Point, type ToolOf } from '../store'
import { atRest, defineTool, drop, hold, inHand, take } from './moments'

/** Take the copied piece at the pointer; a click or Enter puts it down. */
export function startPaste() {
  const { say, caret } = now()
  const piece = copied()
  if (piece) take({ name: 'paste', ...piece, end: caret })
  else say('Nothing was copied yet. Select something and press Ctrl+C.')
}

/** Take a stamp at the pointer; its questions are answered in the inspector. */
export function startStamp(id: string, rows: Record<string, string>[]) {
  take({ name: 'stamp', id, rows, dx: 0, dy: 0, end: now().caret })
}

/** Change what a stamp at the pointer is told, and show it so. */
export function tellStamp(part: Partial<ToolOf<'stamp'>>) {
  hold('stamp', part)
  now().ask(stamping())
}

function pasting(): AnyEdit {
  const { piece, cut, end } = inHand('paste')
  return { kind: 'paste-piece', sheet_id: now().sheetId, x: end[0], y: end[1], piece, keep_fixed: cut }
}

function stamping(): AnyEdit {
  const { id, rows, dx, dy, end } = inHand('stamp')
  const pitch = dx || dy ? { dx, dy } : {}
  return { kind: 'put-stamp', sheet_id: now().sheetId, stamp_id: id, x: end[0], y: end[1], rows, ...pitch }
}

/** What the stamp at the pointer would do, null when there is none. */
export const stampEdit = () => (held(now().tool, 'stamp') ? stamping() : null)

function put(name: 'paste' | 'stamp', edit: AnyEdit) {
  const mine = inHand(name)
  drop()
  void now()
    .send(edit)
    .then((answer) => {
      if (answer) now().select(answer.placed)
      // What was refused stays at the pointer, to be put down elsewhere.
      else if (atRest()) now().set({ tool: mine })
    })
}

function steer(name: 'paste' | 'stamp', to: Point, edit: () => AnyEdit) {
  const { end } = inHand(name)
  if (end[0] === to[0] && end[1] === to[1]) return
  hold(name, { end: to })
  now().set({ caret: to })
  now().ask(edit())
}

defineTool('paste', {
  enter: () => {
    now().set({ panel: '', selection: new Set(), subject: '' })
    now().ask(pasting())
    now().say('Click where its upper left corner goes, or press Enter at the caret.')
  },
  steer: (to) => steer('paste', to, pasting),
  click: () => put('paste', pasting()),
  finish: () => put('paste', pasting()),
})

defineTool('stamp', {
  enter: () => {
    now().set({ selection: new Set(), subject: '' })
    now().ask(stamping())
  },
  steer: (to) => steer('stamp', to, stamping),
  click: () => put('stamp', stamping()),
  finish: () => put('stamp', stamping()),
})
