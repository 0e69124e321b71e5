/** The symbols' graphics for the project's standard, fetched once. */
import { useQuery } from '@tanstack/react-query'
import { client, got } from '../../api/client'
import type { Art } from '../../scene/Painter'
import { useSheet } from './store'

const none: Art = {}

export function useArt(): Art {
  const standard = useSheet((s) => s.view.sheet.sheet?.standard ?? 'iec')
  const art = useQuery({
    queryKey: ['art', standard],
    queryFn: () => got(client.GET('/api/library/art/{standard}', { params: { path: { standard } } })),
    staleTime: Infinity,
  })
  return (art.data as Art | undefined) ?? none
}
