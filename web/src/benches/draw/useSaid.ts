/** The sheet in the language a person wants to see it in: what looks otherwise, in place of what is drawn. */
import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { client, got } from '../../api/client'
import { useRevision } from '../../project/useRevision'
import { usePick } from '../../project/store'
import type { Item } from '../../scene/item'
import { useTools } from './store'

export function useSaid(items: Record<string, Item>): Record<string, Item> {
  const { projectId, sheetId } = usePick('projectId', 'sheetId')
  const { language } = useTools('language')
  const revision = useRevision()
  const found = useQuery({
    queryKey: ['said', projectId, sheetId, language, revision],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/sheets/{sheet_id}/said/{language}', {
          params: { path: { project_id: projectId, sheet_id: sheetId, language } },
        }),
      ),
    enabled: language !== '' && sheetId !== '',
    // What was said of another sheet would stand in its frame.
    placeholderData: (before, query) => (query?.queryKey[2] === sheetId ? before : undefined),
    retry: false,
  })
  const said = language ? found.data?.items : undefined
  return useMemo(() => (said ? inPlace(items, said as Record<string, Item>) : items), [items, said])
}

/** The items with how they look in a language; what is known of them stays. */
function inPlace(items: Record<string, Item>, said: Record<string, Item>): Record<string, Item> {
  const shown = { ...items }
  for (const [id, item] of Object.entries(said)) {
    const own = items[id]
    if (own) shown[id] = { ...item, facts: own.facts }
  }
  return shown
}
