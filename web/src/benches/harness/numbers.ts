/** Typed places in space. */
import { lengthIn, lengthOf, type Unit } from '../../kit/lengths'
import { numberIn } from '../../kit/numbers'

export { numberIn }

/** Lengths in a text in mm, whatever stands between them, null when something is none. */
export function lengthsIn(typed: string, unit: Unit): number[] | null {
  const words = typed.split(/[\s;|]+/).filter(Boolean)
  const values = words.map((word) => lengthIn(word, unit))
  return values.every((v) => v !== null) ? (values as number[]) : null
}

/** Coordinates as people type them: three to a place, or two, and a bar between places. */
export const written = (values: readonly number[], unit: Unit, each = 3) =>
  Array.from({ length: Math.ceil(values.length / each) }, (_, n) =>
    values
      .slice(each * n, each * n + each)
      .map((mm) => lengthOf(mm, unit))
      .join(' '),
  ).join(' | ')
