/**
 * Views of sheets the browser has while they are not shown: those left last, and those that may be opened next.
 *
 * A sheet that is kept as it is now opens at once; of one that is kept as it was, only what changed is asked for.
 */
import { client, got } from '../api/client'
import { changed, emptyView, type View } from './view'

interface Kept {
  view: View
  revision: number
  /** The revision of its wires and snags. */
  found: number
}

const MOST = 12
const kept = new Map<string, Kept>()
const coming = new Map<string, Promise<void>>()

const nameOf = (projectId: string, sheetId: string) => `${projectId}/${sheetId}`

/** Keep a view; of too many the one kept longest ago goes. */
export function keep(projectId: string, sheetId: string, asShown: Kept) {
  const name = nameOf(projectId, sheetId)
  kept.delete(name)
  kept.set(name, asShown)
  for (const oldest of [...kept.keys()].slice(0, -MOST)) kept.delete(oldest)
}

/** What is kept of a sheet. */
export const keptOf = (projectId: string, sheetId: string) => kept.get(nameOf(projectId, sheetId))

/**
 * Ask for a sheet that may be opened next, unless it is kept; nobody is told that one looks at it.
 *
 * What will be opened in a moment comes without wires and snags, and is there sooner.
 */
export function fetchAhead(projectId: string, sheetId: string, drawn = true) {
  const name = nameOf(projectId, sheetId)
  if (!projectId || !sheetId || kept.has(name) || coming.has(name)) return
  const params = { path: { project_id: projectId, sheet_id: sheetId }, query: { ahead: true, drawn } }
  const asked = got(client.GET('/api/projects/{project_id}/sheets/{sheet_id}/view', { params }))
    .then((news) => {
      const { revision } = news
      const view = changed(emptyView, news.view)
      if (!news.sheet_gone) keep(projectId, sheetId, { view, revision, found: drawn ? -1 : revision })
    })
    .catch(() => undefined) // who opens it asks again, and is told then
    .finally(() => coming.delete(name))
  coming.set(name, asked)
}

/** Wait for a sheet that was asked for ahead and has not come yet. */
export const arrived = (projectId: string, sheetId: string) => coming.get(nameOf(projectId, sheetId))

/** How long the pointer or the mark rests on what leads to a sheet before it is asked for, in ms. */
const REST_MS = 60
let resting = 0

/** Ask for a sheet once what leads to it, "" for nothing, has been marked for a moment. */
export function restOn(projectId: string, sheetId: string) {
  window.clearTimeout(resting)
  if (sheetId) resting = window.setTimeout(() => fetchAhead(projectId, sheetId), REST_MS)
}

/** What a link to a sheet needs to ask for it when the pointer says that it may be followed. */
export const soon = (projectId: string, sheetId: string) => ({
  onPointerEnter: () => restOn(projectId, sheetId),
  onPointerLeave: () => restOn(projectId, ''),
  onPointerDown: () => fetchAhead(projectId, sheetId),
})
