/** The rows that a recipe gives while it is made; asked again when it or the project changes. */
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { client, got } from '../../api/client'
import { usePick } from '../../project/store'
import type { RecipeEdit } from './shapes'

export function useRowsOf(draft: RecipeEdit) {
  const { projectId, revision } = usePick('projectId', 'revision')
  const rest = { ...draft, name: '' } // what it is called changes no row
  const asked = useQuery({
    queryKey: ['recipe-rows', projectId, revision, JSON.stringify(rest)],
    queryFn: () =>
      got(
        client.POST('/api/projects/{project_id}/lists/rows', {
          params: { path: { project_id: projectId } },
          body: draft,
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  })
  return { list: asked.data, problem: asked.error ? asked.error.message : '' }
}
