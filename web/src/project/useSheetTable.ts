/** The sheets with all that is said of them, and what the choices are. */
import { client, got } from '../api/client'
import { useProject } from './store'
import { useBench } from './useBench'

export function useSheetTable() {
  const projectId = useProject((s) => s.projectId)
  return useBench('sheets', () =>
    got(client.GET('/api/projects/{project_id}/sheets', { params: { path: { project_id: projectId } } })),
  )
}
