/** The enclosure in space: everything with its depth and face, the door that opens, wires along their ways, a section. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Slider from '@mui/material/Slider'
import { Canvas, useThree } from '@react-three/fiber'
import { useEffect, useMemo, useState } from 'react'
import { BoxGeometry, EdgesGeometry, Plane, SRGBColorSpace, TextureLoader, Vector3 } from 'three'
import { usePick } from '../../project/store'
import { Turning } from '../../project/Turning'
import { COPPER, INK, PAPER } from '../../theme/theme'
import { wirePaint } from '../../theme/paints'
import { Thing, Wire, type Faces } from './SpaceThings'
import { cornersOf, placesOf, SCALE } from './spaceShapes'
import type { EnclosureValue, Way } from './shapes'
import { useWays } from './useWays'

interface Props {
  enclosure: EnclosureValue
  selected: Set<string>
  /** The keys of the chosen wires. */
  wires: string[]
  onSelect: (id: string, add: boolean) => void
}

/** Whether this browser can show a picture in space at all. */
const able = () => document.createElement('canvas').getContext('webgl2') !== null

const NOTE = {
  position: 'absolute',
  left: 12,
  bottom: 10,
  fontSize: 12,
  color: INK,
  pointerEvents: 'none',
} as const
const TOOLS = {
  position: 'absolute',
  right: 12,
  top: 8,
  width: 190,
  p: 1,
  bgcolor: '#FBF8F1E6',
  borderRadius: 1,
  fontSize: 12,
} as const

export function Space({ enclosure, selected, wires, onSelect }: Props) {
  const { projectId } = usePick('projectId')
  const [can] = useState(able)
  const [under, setUnder] = useState('')
  const [open, setOpen] = useState(false)
  const [cut, setCut] = useState(0)
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
      data-door={open ? 'open' : 'shut'}
      style={{ position: 'relative', width: '100%', height: '100%' }}
    >
      <Canvas
        camera={{ position: [far * 0.35, far * 0.18, far], fov: 35 }}
        onPointerMissed={() => onSelect('', false)}
        style={{ background: '#EAE4D6' }}
      >
        <ambientLight intensity={1.8} />
        <directionalLight position={[4, 8, 10]} intensity={1.2} />
        <Turning />
        <Section depth={depth} cut={cut} />
        <Inside {...{ enclosure, selected, wires, onSelect, open }} onUnder={setUnder} />
      </Canvas>
      <div style={NOTE}>
        {under || chosen.join(', ') || 'Drag turns, wheel zooms, right drag moves; click chooses.'}
      </div>
      <Box sx={TOOLS}>
        <Button onClick={() => setOpen(!open)}>{open ? 'Shut the door' : 'Open the door'}</Button>
        <Button href={`/api/projects/${projectId}/layouts/${enclosure.id}/space.gltf`}>glTF</Button>
        <Box sx={{ px: 1 }}>
          Cut away from the front
          <Slider
            size="small"
            aria-label="Cut away from the front"
            value={cut}
            max={depth}
            onChange={(_, value) => setCut(value as number)}
          />
        </Box>
      </Box>
    </div>
  )
}

/** Nothing is shown that lies in front of the cut. */
function Section({ depth, cut }: { depth: number; cut: number }) {
  const { gl, invalidate } = useThree()
  useEffect(() => {
    gl.clippingPlanes = cut ? [new Plane(new Vector3(0, 0, -1), (depth / 2 - cut) * SCALE)] : []
    invalidate()
  }, [gl, invalidate, depth, cut])
  return null
}

/** The picture of a surface, to be laid on the fronts of what stands on it; undefined until it is there. */
function useFaces(enclosure: EnclosureValue, surface: 'plate' | 'door'): Faces | undefined {
  const { projectId, revision } = usePick('projectId', 'revision')
  const [faces, setFaces] = useState<Faces>()
  const size = enclosure[surface]
  const margin = enclosure.margin
  const [width, height] = [(size?.[0] ?? 0) + 2 * margin, (size?.[1] ?? 0) + 2 * margin]
  useEffect(() => {
    let wanted = true
    const url = `/api/projects/${projectId}/layouts/${enclosure.id}/${surface}.svg?revision=${revision}`
    new TextureLoader().load(url, (texture) => {
      texture.colorSpace = SRGBColorSpace
      texture.anisotropy = 4
      if (wanted) setFaces({ texture, margin, width, height })
    })
    return () => {
      wanted = false
    }
  }, [projectId, revision, enclosure.id, surface, margin, width, height])
  return faces
}

