/** The enclosure in space: plate, rails, ducts, devices as boxes with their depth, and the routed wires. */
import { Canvas, useThree, type ThreeEvent } from '@react-three/fiber'
import { useEffect, useMemo, useState } from 'react'
import { BoxGeometry, BufferGeometry, CurvePath, EdgesGeometry, LineCurve3, Vector3 } from 'three'
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js'
import { COPPER, INK, PAPER, TEAL } from '../../theme/theme'
import { wirePaint } from '../../theme/paints'
import type { EnclosureValue, Route, SpaceBox } from './shapes'

const SCALE = 0.01 // scene units for each mm
const IN_DUCT_MM = 30
const TONES = { device: '#F7F5EF', duct: '#D9D2BF', rail: '#AEB4BC' }

interface Props {
  enclosure: EnclosureValue
  selected: Set<string>
  /** The keys of the chosen wires. */
  wires: string[]
  onSelect: (id: string, add: boolean) => void
}

/** Whether this browser can show a picture in space at all. */
const able = () => document.createElement('canvas').getContext('webgl2') !== null

export default function Space({ enclosure, selected, wires, onSelect }: Props) {
  const [can] = useState(able)
  const [under, setUnder] = useState('')
  if (!can)
    return (
      <div style={{ padding: 32 }}>
        This browser shows no pictures in space (WebGL is off). The plan shows the same.
      </div>
    )
  const [, height, depth] = enclosure.outside
  const far = Math.max(height, depth) * SCALE * 1.95
  const chosen = enclosure.boxes?.filter((b) => selected.has(b.id)).map((b) => b.tag) ?? []
  return (
    <div
      data-testid="space"
      data-selected={[...selected].join(' ')}
      style={{ position: 'relative', width: '100%', height: '100%' }}
    >
      <Canvas
        camera={{ position: [far * 0.35, far * 0.18, far], fov: 35 }}
        onPointerMissed={() => onSelect('', false)}
        style={{ background: '#EAE4D6' }}
      >
        <ambientLight intensity={1.6} />
        <directionalLight position={[4, 8, 10]} intensity={1.5} />
        <Turning />
        <Inside
          enclosure={enclosure}
          selected={selected}
          wires={wires}
          onSelect={onSelect}
          onUnder={setUnder}
        />
      </Canvas>
      <div
        style={{
          position: 'absolute',
          left: 12,
          bottom: 10,
          fontSize: 12,
          color: INK,
          pointerEvents: 'none',
        }}
      >
        {under || chosen.join(', ') || 'Drag turns, wheel zooms, right drag moves; click chooses.'}
      </div>
    </div>
  )
}

function Turning() {
  const { camera, gl, invalidate } = useThree()
  useEffect(() => {
    const controls = new OrbitControls(camera, gl.domElement)
    controls.addEventListener('change', () => invalidate())
    return () => controls.dispose()
  }, [camera, gl, invalidate])
  return null
}

interface InsideProps extends Props {
  onUnder: (tag: string) => void
}

function Inside({ enclosure, selected, wires, onSelect, onUnder }: InsideProps) {
  const [width, height, depth] = enclosure.outside
  const [plateWidth, plateHeight] = enclosure.plate ?? [0, 0]
  // From surface mm, y downwards, to the middle of the enclosure, y upwards.
  const plateAt = (x: number, y: number): [number, number] => [x - plateWidth / 2, plateHeight / 2 - y]
  const doorAt = (x: number, y: number): [number, number] => [x - width / 2, height / 2 - y]
  const frame = useMemo(
    () => new EdgesGeometry(new BoxGeometry(width * SCALE, height * SCALE, depth * SCALE)),
    [width, height, depth],
  )
  const back = (-depth / 2 + 15) * SCALE
  const front = (depth / 2 - 2) * SCALE
  return (
    <group>
      <lineSegments geometry={frame}>
        <lineBasicMaterial color={INK} />
      </lineSegments>
      <mesh position={[0, 0, back]}>
        <boxGeometry args={[plateWidth * SCALE, plateHeight * SCALE, 0.03]} />
        <meshStandardMaterial color={PAPER} />
      </mesh>
      {enclosure.boxes?.map((box) => (
        <BoxView
          key={box.id}
          box={box}
          at={(box.surface === 'plate' ? plateAt : doorAt)(box.x + box.width / 2, box.y + box.height / 2)}
          base={box.surface === 'plate' ? back : front}
          look={selected.has(box.id)}
          onSelect={onSelect}
          onUnder={onUnder}
        />
      ))}
      {enclosure.routes
        ?.filter((r) => r.length_mm !== null)
        .map((r) => (
          <WireView
            key={r.key}
            points={inSpace(r, plateAt, doorAt, back, front)}
            colour={wires.includes(r.key) ? COPPER : wirePaint(r.colour).first}
            strong={wires.includes(r.key)}
          />
        ))}
    </group>
  )
}

