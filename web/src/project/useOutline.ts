/** What the open project consists of, apart from what is on its sheets and what changes at every edit. */
import { queryOptions, useQuery } from '@tanstack/react-query'
import { client, got, type Outline, type OutlineView } from '../api/client'
import { section } from './sections'

type Sections = OutlineView['put']

/** The outline of each project as the server gives it: rows by id in sections, of which it says what changed. */
const known = new Map<string, { revision: number; sections: Sections }>()

function changed(before: Sections, { whole, put, drop }: OutlineView): Sections {
  if (whole) return put
  return {
    settings: section(before.settings, put.settings, drop.settings),
    sheets: section(before.sheets, put.sheets, drop.sheets),
    pages: section(before.pages, put.pages, drop.pages),
    wire_types: section(before.wire_types, put.wire_types, drop.wire_types),
    buses: section(before.buses, put.buses, drop.buses),
    habits: section(before.habits, put.habits, drop.habits),
    kinds: section(before.kinds, put.kinds, drop.kinds),
  }
}

const inOrder = <T extends { order: number; id?: string }>(rows?: Record<string, T>): T[] =>
  Object.values(rows ?? {}).sort((a, b) => a.order - b.order || (a.id ?? '').localeCompare(b.id ?? ''))

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
    settings: sections.settings!.settings!,
    sheets: inOrder(sections.sheets),
    pages: inOrder(sections.pages),
    wire_types: inOrder(sections.wire_types),
    buses: inOrder(sections.buses),
    habits: inOrder(sections.habits),
    kinds: inOrder(sections.kinds),
  }
}

export const asked = (projectId: string) =>
  queryOptions({
    queryKey: ['outline', projectId],
    queryFn: () => ask(projectId),
    enabled: projectId !== '',
    staleTime: 1000, // both that ask for it at the opening get one answer; at each revision it is asked for anew
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

/** The sheet a project opens on: a ladder is where most people start. */
export const firstOf = (outline: Pick<Outline, 'sheets'>) =>
  outline.sheets.find((s) => s.frame === 'ladder') ?? outline.sheets[0]

export const useOutline = (projectId: string) => useQuery({ ...asked(projectId), select: lasting })

/** All of it, with the revision it was asked for at. */
export const useOutlineNow = (projectId: string) => useQuery(asked(projectId))
