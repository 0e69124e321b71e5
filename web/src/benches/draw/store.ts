/**
 * The open sheet as the browser holds it.
 *
 * Kept here: the server's view at a revision, what a preview would change, caret, selection, tool. Every edit goes
 * through `send`, one after another; nothing in the view is ever changed but by what the server answered.
 */
import { create } from 'zustand'
import { useShallow } from 'zustand/react/shallow'
import {
  client,
  got,
  Refusal,
  type AnyEdit,
  type EditOut,
  type News,
  type ViewChange,
} from '../../api/client'
import { emptyView, type View } from '../../api/shapes'

export type Stroke = 'terminals' | 'band' | 'marks' | 'boundary' | 'line' | 'picture'
export type TextName = 'tag' | 'text' | 'reference' | 'pin'
/** A copied piece of circuit, as the server gives and takes it. */
export type Piece = Record<string, unknown>
/** What the inspector shows instead of the selection. */
export type Panel = '' | 'stamps' | 'keep' | 'replace'

export type Tool =
  | { name: 'idle' }
  | { name: 'place'; text: string }
  | { name: 'quick' }
  | { name: 'wire'; bus: boolean; corners: [number, number][]; end: [number, number] }
  | { name: 'copy'; ids: string[]; from: [number, number] }
  | { name: 'drag'; ids: string[]; from: [number, number]; dx: number; dy: number; join: boolean }
  | { name: 'stroke'; what: Stroke; start: [number, number] | null; end: [number, number] }
  | { name: 'paste'; piece: Piece; cut: boolean; end: [number, number] }
  | {
      name: 'stamp'
      id: string
      rows: Record<string, string>[]
      dx: number
      dy: number
      end: [number, number]
    }
  | { name: 'text'; id: string; role: TextName; from: [number, number]; by: [number, number] }
  | { name: 'marquee'; from: [number, number]; to: [number, number] }

export interface Preview {
  view: View
  changed: Set<string>
  label: string
  problem: string
  remarks: string[]
}

/** What a row of terminals is told to go to when it shall make a strip of its own. */
export const NEW_STRIP = 'new'

export interface SheetState {
  projectId: string
  sheetId: string
  revision: number
  view: View
  loaded: boolean
  gone: boolean
  undo: string
  redo: string
  people: { name: string; sheet_id: string }[]
  /** What the server calls these people, so that it tells of them only when they are others. */
  peopleKey: string
  preview: Preview | null
  caret: [number, number]
  selection: Set<string>
  /** What the inspector shows when nothing is selected: the thing placed last. */
  subject: string
  tool: Tool
  wireType: string
  /** Wire types of the conductors of the next bus, in order. */
  busTypes: string[]
  /** How far apart they lie, grid steps; 0 as far as poles. */
  busSpacing: number
  /** Wire types of the bus the project usually has, [] when its types make none. */
  usualBus: string[]
  /** Names of the continuations of the next stroke, parted by commas. */
  markNames: string
  /** Kind of the terminals of the next row, "" for the usual one of each wire. */
  terminalKind: string
  /** Picture of the project that is put on the sheet next. */
  pictureId: string
  panel: Panel
  /** Id of the strip or cable that the next stroke goes to, NEW_STRIP, or "" for the usual one. */
  strokeTarget: string
  message: { text: string; kind: 'error' | 'info'; count: number } | null

  /** Come into a project on a bench that shows no sheet. */
  enter: (projectId: string, revision: number, undo: string, redo: string) => void
  open: (projectId: string, sheetId: string) => Promise<void>
  send: (edit: AnyEdit) => Promise<EditOut | null>
  step: (act: 'undo' | 'redo') => Promise<void>
  ask: (edit: AnyEdit | null) => void
  poll: () => Promise<void>
  set: (part: Partial<SheetState>) => void
  select: (ids: Iterable<string>) => void
  say: (text: string, kind?: 'error' | 'info') => void
}

