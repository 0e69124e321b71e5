/** A text of a symbol follows the pointer, from where it stood. */
import type { AnyEdit } from '../../../api/client'
import { now } from '../store'
import { defineTool, hold, inHand, take } from './moments'

/** Quarters of a millimetre. */
const fine = (v: number) => Math.round(v * 4) / 4

function edit(): AnyEdit {
  const { id, role, by } = inHand('text')
  const facts = now().view.items[id]?.facts
  const [ox, oy] = (facts?.texts?.[role] || facts?.settled?.[role] || '0,0').split(',').map(Number)
  return {
    kind: 'move-text',
    ids: [id],
    text: role,
    dx_mm: fine((ox ?? 0) + by[0]),
    dy_mm: fine((oy ?? 0) + by[1]),
  }
}

defineTool('text', {
  move: (at) => {
    const { from } = inHand('text')
    hold('text', { by: [at.x - from[0], at.y - from[1]] })
    now().ask(edit())
  },
  release: () => {
    const moved = edit()
    take({ name: 'idle' })
    void now().send(moved)
  },
})
