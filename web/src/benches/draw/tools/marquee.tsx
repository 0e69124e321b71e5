/** A rectangle that selects: to the right what lies wholly inside, to the left what it touches. */
import type { Item } from '../../../scene/item'
import { COPPER } from '../../../theme/theme'
import { MOVABLE, withCompanions } from '../acts'
import { now } from '../store'
import { defineTool, hold, inHand, take } from './moments'

function corners() {
  const { from, to } = inHand('marquee')
  return {
    left: Math.min(from[0], to[0]),
    right: Math.max(from[0], to[0]),
    top: Math.min(from[1], to[1]),
    bottom: Math.max(from[1], to[1]),
  }
}

function taken(): (item: Item) => boolean {
  const { from, to } = inHand('marquee')
  const room = corners()
  const crossing = to[0] < from[0]
  return (item) => {
    const [left, top, right, bottom] = item.facts.body ?? item.box
    if (!crossing) return left >= room.left && right <= room.right && top >= room.top && bottom <= room.bottom
    const apart = right < room.left || left > room.right || bottom < room.top || top > room.bottom
    const about = left < room.left && right > room.right && top < room.top && bottom > room.bottom
    return !apart && !(item.kind === 'figure' && about)
  }
}

function Ghost() {
  const { left, right, top, bottom } = corners()
  return (
    <rect
      x={left}
      y={top}
      width={right - left}
      height={bottom - top}
      fill="rgba(180,98,45,0.08)"
      stroke={COPPER}
      strokeWidth={0.3}
    />
  )
}

defineTool('marquee', {
  move: (at) => hold('marquee', { to: [at.x, at.y] }),
  release: () => {
    const wanted = taken()
    const ids = Object.values(now().view.items)
      .filter((i) => MOVABLE.has(i.kind) && wanted(i))
      .map((i) => i.id)
    take({ name: 'idle' })
    now().set({ selection: new Set(withCompanions(ids)), subject: '' })
  },
  ghost: Ghost,
})
