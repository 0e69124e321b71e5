/** Packs that were issued, followed while one is being written. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { client, got } from '../../api/client'
import { useProject } from '../../project/store'
import type { RunValue } from './shapes'

const EVERY_MS = 400

export function useRuns(packId: string) {
  const projectId = useProject((s) => s.projectId)
  const queries = useQueryClient()
  const path = { project_id: projectId }
  const queryKey = ['pack-runs', projectId]
  const runs = useQuery<RunValue[]>({
    queryKey,
    queryFn: () => got(client.GET('/api/projects/{project_id}/pack-runs', { params: { path } })),
    refetchInterval: (query) => (query.state.data?.some((r) => r.state === 'running') ? EVERY_MS : false),
    staleTime: 0,
  })
  const again = () => queries.invalidateQueries({ queryKey })
  const begun = useMutation({
    mutationFn: () =>
      got(
        client.POST('/api/projects/{project_id}/pack-runs', { params: { path }, body: { pack_id: packId } }),
      ),
    onSettled: again,
  })
  const ended = useMutation({
    mutationFn: (run_id: string) =>
      got(
        client.POST('/api/projects/{project_id}/pack-runs/{run_id}/cancel', {
          params: { path: { ...path, run_id } },
        }),
      ),
    onSettled: again,
  })
  return {
    mine: (runs.data ?? []).filter((r) => r.pack_id === packId),
    issue: () => begun.mutate(),
    cancel: (id: string) => ended.mutate(id),
    problem: begun.error ? begun.error.message : '',
  }
}
