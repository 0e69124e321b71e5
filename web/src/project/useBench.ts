/** What a bench shows, asked for anew after every edit, with the old picture kept until the new one is there. */
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useProject } from './store'

export function useBench<T>(name: string, ask: () => Promise<T>, more: unknown[] = []) {
  const revision = useProject((s) => s.revision)
  const projectId = useProject((s) => s.projectId)
  return useQuery({
    queryKey: ['bench', name, projectId, revision, ...more],
    queryFn: ask,
    placeholderData: keepPreviousData,
    staleTime: 0,
    gcTime: 60_000,
    enabled: projectId !== '',
  })
}
