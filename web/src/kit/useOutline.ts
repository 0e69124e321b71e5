/** What the open project consists of, apart from what is on its sheets and what changes at every edit. */
import { queryOptions, useQuery } from '@tanstack/react-query'
import { client, got, type Outline } from '../api/client'

const asked = (projectId: string) =>
  queryOptions({
    queryKey: ['outline', projectId],
    queryFn: () =>
      got(client.GET('/api/projects/{project_id}', { params: { path: { project_id: projectId } } })),
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
