/**
 * The open project as the browser holds it: its revision, the view of the sheet that is open, what is selected, who is here.
 *
 * Every edit goes through `send`, one after another; nothing in the view is ever changed but by what the server answered.
 * What a bench needs beside this it keeps in a store of its own and follows this one with `subscribe`.
 */
import { create } from 'zustand'
import { useShallow } from 'zustand/react/shallow'
import { client, got, Refusal, type AnyEdit, type EditOut, type News } from '../api/client'
import { counted, deliver, wasRefused } from '../api/line'
import { nowShown, typedSince } from '../api/typed'
import { arrived, keep, keptOf } from './ahead'
import { keepUnsent, sentNow, unsentOf, type Unsent } from './unsent'
import { changed, emptyView, type View } from './view'

export interface Preview {
  view: View
  changed: Set<string>
  label: string
  problem: string
  remarks: string[]
}

export interface ProjectState {
  projectId: string
  sheetId: string
  revision: number
  view: View
  /** The revision of the wires and snags in the view: those of the drawing come first, they are asked for after. */
  found: number
  loaded: boolean
  gone: boolean
  undo: string
  redo: string
  people: { name: string; sheet_id: string }[]
  /** What the server calls these people, so that it tells of them only when they are others. */
  peopleKey: string
  /** What an edit would do that is thought of, while it is. */
  preview: Preview | null
  selection: Set<string>
  /** What the inspector shows when nothing is selected: the thing placed last. */
  subject: string
  /** Where the last edit would have the caret go; another object with each edit that says so. */
  pointed: { at: [number, number] } | null
  message: { text: string; kind: 'error' | 'info'; count: number } | null

