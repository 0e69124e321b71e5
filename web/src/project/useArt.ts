/** The symbols' graphics for the project's standard, fetched once. */
import { useQuery } from '@tanstack/react-query'
import { client, got } from '../api/client'
import type { Art } from '../scene/Painter'
import { useProject } from '../project/store'

const none: Art = {}

/** @param wanted the standard, when it is not that of the sheet that is open. */
export function useArt(wanted = ''): Art {
  const open = useProject((s) => s.view.sheet.sheet?.standard ?? 'iec')
  const standard = wanted || open
  const art = useQuery({
    queryKey: ['art', standard],
    queryFn: () => got(client.GET('/api/library/art/{standard}', { params: { path: { standard } } })),
    staleTime: Infinity,
  })
  return (art.data as Art | undefined) ?? none
}
