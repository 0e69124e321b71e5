/** Words too small to be read on the screen: a stroke stands for each, so that a large drawing stays quick. */
import { createContext } from 'react'
import type { Prim, PrimOf } from './item'

const LEAST_PX = 2
/** How wide a letter is about, in heights. */
const ADVANCE = 0.55

/** The smallest words that are painted as such, mm; smaller ones are strokes. */
export const SmallestWords = createContext(0)

/** The smallest words to paint at a scale, px to mm: in steps, so that a little zoom paints nothing anew. */
export const smallestAt = (scale: number) => LEAST_PX / 2 ** (Math.round(Math.log2(scale || 1) * 2) / 2)

const isSmall = (prim: Prim, smallest: number): prim is PrimOf<'text'> =>
  prim.kind === 'text' && prim.size < smallest && !prim.upward

/** Primitives with their small words taken out, and strokes for those as one path. */
export function strokesFor(prims: Prim[], smallest: number): { kept: Prim[]; strokes: string } {
  if (!prims.some((prim) => isSmall(prim, smallest))) return { kept: prims, strokes: '' }
  const kept: Prim[] = []
  let strokes = ''
  for (const prim of prims) {
    if (!isSmall(prim, smallest)) {
      kept.push(prim)
      continue
    }
    const width = prim.words.length * prim.size * ADVANCE
    const left =
      prim.anchor === 'middle' ? prim.x - width / 2 : prim.anchor === 'end' ? prim.x - width : prim.x
    strokes += `M${left.toFixed(1)} ${(prim.y - prim.size * 0.35).toFixed(1)}h${width.toFixed(1)}`
  }
  return { kept, strokes }
}
