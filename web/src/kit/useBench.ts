/** What a bench shows, asked for anew after every edit, with the old picture kept until the new one is there. */
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useSheet } from '../benches/draw/store'

export function useBench<T>(name: string, ask: () => Promise<unknown>, more: unknown[] = []) {
  const revision = useSheet((s) => s.revision)
  const projectId = useSheet((s) => s.projectId)
  return useQuery({
    queryKey: ['bench', name, projectId, revision, ...more],
    queryFn: ask as () => Promise<T>,
    placeholderData: keepPreviousData,
    staleTime: 0,
    gcTime: 60_000,
    enabled: projectId !== '',
  })
}
