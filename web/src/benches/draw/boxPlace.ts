/** Where a box at the caret stands: below it, or above where there is more room, and never over the edge. */
import type { Placed } from '../../scene/Surface'

const MARGIN = 8
/** A box lies over the paper and takes the pointer. */
export const IN_FRONT = { position: 'absolute', zIndex: 5, pointerEvents: 'auto' } as const

export function boxPlace(at: Placed, width: number, gap: number) {
  const left = Math.max(MARGIN, Math.min(at.left - 12, at.width - width - MARGIN))
  const below = at.height - at.top
  return below >= at.top
    ? { left, top: at.top + gap, maxHeight: Math.max(120, below - gap - MARGIN) }
    : { left, bottom: at.height - at.top + gap, maxHeight: Math.max(120, at.top - gap - MARGIN) }
}
