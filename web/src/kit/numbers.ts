/** Numbers as people type them. */

/** A typed number, null when it is none. */
export function numberIn(typed: string): number | null {
  const value = Number(typed.trim().replace(',', '.'))
  return typed.trim() === '' || Number.isNaN(value) ? null : value
}
