/** The Draw bench: sheets on the left, the sheet in the middle, inspector right, ledger below. */
import type { BenchProps } from '../../project/bench'
import Box from '@mui/material/Box'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { client, got, wordsOf } from '../../api/client'
import { DrawBar } from './DrawBar'
import { Aside } from './Aside'
import { leadsTo } from './jump'
import { useDraw } from './store'
import { Sheet } from './Sheet'
import { SheetList } from './SheetList'
import { fetched } from '../../kit/fetched'
import { useGo } from '../../kit/useGo'
import { paging } from '../../project/commands'
import { fetchAhead } from '../../project/ahead'
import { useProject } from '../../project/store'
import { now } from './store'
import { useKeys } from './useKeys'

/** The sheet is painted first: the ledger's table and the inspector's panels are fetched after it. */
const Inspector = fetched(() => import('./Inspector').then((m) => m.Inspector))
const LEDGER_ROOM = <Box sx={{ height: 190 }} />
const Ledger = fetched(() => import('./Ledger').then((m) => m.Ledger), LEDGER_ROOM)

/** Go to an entity, on this sheet or another; the same function on all sheets, so that nothing waits for another one. */
function useGoing(projectId: string) {
  const go = useGo()
  return useCallback(
    (id: string, sheet = '') => {
      const s = now()
      const target = sheet || (s.view.items[id] ? s.sheetId : '')
      if (target && target === s.sheetId) s.select([id])
      else if (target) go(`/p/${projectId}/draw/${target}?sel=${id}`)
      else if (id) {
        const params = { path: { project_id: projectId, entity_id: id } }
        void got(client.GET('/api/projects/{project_id}/where/{entity_id}', { params })).then(
          (found) => go(`/p/${projectId}/draw/${found.sheet_id}?sel=${id}`),
          (error) => s.say(wordsOf(error), 'error'),
        )
      }
    },
    [go, projectId],
  )
}

/** Commands to the next sheet or page and the one before; the address may follow later than a hand pages on. */
function usePages(projectId: string, { sheets, pages }: BenchProps['outline']) {
  const go = useGo()
  return useMemo(() => {
    const ids = [...sheets, ...pages].map((page) => page.id)
    const shown = () => useProject.getState().sheetId
    return paging('sheet', ids, shown, (id) => {
      useProject.getState().openAhead(projectId, id)
      go(`/p/${projectId}/draw/${id}`)
    })
  }, [projectId, sheets, pages, go])
}

/** How long a sheet is looked at before those beside it are asked for, in ms. */
const LOOKED_AT_MS = 300

/** Ask for the next sheet and the one before while this one is looked at, so that paging waits for nothing. */
function useNeighbours(
  projectId: string,
  sheets: readonly { id: string }[],
  sheetId: string,
  loaded: boolean,
) {
  const at = sheets.findIndex((s) => s.id === sheetId)
  const next = sheets[at + 1]?.id ?? ''
  const before = at > 0 ? sheets[at - 1]!.id : ''
  useEffect(() => {
    if (!loaded) return
    const timer = window.setTimeout(() => {
      fetchAhead(projectId, next, false)
      fetchAhead(projectId, before, false)
    }, LOOKED_AT_MS)
    return () => window.clearTimeout(timer)
  }, [projectId, next, before, loaded])
}

/** Whether a sheet has been painted, or none will be. */
function usePainted(ready: boolean) {
  const [painted, setPainted] = useState(false)
  useEffect(() => {
    if (!ready || painted) return
    let timer = 0
    const frame = requestAnimationFrame(() => {
      timer = window.setTimeout(() => setPainted(true))
    })
    return () => {
      cancelAnimationFrame(frame)
      window.clearTimeout(timer)
    }
  }, [ready, painted])
  return painted
}

export function DrawBench({ outline, canEdit: mayEdit }: BenchProps) {
  const { projectId = '', section: sheetId = '' } = useParams()
  const [search] = useSearchParams()
  // A generated page is made from the model: it is looked at, not drawn on.
  const made = useProject((s) => s.view.sheet.sheet?.made ?? false)
  const loaded = useProject((s) => s.loaded)
  const gone = useProject((s) => s.gone)
  const mayDraw = mayEdit && !made
  const canEdit = mayDraw && loaded
  const painted = usePainted(loaded || gone || !sheetId)
  useKeys(canEdit, usePages(projectId, outline))
  const sheets = outline.sheets
  const types = outline.wire_types
  const buses = outline.buses
  const wanted = search.get('sel')
  useNeighbours(projectId, sheets, sheetId, loaded)

  useEffect(() => {
    if (sheetId) void useProject.getState().open(projectId, sheetId)
  }, [projectId, sheetId])
  useEffect(() => {
    if (wanted && loaded) useProject.getState().select([wanted])
  }, [wanted, loaded])

  const panel = search.get('panel')
  useEffect(() => {
    if ((panel === 'planned' || panel === 'trace') && loaded) useDraw.getState().set({ panel })
  }, [panel, wanted, loaded])

  const goTo = useGoing(projectId)
  useEffect(() => leadsTo(goTo), [goTo])
  return (
    <Box sx={{ display: 'flex', flex: 1, minWidth: 0, minHeight: 0 }}>
      <SheetList
        projectId={projectId}
        pages={outline.pages}
        sheets={sheets}
        current={sheetId}
        canEdit={mayEdit}
      />
      <Box sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column' }}>
        <DrawBar {...{ types, buses }} languages={outline.settings.languages} canEdit={mayDraw} />
        <Box sx={{ flex: 1, minHeight: 0, bgcolor: '#EAE4D6' }}>
          <Sheet canEdit={canEdit} onGo={goTo} />
        </Box>
        {made ? null : painted ? <Ledger onGo={goTo} /> : LEDGER_ROOM}
      </Box>
      <Aside>{painted && <Inspector outline={outline} canEdit={canEdit} onGo={goTo} />}</Aside>
    </Box>
  )
}