  /** Come into a project on a bench that shows no sheet. */
  enter: (projectId: string, revision: number, undo: string, redo: string) => void
  open: (projectId: string, sheetId: string) => Promise<void>
  /** Ask for a sheet before the page has followed to it, and opens it. */
  openAhead: (projectId: string, sheetId: string) => void
  send: (edit: AnyEdit) => Promise<EditOut | null>
  /** Send again what was under way when this window was loaded anew. */
  resume: () => void
  step: (act: 'undo' | 'redo') => Promise<void>
  /** Show what an edit would do; null shows it no longer. */
  ask: (edit: AnyEdit | null) => void
  /** Show no answer that is still to come of what was asked for; what is shown stays. */
  hush: () => void
  poll: () => Promise<void>
  select: (ids: Iterable<string>, subject?: string) => void
  say: (text: string, kind?: 'error' | 'info') => void
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
/** Counts what was asked for, so that an answer nobody waits for any more is not shown. */
let asked = 0
/** The sheet that is being fetched, and the one a click asked for before the page has followed. */
let opening = ''
let ahead = ''

/** Names of the edits that this window has sent since it was loaded. */
const mine = new Set<string>()

const start = {
  projectId: '',
  sheetId: '',
  revision: -1,
  view: emptyView,
  found: -1,
  loaded: false,
  gone: false,
  undo: '',
  redo: '',
  people: [],
  peopleKey: '',
  preview: null,
  selection: new Set<string>(),
  subject: '',
  pointed: null,
  message: null,
}

export const useProject = create<ProjectState>((set, get) => ({
  ...start,

  enter: (projectId, revision, undo, redo) => {
    const s = get()
    if (s.projectId === projectId && s.revision >= 0) return
    set({
      projectId,
      sheetId: '',
      view: emptyView,
      found: revision,
      selection: new Set(),
      subject: '',
      preview: null,
    })
    set({ revision, undo, redo, loaded: true, gone: false })
  },
  open: (projectId, sheetId) => {
    const followed = ahead === `${projectId}/${sheetId}` && get().sheetId === sheetId && !get().gone
    ahead = ''
    return followed ? Promise.resolve() : openSheet(projectId, sheetId)
  },
  openAhead: (projectId, sheetId) => {
    if (get().sheetId === sheetId && get().loaded) return
    ahead = `${projectId}/${sheetId}`
    void openSheet(projectId, sheetId)
  },
  send: (edit) => {
    const projectId = get().projectId
    const one = { key: newKey(), edit, seen: typedSince() }
    mine.add(one.key)
    keepUnsent(projectId, one)
    return counted(inTurn(() => sendNow(projectId, one)))
  },
  resume: () => {
    const projectId = get().projectId
    for (const one of unsentOf(projectId).filter((u) => !mine.has(u.key))) {
      mine.add(one.key)
      void counted(inTurn(() => sendNow(projectId, one)))
    }
  },
  step: (act) => counted(inTurn(() => stepNow(act))),
  ask: (edit) => {
    wanted = edit
    asked += 1
    if (edit === null) set({ preview: null })
    else void askNow()
  },
  hush: () => {
    wanted = null
    asked += 1
  },
  poll,
  select: (ids, subject) => set({ selection: new Set(ids), ...(subject === undefined ? {} : { subject }) }),
  say: (text, kind = 'info') => set({ message: { text, kind, count: (get().message?.count ?? 0) + 1 } }),
}))

const { getState: get, setState: set } = useProject
useProject.subscribe((s) => nowShown(s.revision))

/** How long one rests until wires and snags are asked for, in ms: who goes on at once does not wait for them. */
const FIND_MS = 100
let finding = 0

/** Ask for wires and snags, once the drawing is painted. */
function findSoon() {
  window.clearTimeout(finding)
  finding = window.setTimeout(() => void poll(), FIND_MS)
}

/** Take what the server answered to a question about a sheet; when another one is open by then, ask for that one. */
function accept(answer: EditOut | News, about: string) {
  const s = get()
  if (about !== s.sheetId) return void poll()
  if (answer.revision < s.revision) return
  const { revision, undo, redo } = answer
  // What is asked for beside edits has wires and snags, too.
  const found = 'people' in answer || !s.sheetId ? revision : answer.view?.whole ? -1 : s.found
  // Wires and snags of the same drawing come after it: what is previewed on it meanwhile stays.
  const preview = revision === s.revision ? s.preview : null
  set({ revision, undo, redo, found, view: changed(s.view, answer.view), preview })
  if (found !== revision) findSoon()
  const { view, selection } = get()
  const there = [...selection].filter((id) => id in view.items)
  if (there.length !== selection.size) set({ selection: new Set(there) })
}

const FAILED = 500

function refuse(error: unknown, what = '') {
  const failed = error instanceof Refusal && error.status >= FAILED && what
  const words = error instanceof Error ? error.message : String(error)
  get().say(failed ? `Not done: ${what.replaceAll('-', ' ')}. ${words} Try it again.` : words, 'error')
  if (error instanceof Refusal && [404, 409].includes(error.status)) void get().poll()
}

// While a sheet is being opened, what is shown is another one: the answer is to give all of it.
const shown = () => ({ sheet_id: get().sheetId, since: get().loaded ? get().revision : -1 })
// Each request has a name, so that one the network sends twice is done once.
const newKey = () => `${Date.now().toString(36)}-${Math.random().toString(36).slice(2)}`
const named = (key = newKey()) => ({ ...shown(), key })

async function openSheet(projectId: string, sheetId: string) {
  const name = `${projectId}/${sheetId}`
  if (opening === name) return
  opening = name
  window.clearTimeout(finding)
  const elsewhere = get().projectId !== projectId
  const other = elsewhere || get().sheetId !== sheetId
  asked += 1
  const left = get()
  if (left.loaded && !left.gone && left.sheetId) keep(left.projectId, left.sheetId, left)
  // Within a project the old drawing stays until the new one is there, so that it is painted once and not twice.
  const begun = {
    projectId,
    sheetId,
    gone: false,
    preview: null,
    ...(other ? { selection: new Set<string>(), subject: '' } : {}),
  }
  const known = keptOf(projectId, sheetId)
  if (!elsewhere && known && known.revision === left.revision) {
    set({ ...begun, view: known.view, found: known.found, loaded: true })
    opening = ''
    return void findSoon()
  }
  // It is asked for before anything is painted, so that the server works while the browser does.
  const coming = arrived(projectId, sheetId)
  const question = coming
    ? coming.then(() => keptNews(projectId, sheetId) ?? newsOf(projectId, sheetId))
    : newsOf(projectId, sheetId)
  set({ ...begun, loaded: false, ...(elsewhere ? { view: emptyView, revision: -1 } : {}) })
  try {
    const { view, ...news } = await question
    if (get().sheetId !== sheetId) return
    set({
      view: news.sheet_gone ? emptyView : view,
      found: news.found,
      revision: news.revision,
      undo: news.undo,
      redo: news.redo,
      people: news.people ?? [],
      peopleKey: news.people_key,
      loaded: true,
      gone: news.sheet_gone,
    })
    if (coming || news.found !== news.revision) findSoon()
  } catch (error) {
    if (get().sheetId === sheetId) set({ view: emptyView, loaded: true, gone: true })
    refuse(error)
  } finally {
    if (opening === name) opening = ''
  }
}

/** What came ahead of a sheet, when it is of the revision that is shown; of a project just opened more is to be asked. */
function keptNews(projectId: string, sheetId: string) {
  const known = keptOf(projectId, sheetId)
  const { revision, undo, redo, people, peopleKey } = get()
  if (!known || known.revision !== revision) return null
  return { ...known, undo, redo, people, people_key: peopleKey, sheet_gone: false }
}

/** Ask for a sheet: for what changed since it was kept, or for all that is drawn. */
async function newsOf(projectId: string, sheetId: string) {
  const known = keptOf(projectId, sheetId)
  const path = { project_id: projectId, sheet_id: sheetId }
  const { revision: since = -1, found = -1 } = known ?? {}
  const query = { since, found, sheet_id: sheetId, people_key: '' }
  const news = known
    ? await got(client.GET('/api/projects/{project_id}/changes', { params: { path, query } }))
    : await got(
        client.GET('/api/projects/{project_id}/sheets/{sheet_id}/view', {
          params: { path, query: { drawn: true } },
        }),
      )
  return { ...news, found: known ? news.revision : -1, view: changed(known?.view ?? emptyView, news.view) }
}

async function sendNow(projectId: string, { edit, key, seen = -1 }: Unsent): Promise<EditOut | null> {
  wanted = null
  asked += 1
  const about = get().sheetId
  try {
    const answer = await deliver(() =>
      got(
        client.POST('/api/projects/{project_id}/edits', {
          params: { path: { project_id: projectId } },
          body: { edit, ...named(key), seen },
        }),
      ),
    )
    if (projectId === get().projectId) accept(answer, about)
    // What was refused before is no longer what is to be read.
    if (get().message?.kind === 'error') set({ message: null })
    if (answer.caret && get().sheetId === about) set({ pointed: { at: answer.caret as [number, number] } })
    if (answer.remarks.length) get().say(answer.remarks.join(' '), 'info')
    return answer
  } catch (error) {
    set({ preview: null })
    refuse(error, edit.kind)
    wasRefused()
    return null
  } finally {
    sentNow(projectId, key)
  }
}

async function stepNow(act: 'undo' | 'redo') {
  const about = get().sheetId
  const options = { params: { path: { project_id: get().projectId } }, body: named() }
  try {
    const answer = await deliver(() =>
      got(
        act === 'undo'
          ? client.POST('/api/projects/{project_id}/undo', options)
          : client.POST('/api/projects/{project_id}/redo', options),
      ),
    )
    accept(answer, about)
    get().say(answer.label, 'info')
  } catch (error) {
    refuse(error, act)
  }
}

async function askNow() {
  if (asking) return
  asking = true
  while (wanted) {
    const edit = wanted
    const mine = asked
    wanted = null
    const { projectId, revision, view } = get()
    const current = () => asked === mine && get().revision === revision
    try {
      const answer = await got(
        client.POST('/api/projects/{project_id}/preview', {
          params: { path: { project_id: projectId } },
          body: { edit, ...shown(), key: '', seen: -1 },
        }),
      )
      const put = new Set(Object.keys(answer.view?.put.items ?? {}))
      const next = changed(view, answer.view)
      if (current())
        set({
          preview: { view: next, changed: put, label: answer.label, problem: '', remarks: answer.remarks },
        })
    } catch (error) {
      const words = error instanceof Error ? error.message : String(error)
      const problem = words === 'Nothing would change.' ? '' : words
      if (current()) set({ preview: { view, changed: new Set(), label: '', problem, remarks: [] } })
    }
  }
  asking = false
}

async function poll() {
  const { projectId, sheetId, revision, found, loaded, peopleKey } = get()
  if (!projectId || !loaded) return
  try {
    const query = { since: revision, found, sheet_id: sheetId, people_key: peopleKey }
    const news = await got(
      client.GET('/api/projects/{project_id}/changes', {
        params: { path: { project_id: projectId }, query },
      }),
    )
    const now = get()
    if (now.sheetId !== sheetId || now.projectId !== projectId) return
    if (news.people) set({ people: news.people, peopleKey: news.people_key })
    if (news.sheet_gone !== now.gone) set({ gone: news.sheet_gone })
    if (now.revision === revision && (news.revision > revision || now.found < revision)) accept(news, sheetId)
  } catch {
    // The next poll asks again; edits say for themselves when the server is away.
  }
}

/** Some fields of the store; who uses them is rendered anew only when one of these is another one. */
export function usePick<K extends keyof ProjectState>(...names: K[]): Pick<ProjectState, K> {
  return useProject(
    useShallow((s) => Object.fromEntries(names.map((name) => [name, s[name]])) as Pick<ProjectState, K>),
  )
}
