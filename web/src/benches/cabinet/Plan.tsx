/** The plan of a surface: what stands on it, the ways of chosen wires, gaps, and what the tool in hand draws. */
import Box from '@mui/material/Box'
import { useRef, type DragEvent } from 'react'
import { Drawing } from '../../kit/Drawing'
import { Eyelets, Gaps, LaneGhost, RouteView, RunGhost, Shifted } from './PlanLayers'
import { usePointer } from './usePointer'
import type { EnclosureValue } from './shapes'
import type { State } from './useCabinet'

export interface PlanProps {
  state: State
  enclosure: EnclosureValue
  canEdit: boolean
  onPut: (x: number, y: number, dropped?: string[]) => void
}

/** The wires whose ways are shown: those chosen, and those of chosen devices, ducts and lanes. */
function shownRoutes({ state, enclosure }: PlanProps) {
  const { selected, wires } = state
  const devices = new Set(
    enclosure.scene?.items.filter((i) => selected.has(i.id) && i.facts.device).map((i) => i.facts.device),
  )
  return (enclosure.routes ?? []).filter(
    (r) =>
      wires.includes(r.key) ||
      r.ends.some((id) => devices.has(id)) ||
      r.lanes.some((id) => selected.has(id)) ||
      r.through.some(([name]) => devices.has(name.split('/')[0])),
  )
}

/** Ways, gaps and eyelets over the plan; turned round where the door is seen from behind. */
function Over(props: PlanProps) {
  const { state, enclosure } = props
  const { surface, wires, look, tool } = state
  const here = { surface, margin: enclosure.margin }
  const width = enclosure.scene?.width ?? 0
  return (
    <g transform={look === 'door-back' ? `translate(${width} 0) scale(-1 1)` : undefined}>
      {shownRoutes(props).map((r) => (
        <RouteView key={r.key} route={r} enclosure={enclosure.id} strong={wires.includes(r.key)} {...here} />
      ))}
      <Gaps gaps={enclosure.gaps ?? []} {...here} />
      <Eyelets eyelets={enclosure.eyelets ?? []} open={tool.name === 'through'} {...here} />
    </g>
  )
}

export function Plan(props: PlanProps) {
  const { state, enclosure, onPut } = props
  const holder = useRef<HTMLDivElement>(null)
  const m = enclosure.margin
  const pointer = usePointer(props)
  const scene = enclosure.scene
  if (!scene) return null
  const back = state.look === 'door-back'
  /** What is dragged from the tray lands where it is let go. */
  const dropped = (event: DragEvent) => {
    event.preventDefault()
    const ids = event.dataTransfer.getData('text/plain').split(' ').filter(Boolean)
    const svg = holder.current?.querySelector('svg[data-view]')
    if (!svg || !ids.length || back) return
    const [vx, vy, scale] = svg.getAttribute('data-view')!.split(',').map(Number) as [number, number, number]
    const box = svg.getBoundingClientRect()
    onPut(vx + (event.clientX - box.left) / scale - m, vy + (event.clientY - box.top) / scale - m, ids)
  }
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
        cursor: state.tool.name === 'choose' ? 'default' : 'crosshair',
      }}
    >
      <Drawing
        scene={scene}
        name={`${enclosure.id}:${state.look}:${scene.width}:${scene.height}`}
        selected={state.selected}
        onDown={pointer.down}
        onMove={pointer.move}
        onUp={pointer.up}
      >
        <Over {...props} />
        {pointer.run && (
          <RunGhost run={pointer.run} margin={m} width={state.tool.name === 'duct' ? 24 : 12} />
        )}
        {pointer.line.length > 0 && <LaneGhost points={pointer.line} margin={m} />}
        {pointer.shift && (
          <Shifted items={scene.items.filter((i) => state.selected.has(i.id))} by={pointer.shift} />
        )}
      </Drawing>
    </Box>
  )
}