/** The view after a change; untouched entries stay the same objects, so that they are not painted again. */
export function changed(view: View, change: ViewChange | null | undefined): View {
  if (!change) return view
  if (change.whole) return { ...emptyView, ...(change.put as unknown as View) }
  const next = { ...view } as unknown as Record<string, Record<string, unknown>>
  for (const [section, values] of Object.entries(change.put)) next[section] = { ...next[section], ...values }
  for (const [section, ids] of Object.entries(change.drop)) {
    const kept = { ...next[section] }
    for (const id of ids) delete kept[id]
    next[section] = kept
  }
  return next as unknown as View
}

/** Where the caret stands on a sheet that is opened: on its first ladder line, else near the corner. */
function firstCaret(view: View): [number, number] {
  const facts = view.sheet.sheet
  return [facts?.lines.length ? facts.rails[0] + 6 : 20, facts?.lines[0]?.[1] ?? 16]
}

let queue: Promise<unknown> = Promise.resolve()
/** Run acts one after another; a failed one does not stop the next. */
function inTurn<T>(act: () => Promise<T>): Promise<T> {
  const next = queue.then(act, act)
  queue = next.catch(() => undefined)
  return next
}

let wanted: AnyEdit | null = null
let asking = false
/** The sheet that is being fetched: a click asks for it before the page has followed. */
let opening = ''

