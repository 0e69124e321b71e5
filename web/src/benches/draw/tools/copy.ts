/** A copy of what is selected, put down elsewhere on the sheet. */
import type { AnyEdit } from '../../../api/client'
import { now } from '../store'
import { defineTool, drop, inHand, take } from './moments'

export function startCopy() {
  const { selection, caret } = now()
  if (selection.size) take({ name: 'copy', ids: [...selection], from: caret })
}

function edit(): AnyEdit | null {
  const { ids, from } = inHand('copy')
  const { caret } = now()
  const [dx, dy] = [caret[0] - from[0], caret[1] - from[1]]
  return dx || dy ? { kind: 'duplicate-selection', ids, dx, dy } : null
}

function put() {
  const copy = edit()
  if (!copy) return
  drop()
  void now()
    .send(copy)
    .then((answer) => answer && now().select(answer.placed))
}

defineTool('copy', {
  enter: () => now().say('Click where the copy goes, or move the caret and press Enter.', 'info'),
  steer: (to) => {
    const { caret, set, ask } = now()
    if (caret[0] === to[0] && caret[1] === to[1]) return
    set({ caret: to })
    ask(edit())
  },
  click: put,
  finish: put,
})
