/** The layers of the project, and which of them this person does not want to see. */
import { useSyncExternalStore } from 'react'
import { client, got } from '../../api/client'
import { remember, remembered } from '../../kit/remember'
import { useProject } from '../../project/store'
import { useBench } from '../../project/useBench'
import type { Item } from '../../scene/item'

export function useLayers() {
  const projectId = useProject((s) => s.projectId)
  return useBench('layers', () =>
    got(client.GET('/api/projects/{project_id}/layers', { params: { path: { project_id: projectId } } })),
  )
}

const listeners = new Set<() => void>()
const known = new Map<string, ReadonlySet<string>>()

function hiddenIn(projectId: string): ReadonlySet<string> {
  if (!known.has(projectId)) known.set(projectId, new Set(remembered<string[]>(`hidden-${projectId}`, [])))
  return known.get(projectId)!
}

/** Show or hide a layer, for this person only. */
export function showLayer(projectId: string, id: string, shown: boolean) {
  const hidden = new Set(hiddenIn(projectId))
  if (shown) hidden.delete(id)
  else hidden.add(id)
  known.set(projectId, hidden)
  remember(`hidden-${projectId}`, [...hidden])
  for (const tell of listeners) tell()
}

export function useHidden(): ReadonlySet<string> {
  const projectId = useProject((s) => s.projectId)
  return useSyncExternalStore(
    (tell) => {
      listeners.add(tell)
      return () => listeners.delete(tell)
    },
    () => hiddenIn(projectId),
  )
}

/** What of a sheet is shown: without what is in layers that are hidden; the same object when nothing is. */
export function visible(items: Record<string, Item>, hidden: ReadonlySet<string>): Record<string, Item> {
  if (!hidden.size) return items
  const left = Object.entries(items).filter(([, i]) => !hidden.has(i.facts.layer ?? ''))
  return left.length === Object.keys(items).length ? items : Object.fromEntries(left)
}
