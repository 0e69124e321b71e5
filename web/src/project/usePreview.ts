/** What an edit would do, asked again when it or the project changes; nothing is stored. */
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { client, got, type AnyEdit } from '../api/client'
import { usePick } from './store'

export function usePreview(edit: AnyEdit, enabled = true) {
  const { projectId, revision } = usePick('projectId', 'revision')
  return useQuery({
    queryKey: ['preview', projectId, revision, JSON.stringify(edit)],
    queryFn: () =>
      got(
        client.POST('/api/projects/{project_id}/preview', {
          params: { path: { project_id: projectId } },
          body: { edit, sheet_id: '', since: -1, key: '', seen: -1 },
        }),
      ),
    enabled,
    placeholderData: keepPreviousData,
    retry: false,
  })
}
