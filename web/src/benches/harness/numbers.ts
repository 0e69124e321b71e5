/** Typed places in space. */
import { numberIn } from '../../kit/numbers'

export { numberIn }

/** Numbers in a text, whatever stands between them, null when something is no number. */
export function numbersIn(typed: string): number[] | null {
  const words = typed.split(/[\s;|]+/).filter(Boolean)
  const values = words.map(numberIn)
  return values.every((v) => v !== null) ? (values as number[]) : null
}

/** Coordinates as people type them: three to a place, or two, and a bar between places. */
export const written = (values: readonly number[], each = 3) =>
  Array.from({ length: Math.ceil(values.length / each) }, (_, n) =>
    values.slice(each * n, each * n + each).join(' '),
  ).join(' | ')
