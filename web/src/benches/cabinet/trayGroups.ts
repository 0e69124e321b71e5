/** The tray in groups: by what devices belong to, the sheet they are drawn on, or their class. */
import type { Waiting } from './shapes'

export const BY = ['circuit', 'function', 'sheet', 'class'] as const
export type By = (typeof BY)[number]

export interface Group {
  name: string
  waiting: Waiting[]
}

/** What a device stands under; devices of one circuit are those drawn one after the other for one function. */
function groupOf(w: Waiting, by: By): string {
  if (by === 'class') return w.kind || 'no class'
  if (by === 'sheet') return w.sheet ? `Sheet ${w.sheet}` : 'not drawn yet'
  return w.function || 'no function'
}

const fits = (w: Waiting, words: string[]) => {
  const all = `${w.tag} ${w.text} ${w.kind} ${w.part?.number ?? ''} ${w.function}`.toLowerCase()
  return words.every((word) => all.includes(word))
}

export function grouped(waiting: Waiting[], by: By, search: string): Group[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean)
  const found = new Map<string, Waiting[]>()
  const drawn = (a: Waiting, b: Waiting) => a.order - b.order
  const ordered = by === 'class' || by === 'function' ? waiting : [...waiting].sort(drawn)
  for (const w of ordered.filter((one) => fits(one, words))) {
    const name = groupOf(w, by)
    found.set(name, [...(found.get(name) ?? []), w])
  }
  return [...found].map(([name, list]) => ({ name, waiting: list }))
}