interface InsideProps extends Props {
  open: boolean
  onUnder: (tag: string) => void
}

function Inside({ enclosure, selected, wires, onSelect, onUnder, open }: InsideProps) {
  const place = useMemo(() => placesOf(enclosure), [enclosure])
  const { width, height, depth } = place
  const [plateWidth, plateHeight] = enclosure.plate ?? [0, 0]
  const plate = useFaces(enclosure, 'plate')
  const door = useFaces(enclosure, 'door')
  const frame = useMemo(
    () => new EdgesGeometry(new BoxGeometry(width * SCALE, height * SCALE, depth * SCALE)),
    [width, height, depth],
  )
  const found = useWays(enclosure, enclosure.routes?.length ? 'all' : [])
  const ways = useMemo(
    () =>
      found.filter((way) => way.legs.length).map((way) => ({ way, ...cornersOf(way, place, enclosure.id) })),
    [found, place, enclosure.id],
  )
  const strong = (r: Way) => wires.includes(r.key) || r.lanes.some((id) => selected.has(id))
  const boxes = enclosure.boxes ?? []
  const shared = { place, onSelect, onUnder }
  const middle = place.at('plate', plateWidth / 2, plateHeight / 2, -2)
  return (
    <group>
      <lineSegments geometry={frame}>
        <lineBasicMaterial color={INK} />
      </lineSegments>
      <mesh position={middle}>
        <boxGeometry args={[plateWidth * SCALE, plateHeight * SCALE, 0.03]} />
        <meshStandardMaterial color={PAPER} />
      </mesh>
      {boxes
        .filter((b) => b.surface !== 'door')
        .map((box) => (
          <Thing
            key={box.id}
            box={box}
            look={selected.has(box.id)}
            faces={box.surface === 'plate' ? plate : undefined}
            {...shared}
          />
        ))}
      {ways.map(({ way, inside }) => (
        <Wire key={way.key} points={inside} {...paintOf(way.colour, strong(way))} />
      ))}
      <Door enclosure={enclosure} open={open}>
        {boxes
          .filter((b) => b.surface === 'door')
          .map((box) => (
            <OnDoor key={box.id} box={box} look={selected.has(box.id)} faces={door} {...shared} />
          ))}
        {ways.map(({ way, door: run }) => (
          <Wire key={way.key} points={run} {...paintOf(way.colour, strong(way))} />
        ))}
      </Door>
    </group>
  )
}

const paintOf = (colour: string, strong: boolean) => ({
  colour: strong ? COPPER : wirePaint(colour).first,
  strong,
})

/** A device of the door: its body behind the sheet, its face before it. */
function OnDoor(props: React.ComponentProps<typeof Thing>) {
  const { box, place, faces } = props
  return (
    <>
      <Thing {...props} faces={undefined} />
      <Thing
        {...props}
        box={{ ...box, depth: 6 }}
        faces={faces}
        place={{ ...place, at: (surface, x, y, out) => place.at(surface, x, y, out - 10) }}
      />
    </>
  )
}

interface DoorProps {
  enclosure: EnclosureValue
  open: boolean
  children: React.ReactNode
}

/** The door's sheet with all it carries, turned about its hinge while it is open. */
function Door({ enclosure, open, children }: DoorProps) {
  const [width, height, depth] = enclosure.outside
  const side = enclosure.hinge === 'left' ? -1 : 1
  const x = (side * width * SCALE) / 2
  const z = (depth * SCALE) / 2
  const angle = open ? (side * enclosure.swing_deg * Math.PI) / 180 : 0
  return (
    <group position={[x, 0, z]} rotation={[0, angle, 0]}>
      <group position={[-x, 0, -z]}>
        <mesh position={[0, 0, z]}>
          <boxGeometry args={[width * SCALE, height * SCALE, 0.02]} />
          <meshStandardMaterial color={PAPER} transparent opacity={open ? 0.9 : 0.18} depthWrite={open} />
        </mesh>
        {children}
      </group>
    </group>
  )
}
