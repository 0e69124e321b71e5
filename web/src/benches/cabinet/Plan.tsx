/** The plan of a surface: what stands on it, the ways of chosen wires, gaps, and what the tool in hand draws. */
import { held } from '../../kit/held'
import { momentsOf } from './planTools'
import Box from '@mui/material/Box'
import { useRef, type DragEvent } from 'react'
import type { AnyEdit } from '../../api/client'
import { Drawing } from '../../kit/Drawing'
import { Eyelets, Gaps, LaneGhost, RunGhost, Shifted, WayView } from './PlanLayers'
import { Labels } from './Labels'
import { LandingGhost } from './LandingGhost'
import { usePointer, type PlanProps } from './usePointer'
import { SNAG } from '../../theme/theme'
import { putEdit } from './useCabinet'
import { useWays } from './useWays'

/** Ways, gaps and eyelets over the plan; turned round where the door is seen from behind. */
function Over(props: PlanProps) {
  const { state, enclosure } = props
  const { surface, wires, look, tool } = state
  const here = { surface, margin: enclosure.margin }
  const width = enclosure.scene?.width ?? 0
  const ways = useWays(enclosure, enclosure.routes?.length ? [...state.selected, ...wires] : [])
  return (
    <g transform={look === 'door-back' ? `translate(${width} 0) scale(-1 1)` : undefined}>
      {ways.map((way) => (
        <WayView
          key={way.key}
          way={way}
          enclosure={enclosure.id}
          strong={wires.includes(way.key)}
          {...here}
        />
      ))}
      <Gaps gaps={enclosure.gaps ?? []} {...here} />
      <Eyelets eyelets={enclosure.eyelets ?? []} open={momentsOf(tool).opens ?? false} {...here} />
    </g>
  )
}

/** What is dragged from the tray shows where it would land, and lands where it is let go. */
function useDrop({ state, enclosure, canEdit, onPut }: PlanProps, ask: (edit: AnyEdit | null) => void) {
  const holder = useRef<HTMLDivElement>(null)
  const m = enclosure.margin
  const under = (event: DragEvent): [number, number] | null => {
    const svg = holder.current?.querySelector('svg[data-view]')
    if (!svg || state.look === 'door-back' || !canEdit) return null
    const [vx, vy, scale] = svg.getAttribute('data-view')!.split(',').map(Number) as [number, number, number]
    const box = svg.getBoundingClientRect()
    return [vx + (event.clientX - box.left) / scale - m, vy + (event.clientY - box.top) / scale - m]
  }
  const over = (event: DragEvent) => {
    event.preventDefault()
    const at = under(event)
    const near = (v: number) => Math.round(v / 5) * 5
    if (at && state.carried.length) ask(putEdit(state, enclosure.id, near(at[0]), near(at[1]), state.carried))
  }
  const dropped = (event: DragEvent) => {
    event.preventDefault()
    const ids = event.dataTransfer.getData('text/plain').split(' ').filter(Boolean)
    const at = under(event)
    ask(null)
    if (at && ids.length) onPut(at[0], at[1], ids)
  }
  return { ref: holder, onDragOver: over, onDragLeave: () => ask(null), onDrop: dropped }
}

/** Why what is held cannot land here. */
function Problem({ words }: { words: string }) {
  return (
    <Box
      role="status"
      sx={{
        ...{ position: 'absolute', left: 12, bottom: 12, maxWidth: '80%', pointerEvents: 'none' },
        ...{
          bgcolor: '#FFF6EA',
          border: `1px solid ${SNAG}`,
          borderRadius: 1,
          px: 1,
          py: 0.5,
          fontSize: 12.5,
        },
      }}
    >
      {words}
    </Box>
  )
}

export function Plan(props: PlanProps) {
  const { state, enclosure } = props
  const m = enclosure.margin
  const pointer = usePointer(props)
  const drop = useDrop(props, pointer.ask)
  const scene = enclosure.scene
  if (!scene) return null
  return (
    <Box
      {...drop}
      data-testid="plan"
      sx={{
        position: 'relative',
        width: '100%',
        height: '100%',
        bgcolor: '#EAE4D6',
        cursor: held(state.tool, 'choose') ? 'default' : 'crosshair',
      }}
    >
      <Drawing
        scene={scene}
        name={`${enclosure.id}:${state.look}:${scene.width}:${scene.height}`}
        selected={state.selected}
        overlay={(place) => <Labels items={scene.items} selected={state.selected} place={place} />}
        onDown={pointer.down}
        onMove={pointer.move}
        onUp={pointer.up}
      >
        <Over {...props} />
        {pointer.run && (
          <RunGhost run={pointer.run} margin={m} width={momentsOf(state.tool).run?.(state.tool).width ?? 0} />
        )}
        {pointer.line.length > 0 && <LaneGhost points={pointer.line} margin={m} />}
        {pointer.landing && <LandingGhost landing={pointer.landing} margin={m} />}
        {pointer.shift && !pointer.landing?.things.length && (
          <Shifted items={scene.items.filter((i) => state.selected.has(i.id))} by={pointer.shift} />
        )}
      </Drawing>
      {pointer.landing?.problem && <Problem words={pointer.landing.problem} />}
    </Box>
  )
}
