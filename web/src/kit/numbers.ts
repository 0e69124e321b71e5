/** Numbers as people type them. */

/** A typed number, null when it is none. */
export function numberIn(typed: string): number | null {
  if (!/^[+-]?(\d+[.,]?\d*|[.,]\d+)(e[+-]?\d+)?$/i.test(typed.trim())) return null
  const value = Number(typed.trim().replace(',', '.'))
  return Number.isFinite(value) ? value : null
}
