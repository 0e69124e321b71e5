/** What a stamp looks like, small. */
import { useQuery } from '@tanstack/react-query'
import { client, got } from '../../api/client'
import { ItemView } from '../../scene/Painter'
import { useArt } from '../../project/useArt'
import { usePick } from '../../project/store'

export function StampPicture({ id, height }: { id: string; height: number }) {
  const { projectId } = usePick('projectId')
  const art = useArt()
  const found = useQuery({
    queryKey: ['stamp-picture', projectId, id],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/stamps/{stamp_id}/picture', {
          params: { path: { project_id: projectId, stamp_id: id } },
        }),
      ),
    staleTime: 60_000,
  })
  const scene = found.data
  if (!scene?.items.length) return <div style={{ height }} />
  return (
    <svg
      viewBox={`${scene.x} ${scene.y} ${scene.width} ${scene.height}`}
      style={{ width: '100%', height, background: '#FCFAF5' }}
      aria-hidden
    >
      {scene.items.map((item) => (
        <ItemView key={item.id} item={item} art={art} look="plain" />
      ))}
    </svg>
  )
}
