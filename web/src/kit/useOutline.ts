/** What the open project consists of, apart from what is on its sheets and what changes at every edit. */
import { queryOptions, useQuery } from '@tanstack/react-query'
import { client, got, type Outline, type ViewChange } from '../api/client'

type Row = Record<string, unknown>
type Sections = Record<string, Record<string, Row>>

/** The outline of each project as the server gives it: rows by id in sections, of which it says what changed. */
const known = new Map<string, { revision: number; sections: Sections }>()

function changed(sections: Sections, change: ViewChange): Sections {
  if (change.whole) return change.put as Sections
  const next = { ...sections }
  for (const [name, rows] of Object.entries(change.put as Sections)) next[name] = { ...next[name], ...rows }
  for (const [name, ids] of Object.entries(change.drop)) {
    next[name] = { ...next[name] }
    for (const id of ids) delete next[name][id]
  }
  return next
}

const inOrder = (rows: Record<string, Row> | undefined) =>
  Object.values(rows ?? {}).sort(
    (a, b) => Number(a.order) - Number(b.order) || String(a.id).localeCompare(String(b.id)),
  )

async function ask(projectId: string): Promise<Outline> {
  const before = known.get(projectId)
  const query = { since: before?.revision ?? -1 }
  const news = await got(
    client.GET('/api/projects/{project_id}/outline', { params: { path: { project_id: projectId }, query } }),
  )
  const { view, ...rest } = news
  const sections = changed(before?.sections ?? {}, view)
  known.set(projectId, { revision: news.revision, sections })
  return {
    ...rest,
    settings: sections.settings?.settings ?? {},
    sheets: inOrder(sections.sheets),
    pages: inOrder(sections.pages) as Outline['pages'],
    wire_types: inOrder(sections.wire_types),
    buses: inOrder(sections.buses),
    habits: inOrder(sections.habits),
    kinds: inOrder(sections.kinds),
  }
}

const asked = (projectId: string) =>
  queryOptions({
    queryKey: ['outline', projectId],
    queryFn: () => ask(projectId),
    enabled: projectId !== '',
  })

/** What changes at every edit. */
const PASSING = ['revision', 'undo', 'redo', 'people'] as const
export type LastingOutline = Omit<Outline, (typeof PASSING)[number]>

/** The parts that last: who shows them is not rendered anew by an edit that leaves them as they are. */
function lasting(outline: Outline): LastingOutline {
  const rest: Partial<Outline> = { ...outline }
  for (const name of PASSING) delete rest[name]
  return rest as LastingOutline
}

export const useOutline = (projectId: string) => useQuery({ ...asked(projectId), select: lasting })

/** All of it, with the revision it was asked for at. */
export const useOutlineNow = (projectId: string) => useQuery(asked(projectId))
