/** What the server gives by section and id, of which it says only what changed. */

/** A section after a change: what is put into it, and without what is dropped; the same object where nothing is. */
export function section<T>(before?: Record<string, T>, put?: Record<string, T>, drop: string[] = []) {
  if (!put && !drop.length) return before
  const next = { ...before, ...put }
  for (const id of drop) delete next[id]
  return next
}
