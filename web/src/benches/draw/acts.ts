/** Acts on what is selected, each one edit. */
import { now } from './store'

/** What can be selected, moved and deleted. */
export const MOVABLE = new Set(['symbol', 'wire', 'continuation', 'note', 'figure', 'band'])

/** What is selected and still there. */
export function movables(): string[] {
  const { selection, view } = now()
  return [...selection].filter((id) => MOVABLE.has(view.items[id]?.kind ?? ''))
}

export function symbolsOf(ids: Iterable<string>): string[] {
  const { items } = now().view
  return [...ids].filter((id) => items[id]?.kind === 'symbol')
}

export function deleteSelected() {
  const ids = movables()
  if (ids.length) void now().send({ kind: 'delete-selection', ids })
}

/** What of a selection can be turned: symbols and notes. */
export function turnable(ids: Iterable<string>): string[] {
  const { items } = now().view
  return [...ids].filter((id) => ['symbol', 'note'].includes(items[id]?.kind ?? ''))
}

/** What can be in a layer and moves in groups; wires follow what they end at. */
export const IN_LAYERS = new Set(['symbol', 'continuation', 'note', 'figure', 'band'])

/** Ids with those of all that moves together with one of them. */
export function withCompanions(ids: Iterable<string>): string[] {
  const { items } = now().view
  const found = new Set(ids)
  const groups = new Set([...found].map((id) => items[id]?.facts.together).filter(Boolean))
  if (groups.size)
    for (const item of Object.values(items)) if (groups.has(item.facts.together)) found.add(item.id)
  return [...found]
}

export function groupSelected() {
  const ids = movables()
  if (ids.length > 1) void now().send({ kind: 'group-selection', ids })
}

export function ungroupSelected() {
  const ids = movables()
  if (ids.length) void now().send({ kind: 'ungroup-selection', ids })
}

export function turnSelected(how: 'turn' | 'flip') {
  const ids = how === 'turn' ? turnable(now().selection) : symbolsOf(now().selection)
  if (ids.length) void now().send({ kind: 'turn-selection', ids, how })
}

export function swapSelected() {
  const [id] = symbolsOf(now().selection)
  if (id) void now().send({ kind: 'swap-contact', symbol_id: id })
}

/** Repeat what is selected; the copies lie one pitch from each other. */
export function repeatSelected(count: number, dx: number, dy: number) {
  return now().send({ kind: 'repeat-selection', ids: movables(), count, dx, dy })
}

/** Lock what is selected; unlock it when all of it is locked. */
export function lockSelected() {
  const { selection, view, send } = now()
  const all = [...selection].filter((id) => view.items[id]?.facts.locked !== undefined)
  const locked = !all.every((id) => view.items[id]!.facts.locked)
  if (all.length) void send({ kind: 'set-lock', ids: all, locked })
}

/** The ladder line at the caret, 0 where there is none. */
function lineAtCaret(): number {
  const { view, caret } = now()
  const line = view.sheet.sheet?.lines.filter(([, , y, x]) => y <= caret[1] && x <= caret[0]).at(-1)
  return line?.[0] ?? 0
}

export function changeRungs(kind: 'insert-rung' | 'remove-rung') {
  const s = now()
  const line = lineAtCaret()
  if (line) void s.send({ kind, sheet_id: s.sheetId, line })
  else s.say('This sheet has no ladder lines.')
}
