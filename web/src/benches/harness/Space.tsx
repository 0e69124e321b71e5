/** The harness in space: bundles as tubes along their paths, connectors, branchings and clips at their places. */
import { Canvas, type ThreeEvent } from '@react-three/fiber'
import { useMemo, useState } from 'react'
import { CatmullRomCurve3, CurvePath, LineCurve3, Vector3 } from 'three'
import { Empty } from '../../kit/Bench'
import { Turning } from '../../project/Turning'
import { COPPER, INK, TEAL } from '../../theme/theme'
import type { HarnessNode, HarnessValue, Segment } from './shapes'

interface Props {
  harness: HarnessValue
  selected: string
  onSelect: (id: string) => void
}

/** One scene unit is 100 mm. */
const SCALE = 0.01
/** The thinnest tube that is still seen and pointed at, mm. */
const THINNEST_MM = 3
const BALL_MM = 6

const able = () => document.createElement('canvas').getContext('webgl2') !== null
const spot = (at: readonly number[]) => new Vector3(at[0]! * SCALE, at[2]! * SCALE, -at[1]! * SCALE)

/** The points of a segment in space: its path, or straight between nodes that have places. */
function pointsOf(segment: Segment, nodes: HarnessNode[]): Vector3[] {
  if (segment.points.length) return segment.points.map(spot)
  const ends = [segment.a, segment.b].map((id) => nodes.find((n) => n.id === id)?.at ?? [])
  return ends.every((at) => at.length === 3) ? ends.map(spot) : []
}

export function Space({ harness, selected, onSelect }: Props) {
  const [can] = useState(able)
  const nodes = useMemo(() => harness.nodes.filter((n) => n.at.length === 3), [harness.nodes])
  const [middle, reach] = useMemo(() => about(nodes.map((n) => spot(n.at))), [nodes])
  if (!can)
    return <Empty>This browser shows no pictures in space (WebGL is off). The board shows the same.</Empty>
  if (!nodes.length)
    return (
      <Empty>
        Nothing of {harness.code} has a place in space yet. Choose a node and type where it is, or bring in
        what a space model says.
      </Empty>
    )
  const chosen = harness.nodes.find((n) => n.id === selected)
  return (
    <div
      data-testid="harness-space"
      data-selected={selected}
      style={{ position: 'relative', width: '100%', height: '100%' }}
    >
      <Canvas
        camera={{ position: [reach * 0.4, reach * 0.6, reach * 1.5], fov: 35 }}
        onPointerMissed={() => onSelect('')}
        style={{ background: '#EAE4D6' }}
      >
        <ambientLight intensity={1.8} />
        <directionalLight position={[4, 8, 10]} intensity={1.2} />
        <Turning />
        <group position={middle.clone().negate()}>
          {harness.segments.map((s) => (
            <Tube
              key={s.id}
              points={pointsOf(s, harness.nodes)}
              thick={Math.max(s.diameter_mm, THINNEST_MM)}
              colour={s.id === selected ? COPPER : INK}
              onChoose={() => onSelect(s.id)}
            />
          ))}
          {nodes.flatMap((n) =>
            n.strands.map((s) => (
              <Tube
                key={`${n.id} ${s.name}`}
                points={s.ends.map(spot)}
                thick={s.diameter_mm}
                colour={n.id === selected ? COPPER : TEAL}
                onChoose={() => onSelect(n.id)}
              />
            )),
          )}
          {nodes.map((n) => (
            <Ball key={n.id} node={n} strong={n.id === selected} onChoose={() => onSelect(n.id)} />
          ))}
        </group>
      </Canvas>
      <div style={{ position: 'absolute', left: 12, bottom: 10, fontSize: 12, pointerEvents: 'none' }}>
        {chosen?.name ?? 'Drag turns, wheel zooms, right drag moves; click chooses.'}
      </div>
    </div>
  )
}

/** The middle of points and how far they reach. */
function about(points: Vector3[]): [Vector3, number] {
  const low = new Vector3(Infinity, Infinity, Infinity)
  const high = low.clone().negate()
  for (const p of points) {
    low.min(p)
    high.max(p)
  }
  if (!points.length) return [new Vector3(), 1]
  return [low.clone().add(high).multiplyScalar(0.5), Math.max(1, low.distanceTo(high) * 1.1)]
}

interface TubeProps {
  points: Vector3[]
  thick: number
  colour: string
  onChoose: () => void
}

function Tube({ points, thick, colour, onChoose }: TubeProps) {
  const path = useMemo(() => {
    if (points.length < 2) return null
    if (points.length > 8) return new CatmullRomCurve3(points)
    const found = new CurvePath<Vector3>()
    points.slice(1).forEach((p, n) => found.add(new LineCurve3(points[n]!, p)))
    return found
  }, [points])
  if (!path) return null
  const choose = (event: ThreeEvent<MouseEvent>) => {
    event.stopPropagation()
    onChoose()
  }
  return (
    <mesh onClick={choose}>
      <tubeGeometry args={[path, points.length * 12, (thick / 2) * SCALE, 10, false]} />
      <meshStandardMaterial color={colour} />
    </mesh>
  )
}

interface BallProps {
  node: HarnessNode
  strong: boolean
  onChoose: () => void
}

function Ball({ node, strong, onChoose }: BallProps) {
  const size = BALL_MM * SCALE
  const colour = strong ? COPPER : node.device_id ? TEAL : INK
  const choose = (event: ThreeEvent<MouseEvent>) => {
    event.stopPropagation()
    onChoose()
  }
  return (
    <mesh position={spot(node.at)} onClick={choose}>
      {node.device_id && !node.splice ? (
        <boxGeometry args={[size * 3, size * 2, size * 2]} />
      ) : (
        <sphereGeometry args={[size, 16, 12]} />
      )}
      <meshStandardMaterial color={colour} />
    </mesh>
  )
}
