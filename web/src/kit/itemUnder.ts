/** What the pointer is on. */
import type { At } from '../scene/Surface'

/** The id of the item under the pointer, "" when it is none that can be chosen. */
export function itemUnder(at: At, kinds: Set<string>): string {
  const element = at.target?.closest('[data-id]')
  return element && kinds.has(element.getAttribute('data-kind') ?? '') ? element.getAttribute('data-id')! : ''
}