export const useSheet = create<SheetState>((set, get) => {
  const accept = (answer: EditOut | News) => {
    const s = get()
    if (answer.revision < s.revision) return
    set({
      revision: answer.revision,
      view: changed(s.view, answer.view),
      preview: null,
      undo: answer.undo,
      redo: answer.redo,
    })
    const { view, selection } = get()
    const there = [...selection].filter((id) => id in view.items)
    if (there.length !== selection.size) set({ selection: new Set(there) })
  }
  const refuse = (error: unknown) => {
    const text = error instanceof Error ? error.message : String(error)
    get().say(text, 'error')
    if (error instanceof Refusal && [404, 409].includes(error.status)) void get().poll()
  }
  // While a sheet is being opened, what is shown is another one: the answer is to give all of it.
  const shown = () => ({ sheet_id: get().sheetId, since: get().loaded ? get().revision : -1 })
  // Each request has a name, so that one the network sends twice is done once.
  const named = () => ({
    ...shown(),
    key: `${Date.now().toString(36)}-${Math.random().toString(36).slice(2)}`,
  })

  const askNow = async () => {
    if (asking) return
    asking = true
    while (wanted) {
      const edit = wanted
      wanted = null
      const { projectId, revision, view } = get()
      try {
        const answer = await got(
          client.POST('/api/projects/{project_id}/preview', {
            params: { path: { project_id: projectId } },
            body: { edit, ...shown(), key: '' },
          }),
        )
        if (wanted === null && get().tool.name !== 'idle' && get().revision === revision) {
          const put = Object.keys(answer.view?.put['items'] ?? {})
          set({
            preview: {
              view: changed(view, answer.view),
              changed: new Set(put),
              label: answer.label,
              problem: '',
              remarks: answer.remarks,
            },
          })
        }
      } catch (error) {
        if (wanted === null && get().tool.name !== 'idle') {
          const problem = error instanceof Error ? error.message : String(error)
          const quiet = problem === 'Nothing would change.'
          set({
            preview: { view, changed: new Set(), label: '', problem: quiet ? '' : problem, remarks: [] },
          })
        }
      }
    }
    asking = false
  }

  return {
    projectId: '',
    sheetId: '',
    revision: -1,
    view: emptyView,
    loaded: false,
    gone: false,
    undo: '',
    redo: '',
    people: [],
    peopleKey: '',
    preview: null,
    caret: [20, 16],
    selection: new Set(),
    subject: '',
    tool: { name: 'idle' },
    wireType: '',
    busTypes: [],
    busSpacing: 0,
    usualBus: [],
    strokeTarget: '',
    markNames: '',
    terminalKind: '',
    pictureId: '',
    panel: '',
    message: null,

    enter: (projectId, revision, undo, redo) => {
      const s = get()
      if (s.projectId === projectId && s.revision >= 0) return
      set({ projectId, sheetId: '', view: emptyView, selection: new Set(), subject: '', preview: null })
      set({ revision, undo, redo, loaded: true, gone: false, tool: { name: 'idle' } })
    },

    open: async (projectId, sheetId) => {
      const name = `${projectId}/${sheetId}`
      if (opening === name) return
      opening = name
      const elsewhere = get().projectId !== projectId
      const other = elsewhere || get().sheetId !== sheetId
      set({ projectId, sheetId, loaded: false, gone: false, preview: null, tool: { name: 'idle' } })
      // Within a project the old drawing stays until the new one is there, so that it is painted once and not twice.
      if (other) set({ selection: new Set(), subject: '', panel: '' })
      if (elsewhere) set({ view: emptyView, revision: -1 })
      try {
        const news = await got(
          client.GET('/api/projects/{project_id}/sheets/{sheet_id}/view', {
            params: { path: { project_id: projectId, sheet_id: sheetId } },
          }),
        )
        if (get().sheetId !== sheetId) return
        const view = changed(emptyView, news.view)
        set({
          view,
          revision: news.revision,
          undo: news.undo,
          redo: news.redo,
          people: (news.people ?? []) as SheetState['people'],
          peopleKey: news.people_key,
          loaded: true,
          gone: news.sheet_gone,
          ...(other ? { caret: firstCaret(view) } : {}),
        })
      } catch (error) {
        if (get().sheetId === sheetId) set({ view: emptyView, loaded: true, gone: true })
        refuse(error)
      } finally {
        if (opening === name) opening = ''
      }
    },

    send: (edit) =>
      inTurn(async () => {
        wanted = null
        try {
          const answer = await got(
            client.POST('/api/projects/{project_id}/edits', {
              params: { path: { project_id: get().projectId } },
              body: { edit, ...named() },
            }),
          )
          accept(answer)
          // What was refused before is no longer what is to be read.
          if (get().message?.kind === 'error') set({ message: null })
          if (answer.caret) set({ caret: answer.caret as [number, number] })
          if (answer.remarks.length) get().say(answer.remarks.join(' '), 'info')
          return answer
        } catch (error) {
          set({ preview: null })
          refuse(error)
          return null
        }
      }),

    step: (act) =>
      inTurn(async () => {
        const options = { params: { path: { project_id: get().projectId } }, body: named() }
        try {
          const answer = await got(
            act === 'undo'
              ? client.POST('/api/projects/{project_id}/undo', options)
              : client.POST('/api/projects/{project_id}/redo', options),
          )
          accept(answer)
          get().say(answer.label, 'info')
        } catch (error) {
          refuse(error)
        }
      }),

    ask: (edit) => {
      wanted = edit
      if (edit === null) set({ preview: null })
      else void askNow()
    },

    poll: async () => {
      const { projectId, sheetId, revision, loaded, peopleKey } = get()
      if (!projectId || !loaded) return
      try {
        const news = await got(
          client.GET('/api/projects/{project_id}/changes', {
            params: {
              path: { project_id: projectId },
              query: { since: revision, sheet_id: sheetId, people_key: peopleKey },
            },
          }),
        )
        const now = get()
        if (now.sheetId !== sheetId || now.projectId !== projectId) return
        if (news.people) set({ people: news.people as SheetState['people'], peopleKey: news.people_key })
        if (news.sheet_gone !== now.gone) set({ gone: news.sheet_gone })
        if (now.revision === revision && news.revision > revision) accept(news)
      } catch {
        // The next poll asks again; edits say for themselves when the server is away.
      }
    },

    set: (part) => set(part),
    select: (ids) => set({ selection: new Set(ids) }),
    say: (text, kind = 'info') => set({ message: { text, kind, count: (get().message?.count ?? 0) + 1 } }),
  }
})

/** Some fields of the store; who uses them is rendered anew only when one of these is another one. */
export function usePick<K extends keyof SheetState>(...names: K[]): Pick<SheetState, K> {
  return useSheet(
    useShallow((s) => Object.fromEntries(names.map((name) => [name, s[name]])) as Pick<SheetState, K>),
  )
}
