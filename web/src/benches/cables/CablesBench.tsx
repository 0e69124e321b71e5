/** The Cables bench: cables and what waits for one, a cable with both of its ends, its cores as a table. */
import Box from '@mui/material/Box'
import { useState } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { client, got } from '../../api/client'
import { Bench, Empty } from '../../kit/Bench'
import type { BenchProps } from '../../project/bench'
import { paging, useCommands } from '../../project/commands'
import { useProject } from '../../project/store'
import { traceCommand } from '../../project/tracing'
import { useBench } from '../../project/useBench'
import { CableFace } from './CableFace'
import { coreCommands, drawnCore } from './commands'
import { CableList } from './CableList'
import { ALL, WAYS } from './pages'
import { CableTable } from './CableTable'
import { CablePanel } from './CablePanel'
import { CoreTable } from './CoreTable'
import { GroupPage } from './GroupPage'
import { WayPage } from './WayPage'
import type { CablePicture, CablesView } from './shapes'

function usePicture(id: string) {
  const projectId = useProject((s) => s.projectId)
  return useBench<CablePicture | null>(
    'cable',
    () => {
      if (!id) return Promise.resolve(null)
      const path = { project_id: projectId, cable_id: id }
      return got(client.GET('/api/projects/{project_id}/cables/{cable_id}', { params: { path } }))
    },
    [id],
  ).data
}

/** What the address asks for: a group of the tray, the table of ways, or a cable, the first without one. */
function shownOf(view: CablesView | undefined, search: URLSearchParams) {
  const cables = view?.cables ?? []
  const wanted = search.get('cable') ?? ''
  const group = view?.tray.find((g) => g.key === search.get('group'))
  const other = group !== undefined || wanted === WAYS || wanted === ALL
  const cable = other ? undefined : (cables.find((c) => c.id === wanted) ?? cables[0])
  return { cables, wanted, group, cable }
}

export function CablesBench({ canEdit }: BenchProps) {
  const projectId = useProject((s) => s.projectId)
  const navigate = useNavigate()
  const [search, setSearch] = useSearchParams()
  const [chosen, choose] = useState<Set<string>>(new Set())
  const view = useBench<CablesView>('cables', () =>
    got(client.GET('/api/projects/{project_id}/cables', { params: { path: { project_id: projectId } } })),
  ).data
  const { cables, wanted, group, cable } = shownOf(view, search)
  const picture = usePicture(cable?.id ?? '')
  const go = (id: string) => {
    choose(new Set())
    setSearch({ cable: id })
  }
  const ids = cables.map((x) => x.id)
  useCommands('Cables', [
    ...paging('cable', ids, cable?.id ?? '', go),
    ...coreCommands(cable, chosen, choose),
    traceCommand(drawnCore(cable, chosen), navigate),
  ])
  if (!view) return <Empty>Reading the cables…</Empty>
  const list = (
    <CableList
      view={view}
      chosen={group?.key ?? cable?.id ?? wanted}
      go={go}
      goGroup={(key) => setSearch({ group: key })}
    />
  )
  if (!cable)
    return (
      <Bench name="Cables" list={list}>
        {group ? (
          <GroupPage key={group.key} {...{ group, cables, canEdit, go }} />
        ) : wanted === WAYS ? (
          <WayPage ways={view.ways} canEdit={canEdit} />
        ) : cables.length ? (
          <CableTable {...{ cables, canEdit, go }} />
        ) : (
          <NoCable />
        )}
      </Bench>
    )
  const shown = picture?.id === cable.id ? picture : null
  const inspector = <CablePanel key={cable.id} {...{ cable, canEdit, larger: shown?.larger ?? [] }} />
  return (
    <Bench name="Cables" list={list} inspector={inspector}>
      <Box sx={{ flex: '0 0 50%', minHeight: 0, display: 'flex', flexDirection: 'column' }}>
        {shown && <CableFace {...{ cable, scene: shown.scene, canEdit, chosen, choose }} />}
      </Box>
      <CoreTable {...{ cable, canEdit, chosen, choose }} />
    </Bench>
  )
}

function NoCable() {
  const projectId = useProject((s) => s.projectId)
  return (
    <Empty>
      No cable is drawn yet. On a sheet press <kbd>Shift+C</kbd> and draw a band across the wires that leave
      the panel; they become its cores. Field wires that run in no cable wait in the list on the left.{' '}
      <Link to={`/p/${projectId}/draw`}>To the sheets</Link>
    </Empty>
  )
}
