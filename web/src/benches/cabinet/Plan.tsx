/** The plan of a plate or door: choosing, moving, drawing rails and ducts, putting down what comes from the tray. */
import Box from '@mui/material/Box'
import { useRef, useState, type DragEvent } from 'react'
import type { Item } from '../../scene/item'
import { COPPER, TEAL } from '../../theme/theme'
import { Drawing, itemUnder } from '../../kit/Drawing'
import type { At } from '../../scene/Surface'
import { wirePaint } from '../../theme/paints'
import { useProject } from '../../project/store'
import type { EnclosureValue, Route, SurfaceName } from './shapes'

export type PlanTool =
  { name: 'choose' } | { name: 'rail' | 'duct'; part: string } | { name: 'put'; ids: string[] }

interface Props {
  enclosure: EnclosureValue
  surface: SurfaceName
  tool: PlanTool
  selected: Set<string>
  route: string
  canEdit: boolean
  onSelect: (ids: string[], add: boolean) => void
  onPut: (ids: string[], x: number, y: number) => void
}

const KINDS = new Set(['placing', 'rail', 'duct'])
const STEP = 5
const snap = (value: number) => Math.round(value / STEP) * STEP
type P = [number, number]

interface Run {
  start: P
  end: P
}

/** What the pointer does on the plan: it puts, draws rails and ducts, chooses and moves. */
function usePointer({ enclosure, tool, selected, canEdit, onSelect, onPut }: Props) {
  const pressed = useRef<{ at: P; id: string } | null>(null)
  const [shift, setShift] = useState<P | null>(null)
  const [run, setRun] = useState<Run | null>(null)
  const m = enclosure.margin
  const here = (at: At): P => [at.x - m, at.y - m]

  const down = (at: At) => {
    if (tool.name === 'put') return onPut(tool.ids, ...here(at))
    if (tool.name === 'rail' || tool.name === 'duct') {
      const [x, y] = here(at)
      return setRun({ start: [snap(x), snap(y)], end: [snap(x), snap(y)] })
    }
    const id = itemUnder(at, KINDS)
    pressed.current = { at: here(at), id }
    const more = at.event.shiftKey || at.event.ctrlKey
    if (id && !selected.has(id)) onSelect([id], more)
    else if (!id && !more) onSelect([], false)
  }
  const move = (at: At) => {
    const [x, y] = here(at)
    if (run) {
      const [sx, sy] = run.start
      const end: P = Math.abs(x - sx) >= Math.abs(y - sy) ? [snap(x), sy] : [sx, snap(y)]
      setRun({ ...run, end })
    } else if (pressed.current?.id && canEdit) {
      const [dx, dy] = [x - pressed.current.at[0], y - pressed.current.at[1]]
      if (shift || Math.hypot(dx, dy) > 4) setShift([snap(dx), snap(dy)])
    }
  }
  const up = () => {
    const { send } = useProject.getState()
    if (run && (tool.name === 'rail' || tool.name === 'duct')) {
      const [x1, y1] = run.start
      const [x2, y2] = run.end
      if (x1 !== x2 || y1 !== y2)
        void send({
          kind: 'draw-run',
          what: tool.name,
          enclosure_id: enclosure.id,
          part_id: tool.part,
          x1,
          y1,
          x2,
          y2,
        })
    }
    if (shift && (shift[0] || shift[1])) {
      void send({ kind: 'move-in-layout', ids: [...selected], dx: shift[0], dy: shift[1] })
    }
    pressed.current = null
    setRun(null)
    setShift(null)
  }
  return { shift, run, down, move, up }
}

export function Plan(props: Props) {
  const { enclosure, surface, tool, selected, route, onPut } = props
  const holder = useRef<HTMLDivElement>(null)
  const m = enclosure.margin
  const { shift, run, down, move, up } = usePointer(props)
  const scene = enclosure.scene
  if (!scene) return null
  /** What is dragged from the tray lands where it is let go. */
  const dropped = (event: DragEvent) => {
    event.preventDefault()
    const ids = event.dataTransfer.getData('text/plain').split(' ').filter(Boolean)
    const svg = holder.current?.querySelector('svg[data-view]')
    if (!svg || !ids.length) return
    const [vx, vy, scale] = svg.getAttribute('data-view')!.split(',').map(Number) as [number, number, number]
    const box = svg.getBoundingClientRect()
    onPut(ids, vx + (event.clientX - box.left) / scale - m, vy + (event.clientY - box.top) / scale - m)
  }
  const shown = (enclosure.routes ?? []).filter(
    (r) =>
      r.key === route ||
      r.ends.some((id) => scene.items.some((i) => selected.has(i.id) && i.facts.device === id)),
  )
  return (
    <Box
      ref={holder}
      data-testid="plan"
      onDragOver={(e) => e.preventDefault()}
      onDrop={dropped}
      sx={{
        width: '100%',
        height: '100%',
        bgcolor: '#EAE4D6',
        cursor: tool.name === 'choose' ? 'default' : 'crosshair',
      }}
    >
      <Drawing
        scene={scene}
        name={`${enclosure.id}:${scene.width}:${scene.height}`}
        selected={selected}
        onDown={down}
        onMove={move}
        onUp={up}
      >
        {shown.map((r) => (
          <RouteView key={r.key} route={r} surface={surface} margin={m} strong={r.key === route} />
        ))}
        {run && <RunGhost run={run} margin={m} width={tool.name === 'duct' ? 24 : 12} />}
        {shift && <Shifted items={scene.items.filter((i) => selected.has(i.id))} by={shift} />}
      </Drawing>
    </Box>
  )
}

interface RouteProps {
  route: Route
  surface: SurfaceName
  margin: number
  strong: boolean
}

function RouteView({ route, surface, margin, strong }: RouteProps) {
  const points = surface === 'plate' ? route.plate : route.door
  if (!points.length) return null
  return (
    <g data-testid={strong ? 'route' : undefined} pointerEvents="none">
      <polyline
        points={points.map(([x, y]) => `${x + margin},${y + margin}`).join(' ')}
        fill="none"
        stroke={strong ? COPPER : TEAL}
        strokeWidth={strong ? 6 : 1.6}
        strokeLinejoin="round"
        opacity={strong ? 1 : 0.6}
      />
      {strong && (
        <polyline
          points={points.map(([x, y]) => `${x + margin},${y + margin}`).join(' ')}
          fill="none"
          stroke={wirePaint(route.colour).first}
          strokeWidth={2.4}
        />
      )}
    </g>
  )
}

interface RunGhostProps {
  run: Run
  margin: number
  width: number
}

function RunGhost({ run, margin, width }: RunGhostProps) {
  return (
    <line
      x1={run.start[0] + margin}
      y1={run.start[1] + margin}
      x2={run.end[0] + margin}
      y2={run.end[1] + margin}
      stroke={COPPER}
      strokeWidth={width}
      opacity={0.5}
    />
  )
}

interface ShiftedProps {
  items: Item[]
  by: P
}

function Shifted({ items, by }: ShiftedProps) {
  return (
    <>
      {items.map((i) => (
        <rect
          key={i.id}
          x={i.box[0] + by[0]}
          y={i.box[1] + by[1]}
          width={i.box[2] - i.box[0]}
          height={i.box[3] - i.box[1]}
          fill="rgba(180,98,45,0.15)"
          stroke={COPPER}
          strokeWidth={1.5}
        />
      ))}
    </>
  )
}
