/** Wire types, numbering rules and letters of the project. */
import { client, got } from '../../api/client'
import { useBench } from '../../project/useBench'
import { useProject } from '../../project/store'
import type { WiringHabits } from './shapes'

export function useWiring() {
  const projectId = useProject((s) => s.projectId)
  return useBench<WiringHabits>('wiring-habits', () =>
    got(
      client.GET('/api/projects/{project_id}/wiring-habits', { params: { path: { project_id: projectId } } }),
    ),
  )
}
