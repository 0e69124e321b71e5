/** What a bench shows, asked for anew after every edit, with the old picture kept until the new one is there. */
import { keepPreviousData, useQuery, type QueryClient } from '@tanstack/react-query'
import { useProject } from './store'

const BENCH = 'bench'

/** Ask for what benches show as soon as the project has another revision; forget what no bench shows now. */
export function followRevision(queries: QueryClient) {
  return useProject.subscribe((now, before) => {
    if (now.revision === before.revision) return
    queries.removeQueries({ queryKey: [BENCH], type: 'inactive' })
    void queries.invalidateQueries({ queryKey: [BENCH] })
  })
}

export function useBench<T>(name: string, ask: () => Promise<T>, more: unknown[] = []) {
  const projectId = useProject((s) => s.projectId)
  const { data, isError, isPending, error, refetch } = useQuery({
    queryKey: [BENCH, name, projectId, ...more],
    queryFn: ask,
    placeholderData: keepPreviousData,
    staleTime: 0,
    gcTime: 60_000,
    enabled: projectId !== '',
    // A bench is painted anew when its answer is there, not when it is asked for.
    notifyOnChangeProps: ['data', 'error', 'status'],
  })
  return { data: isError ? undefined : data, isPending, error, refetch }
}
