/** No tool in hand: a click selects, a drag moves what is selected, one of its texts, or takes what it goes about. */
import type { At } from '../../../scene/Surface'
import { MOVABLE, withCompanions } from '../acts'
import { now, TEXT_NAMES, type Point, type TextName } from '../store'
import { cancel, defineTool, pointerDown, pointerMove, take } from './moments'

const FAR_ENOUGH_PX = 4

/** Where the pointer went down: screen pixels, sheet mm, grid point, and what was under it. */
interface Press {
  px: number
  py: number
  mm: Point
  id: string
  at: Point
  text: TextName | null
}

let pressed: Press | null = null

function idUnder(at: At): string {
  const element = at.target?.closest('[data-id]')
  const kind = element?.getAttribute('data-kind') ?? ''
  return element && MOVABLE.has(kind) ? element.getAttribute('data-id')! : ''
}

/** The role and symbol of a text under the pointer, when its symbol alone is selected: then the text is dragged. */
function textUnder(at: At, id: string): TextName | null {
  const s = now()
  const role = at.target?.getAttribute('data-role')
  const alone = s.selection.size === 1 && s.selection.has(id) && s.view.items[id]?.kind === 'symbol'
  return (alone && TEXT_NAMES.find((name) => name === role)) || null
}

/** Select a thing with all that moves together with it, or it alone. */
function choose(id: string, more: boolean, alone: boolean) {
  const { selection, set } = now()
  const ids = alone ? [id] : withCompanions([id])
  if (more) {
    const next = new Set(selection)
    for (const each of ids)
      if (selection.has(id)) next.delete(each)
      else next.add(each)
    set({ selection: next, subject: '' })
  } else if (alone || !selection.has(id)) set({ selection: new Set(ids), subject: '' })
}

function click(at: At) {
  const id = idUnder(at)
  pressed = { px: at.px, py: at.py, mm: [at.x, at.y], id, at: [at.gx, at.gy], text: textUnder(at, id) }
  if (id) choose(id, at.event.shiftKey || at.event.ctrlKey, at.event.altKey)
}

function move(at: At) {
  if (!pressed || Math.hypot(at.px - pressed.px, at.py - pressed.py) <= FAR_ENOUGH_PX) return
  const { text, id, mm, at: from } = pressed
  if (text) take({ name: 'text', id, role: text, from: mm, by: [0, 0] })
  else if (id) take({ name: 'drag', ids: [...now().selection], from, dx: 0, dy: 0, join: at.event.shiftKey })
  else take({ name: 'marquee', from: mm, to: mm })
  pointerMove(at)
}

function release(at: At) {
  const was = pressed
  pressed = null
  if (!was) return
  now().set({ caret: [at.gx, at.gy] })
  if (!was.id && !at.event.shiftKey) now().set({ selection: new Set(), subject: '' })
}

defineTool('idle', {
  click,
  move,
  release,
  escape: () => now().set({ selection: new Set(), subject: '' }),
  leave: () => {
    pressed = null
  },
})

/** What is typed at the caret is given up by a click elsewhere, which selects. */
export const clickAway = (at: At) => {
  cancel()
  pointerDown(at)
}
