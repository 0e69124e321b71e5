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

export function CabinetBench({ canEdit }: BenchProps) {
  const projectId = useProject((s) => s.projectId)
  const { send } = usePick('send')
  const [search, setSearch] = useSearchParams()
  const [look, setLook] = useState<Look>('plate')
  const [tool, setTool] = useState<PlanTool>({ name: 'choose' })
  const [selected, setSelected] = useState<Set<string>>(new Set())
  const [route, setRoute] = useState('')
  const [gap, setGap] = useState('0')
  const [parts, setParts] = useState({ rail: '', duct: '' })
  const surface: SurfaceName = look === 'door' ? 'door' : 'plate'
  const wanted = search.get('enclosure') ?? ''
  const view = useBench<CabinetView>(
    'cabinet',
    () =>
      got(
        client.GET('/api/projects/{project_id}/cabinet', {
          params: { path: { project_id: projectId }, query: { enclosure_id: wanted, surface } },
        }),
      ),
    [wanted, surface],
  )
  const draw = (what: 'rail' | 'duct') =>
    setTool(tool.name === what ? { name: 'choose' } : { name: what, part: parts[what] })
  useCommands(
    'Cabinet',
    cabinetCommands({
      show: setLook,
      draw,
      choose: () => {
        setTool({ name: 'choose' })
        setSelected(new Set())
        setRoute('')
      },
      remove: () => {
        void send({ kind: 'remove-from-layout', ids: [...selected] })
        setSelected(new Set())
      },
      some: selected.size > 0,
      there: !!view.data?.enclosure,
      has: { rail: !!parts.rail, duct: !!parts.duct },
    }),
  )
  if (!view.data) return <Empty>Reading the layout…</Empty>
  const { enclosure, enclosures, tray } = view.data
  const select = (ids: string[], add: boolean) => {
    setRoute('')
    setSelected(new Set(add ? [...selected, ...ids] : ids))
  }
  const put = async (ids: string[], x: number, y: number) => {
    if (!enclosure) return
    const answer = await send({
      kind: 'place-devices',
      enclosure_id: enclosure.id,
      surface,
      device_ids: ids,
      x: Math.round(x),
      y: Math.round(y),
      gap_mm: Math.max(0, Number(gap.replace(',', '.')) || 0),
    })
    if (answer) {
      setTool({ name: 'choose' })
      setSelected(new Set(answer.placed))
    }
  }
  return (
    <Bench
      name="Cabinet"
      list={
        <>
          {enclosures.length > 1 && (
            <>
              <Heading>Enclosures</Heading>
              {enclosures.map((e) => (
                <Choice
                  key={e.id}
                  chosen={e.id === enclosure?.id}
                  onClick={() => setSearch({ enclosure: e.id })}
                >
                  {e.tag} {e.text}
                </Choice>
              ))}
            </>
          )}
          <Tray
            waiting={tray}
            laidOut={enclosure !== null}
            surface={surface}
            chosen={tool.name === 'put' ? tool.ids : []}
            canEdit={canEdit && enclosure !== null && look !== 'space'}
            gap={gap}
            onGap={setGap}
            onChoose={(ids) => setTool(ids.length ? { name: 'put', ids } : { name: 'choose' })}
          />
        </>
      }
      inspector={
        enclosure && (
          <CabinetPanel
            enclosure={enclosure}
            others={enclosures.filter((e) => e.id !== enclosure.id)}
            selected={selected}
            route={route}
            canEdit={canEdit}
            onSelect={select}
          />
        )
      }
    >
      {!enclosure ? (
        <NewEnclosure canEdit={canEdit} />
      ) : (
        <>
          <Stack
            direction="row"
            spacing={1}
            sx={{
              px: 1.5,
              py: 0.5,
              alignItems: 'center',
              borderBottom: `1px solid ${LINE}`,
              bgcolor: '#FBF8F1',
            }}
          >
            <ToggleButtonGroup
              size="small"
              exclusive
              value={look}
              onChange={(_, v: Look | null) => {
                if (v) setLook(v)
                setTool({ name: 'choose' })
              }}
            >
              <ToggleButton value="plate">Plate</ToggleButton>
              <ToggleButton value="door">Door</ToggleButton>
              <ToggleButton value="space">Space</ToggleButton>
            </ToggleButtonGroup>
            {canEdit && look === 'plate' && (
              <>
                {(['rail', 'duct'] as const).map((what) => (
                  <Stack key={what} direction="row" spacing={0.5} sx={{ alignItems: 'center' }}>
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
                ))}
              </>
            )}
            <Box sx={{ flex: 1, fontSize: 12, color: QUIET }}>
              {tool.name === 'put' &&
                `Click where ${tool.ids.length > 1 ? `the ${tool.ids.length} go` : 'it goes'}.`}
              {(tool.name === 'rail' || tool.name === 'duct') && 'Drag from end to end; Escape ends.'}
            </Box>
          </Stack>
          <Box sx={{ flex: 1, minHeight: 0 }}>
            {enclosure.problem && <Empty>{enclosure.problem}</Empty>}
            {!enclosure.problem && look === 'space' && (
              <Suspense fallback={<CircularProgress sx={{ m: 4 }} />}>
                <Space
                  enclosure={enclosure}
                  selected={selected}
                  route={route}
                  onSelect={(id, add) => select(id ? [id] : [], add)}
                />
              </Suspense>
            )}
            {!enclosure.problem && look !== 'space' && (
              <Plan
                enclosure={enclosure}
                surface={surface}
                tool={tool}
                selected={selected}
                route={route}
                canEdit={canEdit}
                onSelect={select}
                onPut={(ids, x, y) => void put(ids, x, y)}
              />
            )}
          </Box>
          <RouteTable routes={enclosure.routes ?? []} route={route} onRoute={setRoute} />
        </>
      )}
    </Bench>
  )
}
