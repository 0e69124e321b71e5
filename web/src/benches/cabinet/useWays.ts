/** The ways of wires that are looked at: those of what is chosen, or all. */
import { client, got } from '../../api/client'
import { usePick } from '../../project/store'
import { useBench } from '../../project/useBench'
import type { EnclosureValue, Way } from './shapes'

const NONE: Way[] = []

export function useWays(enclosure: EnclosureValue, chosen: Iterable<string> | 'all'): Way[] {
  const { projectId } = usePick('projectId')
  const things = chosen === 'all' ? 'all' : [...chosen].sort().join(',')
  const found = useBench<Way[]>(
    'ways',
    () =>
      things
        ? got(
            client.GET('/api/projects/{project_id}/cabinet/{enclosure_id}/ways', {
              params: { path: { project_id: projectId, enclosure_id: enclosure.id }, query: { things } },
            }),
          )
        : Promise.resolve(NONE),
    [enclosure.id, things],
  )
  return things ? (found.data ?? NONE) : NONE
}
