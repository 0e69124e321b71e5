/** The Terminals bench: strips by place, one drawn as it stands on its rail, its table, and what can be done. */
import Box from '@mui/material/Box'
import { useMemo } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { client, got } from '../../api/client'
import { Bench, Empty } from '../../kit/Bench'
import type { BenchProps } from '../../project/bench'
import { paging, useCommands } from '../../project/commands'
import { useProject } from '../../project/store'
import { useBench } from '../../project/useBench'
import { traceCommand } from '../../project/tracing'
import { drawnTerminal, stripCommands } from './commands'
import { useHeld } from './useHeld'
import { Forms } from './Forms'
import { ItemsPanel } from './ItemsPanel'
import { useMoved } from './moving'
import { StripFace } from './StripFace'
import { StripList } from './StripList'
import { StripPanel } from './StripPanel'
import { StripTable } from './StripTable'
import type { Strip, TerminalsView } from './shapes'

function useStrip(id: string, upright: boolean, percent: number) {
  const projectId = useProject((s) => s.projectId)
  return useBench<Strip | null>(
    'strip',
    () => {
      if (!id) return Promise.resolve(null)
      const path = { project_id: projectId, strip_id: id }
      const query = { upright, spare_percent: percent }
      return got(client.GET('/api/projects/{project_id}/terminals/{strip_id}', { params: { path, query } }))
    },
    [id, upright, percent],
  )
}

export function TerminalsBench({ canEdit }: BenchProps) {
  const projectId = useProject((s) => s.projectId)
  const navigate = useNavigate()
  const [search, setSearch] = useSearchParams()
  const held = useHeld()
  const view = useBench<TerminalsView>('terminals', () =>
    got(client.GET('/api/projects/{project_id}/terminals', { params: { path: { project_id: projectId } } })),
  )
  const strips = view.data?.strips ?? []
  const line = strips.find((s) => s.id === search.get('strip')) ?? strips[0]
  const shown = useStrip(line?.id ?? '', held.upright, held.percent).data
  const strip = useMoved(shown && shown.id === line?.id ? shown : null)
  const go = (id: string) => {
    held.choose(new Set())
    setSearch({ strip: id })
  }
  const rows = useMemo(() => strip?.rows ?? [], [strip])
  const chosen = useMemo(() => rows.filter((r) => held.chosen.has(r.key)), [rows, held.chosen])
  const ids = strips.map((x) => x.id)
  useCommands('Terminals', [
    ...paging('strip', ids, line?.id ?? '', go),
    ...stripCommands({ held, strip, chosen, canEdit }),
    traceCommand(drawnTerminal(chosen), navigate),
  ])
  if (!view.data) return <Empty>Reading the strips…</Empty>
  const forms = <Forms {...{ held, strip, strips, chosen, go }} />
  const list = <StripList {...{ view: view.data, chosen: line?.id ?? '', canEdit, go, open: held.open }} />
  if (!line)
    return (
      <Bench name="Terminals" list={list}>
        <Empty>
          No terminal is drawn or planned yet. On a sheet press <kbd>Shift+T</kbd> and draw a stroke across
          wires: each wire gets a terminal, and they make a strip. Or make a strip here and draw its terminals
          later. <Link to={`/p/${projectId}/draw`}>To the sheets</Link>
        </Empty>
        {forms}
      </Bench>
    )
  if (!strip)
    return (
      <Bench name="Terminals" list={list}>
        <Empty>Reading the strip…</Empty>
      </Bench>
    )
  const panel = chosen.length ? (
    <ItemsPanel {...{ strip, chosen, canEdit, held }} />
  ) : (
    <StripPanel key={strip.id} {...{ strip, canEdit, held }} />
  )
  return (
    <Bench name="Terminals" list={list} inspector={panel}>
      <Box sx={{ flex: '0 0 56%', minHeight: 0, display: 'flex', flexDirection: 'column' }}>
        <StripFace {...{ strip, canEdit, held }} />
      </Box>
      <StripTable {...{ strip, canEdit, held }} />
      {forms}
    </Bench>
  )
}
