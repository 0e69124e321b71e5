/** The Cabinet bench: tray, plan of plate and door, the enclosure in space, routes with their lengths. */
import { useCommands } from '../../project/commands'
import { cabinetCommands } from './commands'
import type { BenchProps } from '../../project/bench'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import CircularProgress from '@mui/material/CircularProgress'
import Stack from '@mui/material/Stack'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { lazy, Suspense, useState } from 'react'
import { useSearchParams } from 'react-router'
import { client, got } from '../../api/client'
import { LINE, QUIET } from '../../theme/theme'
import { Bench, Choice, Empty, Heading } from '../../kit/Bench'
import { PartChoice } from '../../project/PartChoice'
import { useBench } from '../../project/useBench'
import { useProject, usePick } from '../../project/store'
import { CabinetPanel } from './CabinetPanel'
import { NewEnclosure } from './NewEnclosure'
import { Plan, type PlanTool } from './Plan'
import { RouteTable } from './RouteTable'
import { Tray } from './Tray'
import type { CabinetView, SurfaceName } from './shapes'

// three.js is only fetched when somebody looks at the picture in space.
const Space = lazy(() => import('./Space'))
type Look = SurfaceName | 'space'

const CHOOSE: PlanTool = { name: 'choose' }
const BAR = {
  px: 1.5,
  py: 0.5,
  alignItems: 'center',
  borderBottom: `1px solid ${LINE}`,
  bgcolor: '#FBF8F1',
} as const

