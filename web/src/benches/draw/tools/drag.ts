/** What is selected follows the pointer; wires follow it. With Shift it may join what it comes to lie on. */
import type { AnyEdit } from '../../../api/client'
import { now } from '../store'
import { defineTool, hold, inHand, take } from './moments'

function edit(): AnyEdit | null {
  const { ids, dx, dy, join } = inHand('drag')
  return dx || dy ? { kind: 'move-selection', ids, dx, dy, allow_join: join } : null
}

defineTool('drag', {
  move: (at) => {
    const { from, dx, dy, join } = inHand('drag')
    const next = { dx: at.gx - from[0], dy: at.gy - from[1], join: at.event.shiftKey }
    if (next.dx === dx && next.dy === dy && next.join === join) return
    hold('drag', next)
    now().ask(edit())
  },
  release: () => {
    const moved = edit()
    // What was shown stays until the edit is answered.
    take({ name: 'idle' })
    if (moved) void now().send(moved)
    else now().ask(null)
  },
})
