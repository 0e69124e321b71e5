/** The Cabinet bench: tray, plan of each surface, the enclosure in space, wires with their ways. */
import { held } from '../../kit/held'
import Box from '@mui/material/Box'
import CircularProgress from '@mui/material/CircularProgress'
import { useSearchParams } from 'react-router'
import { fetched } from '../../kit/fetched'
import { client, got } from '../../api/client'
import { Bench, Empty } from '../../kit/Bench'
import type { BenchProps } from '../../project/bench'
import { useCommands } from '../../project/commands'
import { usePick } from '../../project/store'
import { useBench } from '../../project/useBench'
import { Bar } from './Bar'
import { CabinetPanel } from './CabinetPanel'
import { cabinetCommands } from './commands'
import { Enclosures } from './Enclosures'
import { LayoutStamps } from './LayoutStamps'
import { NewEnclosure } from './NewEnclosure'
import { Plan } from './Plan'
import { RouteTable } from './RouteTable'
import { Tray } from './Tray'
import { useProposal } from './ProposalPanel'
import type { CabinetView, EnclosureValue, Look } from './shapes'
import { CHOOSE } from './planTool'
import { put, useCabinet, type State } from './useCabinet'

// three.js is only fetched when somebody looks at the picture in space.
const Space = fetched(() => import('./Space').then((m) => m.Space), <CircularProgress sx={{ m: 4 }} />)

function useLayout(projectId: string, wanted: string, look: Look) {
  const surface = look === 'space' ? 'plate' : look
  return useBench<CabinetView>(
    'cabinet',
    () =>
      got(
        client.GET('/api/projects/{project_id}/cabinet', {
          params: { path: { project_id: projectId }, query: { enclosure_id: wanted, surface } },
        }),
      ),
    [wanted, surface],
  ).data
}

function useCabinetCommands(state: State, there: boolean) {
  const { send } = usePick('send')
  useCommands(
    'Cabinet',
    cabinetCommands({
      show: state.setLook,
      draw: state.draw,
      take: state.take,
      choose: () => {
        state.setTool(CHOOSE)
        state.setFrom(null)
        state.select([], false)
      },
      remove: () => {
        void send({ kind: 'remove-from-layout', ids: [...state.selected] })
        state.setSelected(new Set())
      },
      ends: () => state.finish.current,
      some: state.selected.size > 0,
      there,
    }),
  )
}

export function CabinetBench({ canEdit }: BenchProps) {
  const { projectId } = usePick('projectId')
  const [search, setSearch] = useSearchParams()
  const state = useCabinet()
  const view = useLayout(projectId, search.get('enclosure') ?? '', state.look)
  const proposed = useProposal(view?.enclosure, state)
  useCabinetCommands(state, view?.enclosure != null)
  if (!view) return <Empty>Reading the layout…</Empty>
  const { enclosure, enclosures } = view
  const choose = (id: string) => setSearch({ enclosure: id })
  const list = <List {...{ view, state, canEdit, choose }} />
  if (!enclosure)
    return (
      <Bench name="Cabinet" list={list}>
        <NewEnclosure canEdit={canEdit} />
      </Bench>
    )
  const others = enclosures.filter((e) => e.id !== enclosure.id)
  return (
    <Bench
      name="Cabinet"
      list={list}
      inspector={<CabinetPanel {...{ enclosure, others, state, proposed, canEdit }} />}
    >
      <Bar state={state} enclosure={enclosure} canEdit={canEdit} />
      <Box sx={{ flex: 1, minHeight: 0 }}>
        <Picture
          state={state}
          enclosure={
            state.looking && proposed.data?.scene ? lookedAt(enclosure, proposed.data.scene) : enclosure
          }
          canEdit={canEdit && !state.looking}
        />
      </Box>
      <RouteTable
        routes={enclosure.routes ?? []}
        routed={enclosure.routed ?? 'No panel wires routed'}
        wires={state.wires}
        onWire={state.chooseWire}
      />
    </Bench>
  )
}

/** Whether a surface is seen on which things can be put. */
const isPlan = (look: Look) => look !== 'space' && look !== 'door-back'

interface ListProps {
  view: CabinetView
  state: State
  canEdit: boolean
  choose: (id: string) => void
}

/** The enclosures, and what waits to be placed. */
function List({ view, state, canEdit, choose }: ListProps) {
  const { enclosure, enclosures, tray } = view
  const { tool, setTool, look } = state
  return (
    <>
      {enclosure && <Enclosures all={enclosures} chosen={enclosure.id} canEdit={canEdit} choose={choose} />}
      <Tray
        waiting={tray}
        laidOut={enclosure !== null}
        surface={state.surface}
        chosen={held(tool, 'put')?.ids ?? []}
        canEdit={canEdit && enclosure !== null && isPlan(look)}
        gap={state.gap}
        onGap={state.setGap}
        push={state.push}
        onPush={state.setPush}
        onCarry={state.setCarried}
        onChoose={(ids) => setTool(ids.length ? { name: 'put', ids } : CHOOSE)}
        onPlan={(part) => setTool({ name: 'plan', part })}
      />
      {enclosure && <LayoutStamps stamps={view.stamps} state={state} canEdit={canEdit && isPlan(look)} />}
    </>
  )
}

/** The enclosure as it would be: the proposed plate, and nothing of what lies over the one that is there. */
function lookedAt(enclosure: EnclosureValue, scene: NonNullable<EnclosureValue['scene']>): EnclosureValue {
  return { ...enclosure, scene, routes: [], gaps: [], eyelets: [] }
}

interface PictureProps {
  state: State
  enclosure: NonNullable<CabinetView['enclosure']>
  canEdit: boolean
}

/** The enclosure as it is looked at: a plan of a surface, or in space. */
function Picture({ state, enclosure, canEdit }: PictureProps) {
  if (enclosure.problem) return <Empty>{enclosure.problem}</Empty>
  if (state.look !== 'space')
    return (
      <Plan
        {...{ state, enclosure, canEdit }}
        onPut={(x, y, dropped) => void put(state, enclosure.id, x, y, dropped)}
      />
    )
  return (
    <Space
      enclosure={enclosure}
      selected={state.selected}
      wires={state.wires}
      onSelect={(id, add) => state.select(id ? [id] : [], add)}
    />
  )
}