function useLayout(projectId: string, wanted: string, surface: SurfaceName) {
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

/** What the bench holds: how one looks, the tool in hand, what is chosen, parts of rails and ducts. */
function useCabinet() {
  const [look, setLook] = useState<Look>('plate')
  const [tool, setTool] = useState<PlanTool>(CHOOSE)
  const [selected, setSelected] = useState<Set<string>>(new Set())
  const [route, setRoute] = useState('')
  const [gap, setGap] = useState('0')
  const [parts, setParts] = useState({ rail: '', duct: '' })
  const surface: SurfaceName = look === 'door' ? 'door' : 'plate'
  const draw = (what: 'rail' | 'duct') =>
    setTool(tool.name === what ? CHOOSE : { name: what, part: parts[what] })
  const select = (ids: string[], add: boolean) => {
    setRoute('')
    setSelected(new Set(add ? [...selected, ...ids] : ids))
  }
  return {
    ...{ look, setLook, tool, setTool, selected, setSelected, route, setRoute, gap, setGap },
    ...{ parts, setParts, surface, draw, select },
  }
}

type State = ReturnType<typeof useCabinet>

/** Put devices down where the pointer is; they are chosen then. */
async function put(state: State, enclosure: string, ids: string[], x: number, y: number) {
  const answer = await useProject.getState().send({
    kind: 'place-devices',
    enclosure_id: enclosure,
    surface: state.surface,
    device_ids: ids,
    x: Math.round(x),
    y: Math.round(y),
    gap_mm: Math.max(0, Number(state.gap.replace(',', '.')) || 0),
  })
  if (!answer) return
  state.setTool(CHOOSE)
  state.setSelected(new Set(answer.placed))
}

function useCabinetCommands(state: State, there: boolean) {
  const { send } = usePick('send')
  useCommands(
    'Cabinet',
    cabinetCommands({
      show: state.setLook,
      draw: state.draw,
      choose: () => {
        state.setTool(CHOOSE)
        state.select([], false)
      },
      remove: () => {
        void send({ kind: 'remove-from-layout', ids: [...state.selected] })
        state.setSelected(new Set())
      },
      some: state.selected.size > 0,
      there,
      has: { rail: !!state.parts.rail, duct: !!state.parts.duct },
    }),
  )
}

export function CabinetBench({ canEdit }: BenchProps) {
  const { projectId } = usePick('projectId')
  const [search, setSearch] = useSearchParams()
  const state = useCabinet()
  const { tool, setTool, selected, look, route } = state
  const view = useLayout(projectId, search.get('enclosure') ?? '', state.surface)
  useCabinetCommands(state, view?.enclosure != null)
  if (!view) return <Empty>Reading the layout…</Empty>
  const { enclosure, enclosures, tray } = view
  const list = (
    <>
      {enclosures.length > 1 && (
        <Enclosures
          all={enclosures}
          chosen={enclosure?.id ?? ''}
          choose={(id) => setSearch({ enclosure: id })}
        />
      )}
      <Tray
        waiting={tray}
        laidOut={enclosure !== null}
        surface={state.surface}
        chosen={tool.name === 'put' ? tool.ids : []}
        canEdit={canEdit && enclosure !== null && look !== 'space'}
        gap={state.gap}
        onGap={state.setGap}
        onChoose={(ids) => setTool(ids.length ? { name: 'put', ids } : CHOOSE)}
      />
    </>
  )
  if (!enclosure)
    return (
      <Bench name="Cabinet" list={list}>
        <NewEnclosure canEdit={canEdit} />
      </Bench>
    )
  const others = enclosures.filter((e) => e.id !== enclosure.id)
  const panel = { enclosure, others, selected, route, canEdit, onSelect: state.select }
  return (
    <Bench name="Cabinet" list={list} inspector={<CabinetPanel {...panel} />}>
      <Bar state={state} canEdit={canEdit} />
      <Box sx={{ flex: 1, minHeight: 0 }}>
        <Picture state={state} enclosure={enclosure} canEdit={canEdit} />
      </Box>
      <RouteTable routes={enclosure.routes ?? []} route={route} onRoute={state.setRoute} />
    </Bench>
  )
}

interface EnclosuresProps {
  all: CabinetView['enclosures']
  chosen: string
  choose: (id: string) => void
}

function Enclosures({ all, chosen, choose }: EnclosuresProps) {
  return (
    <>
      <Heading>Enclosures</Heading>
      {all.map((e) => (
        <Choice key={e.id} chosen={e.id === chosen} onClick={() => choose(e.id)}>
          {e.tag} {e.text}
        </Choice>
      ))}
    </>
  )
}

/** The bar above the plan: which side is seen, what is drawn, what the tool in hand waits for. */
function Bar({ state, canEdit }: { state: State; canEdit: boolean }) {
  const { look, tool } = state
  const show = (next: Look | null) => {
    if (next) state.setLook(next)
    state.setTool(CHOOSE)
  }
  return (
    <Stack direction="row" spacing={1} sx={BAR}>
      <ToggleButtonGroup size="small" exclusive value={look} onChange={(_, v: Look | null) => show(v)}>
        <ToggleButton value="plate">Plate</ToggleButton>
        <ToggleButton value="door">Door</ToggleButton>
        <ToggleButton value="space">Space</ToggleButton>
      </ToggleButtonGroup>
      {canEdit && look === 'plate' && (
        <>
          <Runs what="rail" state={state} />
          <Runs what="duct" state={state} />
        </>
      )}
      <Box sx={{ flex: 1, fontSize: 12, color: QUIET }}>
        {tool.name === 'put' &&
          `Click where ${tool.ids.length > 1 ? `the ${tool.ids.length} go` : 'it goes'}.`}
        {(tool.name === 'rail' || tool.name === 'duct') && 'Drag from end to end; Escape ends.'}
      </Box>
    </Stack>
  )
}

/** The part of the rails or ducts that are drawn next, and drawing them. */
function Runs({ what, state }: { what: 'rail' | 'duct'; state: State }) {
  const { parts, setParts, tool, setTool, draw } = state
  return (
    <Stack direction="row" spacing={0.5} sx={{ alignItems: 'center' }}>
      <Box sx={{ width: 132 }}>
        <PartChoice
          label={what === 'rail' ? 'Rail' : 'Duct'}
          partClass={what}
          value={parts[what]}
          onChoose={(p) => {
            setParts({ ...parts, [what]: p.id })
            setTool({ name: what, part: p.id })
          }}
        />
      </Box>
      <Button
        variant={tool.name === what ? 'contained' : 'outlined'}
        disabled={!parts[what]}
        onClick={() => draw(what)}
      >
        Draw {what}s
      </Button>
    </Stack>
  )
}

interface PictureProps {
  state: State
  enclosure: NonNullable<CabinetView['enclosure']>
  canEdit: boolean
}

/** The enclosure as it is looked at: a plan of a side, or in space. */
function Picture({ state, enclosure, canEdit }: PictureProps) {
  const { look, surface, tool, selected, route, select } = state
  if (enclosure.problem) return <Empty>{enclosure.problem}</Empty>
  const shown = { enclosure, selected, route }
  if (look !== 'space')
    return (
      <Plan
        {...shown}
        {...{ surface, tool, canEdit, onSelect: select }}
        onPut={(ids, x, y) => void put(state, enclosure.id, ids, x, y)}
      />
    )
  return (
    <Suspense fallback={<CircularProgress sx={{ m: 4 }} />}>
      <Space {...shown} onSelect={(id, add) => select(id ? [id] : [], add)} />
    </Suspense>
  )
}
