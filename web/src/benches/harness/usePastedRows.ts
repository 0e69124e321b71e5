/** Rows of a spreadsheet as wires: the server reads them, as it reads every table. */
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { client, got, wordsOf } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { usePick } from '../../project/store'

const NONE: Schemas['PastedWire'][] = []

/** The wires of a text, what keeps it from being read, and whether those are still the wires of the text before. */
export function usePastedRows(text: string) {
  const { projectId } = usePick('projectId')
  const said = text.trim() !== ''
  const read = useQuery({
    queryKey: ['pasted rows', projectId, text],
    queryFn: () =>
      got(
        client.POST('/api/projects/{project_id}/harness/rows', {
          params: { path: { project_id: projectId } },
          body: { text },
        }),
      ),
    enabled: said,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    retry: false,
  })
  return {
    rows: (said && read.data) || NONE,
    unread: said && read.error ? wordsOf(read.error) : '',
    reading: said && read.isPlaceholderData,
  }
}
