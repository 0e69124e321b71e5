/** Typed places in space. */
import { numberIn } from '../../kit/numbers'

export { numberIn }

/** Numbers in a text, whatever stands between them, null when something is no number. */
export function numbersIn(typed: string): number[] | null {
  const words = typed.split(/[\s;|]+/).filter(Boolean)
  const values = words.map(numberIn)
  return values.every((v) => v !== null) ? (values as number[]) : null
}

/** Coordinates as people type them: three to a place, a bar between places. */
export const written = (values: readonly number[]) =>
  Array.from({ length: Math.ceil(values.length / 3) }, (_, n) =>
    values.slice(3 * n, 3 * n + 3).join(' '),
  ).join(' | ')
