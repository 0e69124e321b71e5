/** What lies over the plan: ways of wires, gaps between lanes, eyelets, and ghosts of what is drawn or moved. */
import type { Item } from '../../scene/item'
import { COPPER, SNAG, TEAL } from '../../theme/theme'
import { wirePaint } from '../../theme/paints'
import type { EnclosureValue, Way } from './shapes'

export type P = [number, number]
export interface Run {
  start: P
  end: P
}

const lineOf = (points: readonly (readonly number[])[], m: number) =>
  points.map(([x, y]) => `${x! + m},${y! + m}`).join(' ')

interface WayProps {
  way: Way
  enclosure: string
  surface: string
  margin: number
  strong: boolean
}

export function WayView({ way, enclosure, surface, margin, strong }: WayProps) {
  const legs = way.legs.filter((l) => l.surface === surface && l.enclosure_id === enclosure)
  if (!legs.length) return null
  const paint = { fill: 'none', strokeLinejoin: 'round', strokeLinecap: 'round' } as const
  return (
    <g data-testid={strong ? 'route' : undefined} pointerEvents="none">
      {legs.map((leg, i) => (
        <polyline
          key={i}
          points={lineOf(leg.points, margin)}
          stroke={strong ? COPPER : TEAL}
          strokeWidth={strong ? 6 : 1.6}
          strokeDasharray={leg.kind === 'free' ? (strong ? undefined : '5 3') : undefined}
          opacity={strong ? 1 : 0.6}
          {...paint}
        />
      ))}
      {strong &&
        legs.map((leg, i) => (
          <polyline
            key={i}
            points={lineOf(leg.points, margin)}
            stroke={wirePaint(way.colour).first}
            strokeWidth={2.4}
            {...paint}
          />
        ))}
    </g>
  )
}

interface GapsProps {
  gaps: NonNullable<EnclosureValue['gaps']>
  surface: string
  margin: number
}

export function Gaps({ gaps, surface, margin }: GapsProps) {
  return (
    <>
      {gaps
        .filter((g) => g.surface === surface)
        .map((g, i) => (
          <g key={i} data-testid="gap">
            <title>{g.words}</title>
            <polyline
              points={lineOf(g.points, margin)}
              stroke={SNAG}
              strokeWidth={4}
              strokeDasharray="8 5"
              fill="none"
            />
          </g>
        ))}
    </>
  )
}

interface EyeletsProps {
  eyelets: NonNullable<EnclosureValue['eyelets']>
  surface: string
  margin: number
  /** Wires are being led through. */
  open: boolean
}

/** Where wires can be led through devices; what no lane reaches is red. */
export function Eyelets({ eyelets, surface, margin, open }: EyeletsProps) {
  return (
    <g pointerEvents="none">
      {eyelets
        .filter((e) => e.surface === surface)
        .map((e) => (
          <polyline
            key={e.name}
            points={lineOf(e.points, margin)}
            stroke={e.gap ? SNAG : COPPER}
            strokeWidth={open ? 9 : 3}
            strokeLinecap="round"
            opacity={open ? 0.75 : 0.45}
          >
            <title>{e.gap || e.words}</title>
          </polyline>
        ))}
    </g>
  )
}

export function RunGhost({ run, margin, width }: { run: Run; margin: number; width: number }) {
  return (
    <polyline
      points={lineOf([run.start, run.end], margin)}
      stroke={COPPER}
      strokeWidth={width}
      opacity={0.5}
      fill="none"
    />
  )
}

export function LaneGhost({ points, margin }: { points: P[]; margin: number }) {
  return (
    <polyline
      data-testid="lane-ghost"
      points={lineOf(points, margin)}
      stroke={COPPER}
      strokeWidth={4}
      strokeDasharray="10 5"
      fill="none"
      pointerEvents="none"
    />
  )
}

export function Shifted({ items, by }: { items: Item[]; by: P }) {
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
