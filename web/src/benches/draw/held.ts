/** What hangs at the pointer until it is put down: a copied piece or a stamp; and acts on the whole selection. */
import { client, got, wordsOf, type AnyEdit } from '../../api/client'
import { now, type Piece } from './store'

const get = () => now()
export const MOVABLE = new Set(['symbol', 'wire', 'continuation', 'note', 'figure', 'band'])

/** What is selected goes to the clipboard of this browser, for this project or another. */
const CLIPBOARD = 'spool-piece'

export async function copySelected(cut: boolean) {
  const s = get()
  const ids = [...s.selection].filter((id) => MOVABLE.has(s.view.items[id]?.kind ?? ''))
  if (!ids.length) return
  try {
    const piece = await got(
      client.POST('/api/projects/{project_id}/piece', {
        params: { path: { project_id: s.projectId } },
        body: { ids },
      }),
    )
    localStorage.setItem(CLIPBOARD, JSON.stringify({ piece, cut }))
    if (cut) await get().send({ kind: 'delete-selection', ids })
    get().say(`${ids.length} things ${cut ? 'cut' : 'copied'}. Ctrl+V puts them down, in any project.`)
  } catch (error) {
    s.say(wordsOf(error), 'error')
  }
}

/** Take the copied piece at the pointer; a click or Enter puts it down. */
export function startPaste() {
  const s = get()
  const kept = localStorage.getItem(CLIPBOARD)
  if (!kept) return s.say('Nothing was copied yet. Select something and press Ctrl+C.')
  const { piece, cut } = JSON.parse(kept) as { piece: Piece; cut: boolean }
  s.set({ tool: { name: 'paste', piece, cut, end: s.caret }, panel: '', selection: new Set(), subject: '' })
  s.ask(pasteEdit())
  s.say('Click where its upper left corner goes, or press Enter at the caret.')
}

function pasteEdit(): AnyEdit | null {
  const s = get()
  if (s.tool.name !== 'paste') return null
  const [x, y] = s.tool.end
  return { kind: 'paste-piece', sheet_id: s.sheetId, x, y, piece: s.tool.piece, keep_fixed: s.tool.cut }
}

/** Take a stamp at the pointer; its questions are answered in the inspector. */
export function startStamp(id: string, rows: Record<string, string>[]) {
  const s = get()
  s.set({ tool: { name: 'stamp', id, rows, dx: 0, dy: 0, end: s.caret }, selection: new Set(), subject: '' })
  s.ask(stampEdit())
}

export function stampEdit(): AnyEdit | null {
  const s = get()
  if (s.tool.name !== 'stamp') return null
  const { id, rows, dx, dy, end } = s.tool
  const pitch = dx || dy ? { dx, dy } : {}
  return { kind: 'put-stamp', sheet_id: s.sheetId, stamp_id: id, x: end[0], y: end[1], rows, ...pitch }
}

/** Move what hangs at the pointer: a copied piece or a stamp. */
export function steerHeld(to: [number, number]) {
  const s = get()
  if (s.tool.name !== 'paste' && s.tool.name !== 'stamp') return
  if (s.tool.end[0] === to[0] && s.tool.end[1] === to[1]) return
  s.set({ tool: { ...s.tool, end: to }, caret: to })
  s.ask(s.tool.name === 'paste' ? pasteEdit() : stampEdit())
}

export function putHeld() {
  const s = get()
  const held = s.tool
  const edit = held.name === 'paste' ? pasteEdit() : stampEdit()
  if (!edit) return
  s.set({ tool: { name: 'idle' }, preview: null })
  void s.send(edit).then((answer) => {
    if (answer) get().select(answer.placed)
    // What was refused stays at the pointer, to be put down elsewhere.
    else if (get().tool.name === 'idle') get().set({ tool: held })
  })
}

/** Repeat what is selected; the copies lie one pitch from each other. */
export function repeatSelected(count: number, dx: number, dy: number) {
  const s = get()
  const ids = [...s.selection].filter((id) => MOVABLE.has(s.view.items[id]?.kind ?? ''))
  return s.send({ kind: 'repeat-selection', ids, count, dx, dy })
}

export function lockSelected() {
  const s = get()
  const ids = [...s.selection].filter((id) => s.view.items[id])
  const all = ids.filter((id) => s.view.items[id]!.facts.locked !== undefined)
  const locked = !all.every((id) => s.view.items[id]!.facts.locked)
  if (all.length) void s.send({ kind: 'set-lock', ids: all, locked })
}