type Way = (x: number, y: number) => [number, number]

/** A route's corners in scene units: on the plate at the height of the ducts, on the door just behind it. */
function inSpace(route: Route, plateAt: Way, doorAt: Way, back: number, front: number): Vector3[] {
  return route.legs.flatMap((leg) =>
    leg.points.map(([x, y]) => {
      const plate = leg.surface !== 'door'
      const [px, py] = (plate ? plateAt : doorAt)(x, y)
      return new Vector3(px * SCALE, py * SCALE, plate ? back + IN_DUCT_MM * SCALE : front - 0.05)
    }),
  )
}

function WireView({ points, colour, strong }: { points: Vector3[]; colour: string; strong: boolean }) {
  const geometry = useMemo(() => new BufferGeometry().setFromPoints(points), [points])
  if (points.length < 2) return null
  if (strong)
    return (
      <mesh>
        <tubeGeometry args={[pathOf(points), points.length * 12, 0.035, 6]} />
        <meshStandardMaterial color={colour} />
      </mesh>
    )
  return (
    <lineLoop geometry={open(geometry)}>
      <lineBasicMaterial color={colour} />
    </lineLoop>
  )
}

/** Corners as a path of straight pieces. */
function pathOf(points: Vector3[]): CurvePath<Vector3> {
  const path = new CurvePath<Vector3>()
  points.slice(1).forEach((p, i) => {
    if (p.distanceTo(points[i]!) > 1e-6) path.add(new LineCurve3(points[i]!, p))
  })
  return path
}

/** There and back again, so that the closed line that is drawn shows no chord between its ends. */
function open(geometry: BufferGeometry): BufferGeometry {
  const there = geometry.getAttribute('position')
  const points = Array.from({ length: there.count }, (_, i) => new Vector3().fromBufferAttribute(there, i))
  return new BufferGeometry().setFromPoints([...points, ...points.slice(1, -1).reverse()])
}

interface BoxProps {
  box: SpaceBox
  at: [number, number]
  base: number
  look: boolean
  onSelect: (id: string, add: boolean) => void
  onUnder: (tag: string) => void
}

function BoxView({ box, at, base, look, onSelect, onUnder }: BoxProps) {
  const depth = box.depth * SCALE
  const inward = box.surface === 'plate' ? 1 : -1
  const args: [number, number, number] = [box.width * SCALE, box.height * SCALE, depth]
  const [wide, tall] = args
  const edges = useMemo(() => new EdgesGeometry(new BoxGeometry(wide, tall, depth)), [wide, tall, depth])
  const choose = (event: ThreeEvent<MouseEvent>) => {
    event.stopPropagation()
    onSelect(box.id, event.shiftKey || event.ctrlKey)
  }
  return (
    <group position={[at[0] * SCALE, at[1] * SCALE, base + (inward * depth) / 2]}>
      <mesh
        onClick={choose}
        onPointerOver={(e) => {
          e.stopPropagation()
          onUnder(box.kind === 'device' ? box.tag : '')
        }}
        onPointerOut={() => onUnder('')}
      >
        <boxGeometry args={args} />
        <meshStandardMaterial
          color={look ? COPPER : TONES[box.kind]}
          transparent={box.kind === 'duct'}
          opacity={box.kind === 'duct' ? 0.55 : 1}
        />
      </mesh>
      <lineSegments geometry={edges}>
        <lineBasicMaterial color={look ? TEAL : INK} />
      </lineSegments>
    </group>
  )
}
