/** What stands in the picture in space: devices with their faces, ducts and rails as profiles, wires as tubes. */
import type { ThreeEvent } from '@react-three/fiber'
import { useMemo } from 'react'
import { BoxGeometry, EdgesGeometry, type Texture, type Vector3 } from 'three'
import { COPPER, INK, TEAL } from '../../theme/theme'
import { useModel } from '../../project/useModel'
import { TONES } from '../../theme/paints'
import type { SpaceBox } from './shapes'
import { bent, SCALE, type Place } from './spaceShapes'

/** The face of a whole surface as a picture, and how its millimetres lie in it. */
export interface Faces {
  texture: Texture
  margin: number
  width: number
  height: number
}

interface BoxProps {
  box: SpaceBox
  place: Place
  look: boolean
  faces: Faces | undefined
  onSelect: (id: string, add: boolean) => void
  onUnder: (tag: string) => void
}

const WALL_MM = 2
const SHOWN = { duct: TONES.duct!, rail: TONES.rail!, device: TONES['case-shade']! }

/** A box about its middle whose front shows its part of the surface's picture. */
function useFront(box: SpaceBox, faces: Faces | undefined) {
  return useMemo(() => {
    const made = new BoxGeometry(box.width * SCALE, box.height * SCALE, box.depth * SCALE)
    if (!faces) return made
    const uv = made.getAttribute('uv')
    const [left, right] = [box.x, box.x + box.width].map((x) => (x + faces.margin) / faces.width) as [
      number,
      number,
    ]
    const [top, low] = [box.y, box.y + box.height].map((y) => 1 - (y + faces.margin) / faces.height) as [
      number,
      number,
    ]
    // The fifth face of a box looks to the front; its corners are upper left, upper right, lower left, lower right.
    const corners: [number, number][] = [
      [left, top],
      [right, top],
      [left, low],
      [right, low],
    ]
    corners.forEach(([u, v], i) => uv.setXY(16 + i, u, v))
    return made
  }, [box.x, box.y, box.width, box.height, box.depth, faces])
}

/** Where the middle of a box is, and how it is turned: its depth always leads away from its surface. */
function poseOf(box: SpaceBox, place: Place) {
  const middle = place.at(box.surface, box.x + box.width / 2, box.y + box.height / 2, box.depth / 2)
  const turn: Record<string, [number, number, number]> = {
    left: [0, Math.PI / 2, 0],
    right: [0, -Math.PI / 2, 0],
    roof: [Math.PI / 2, 0, 0],
    gland: [-Math.PI / 2, 0, 0],
  }
  return { middle, turn: turn[box.surface] ?? ([0, 0, 0] as [number, number, number]) }
}

export function Thing({ box, place, look, faces, onSelect, onUnder }: BoxProps) {
  const { middle, turn } = poseOf(box, place)
  const front = useFront(box, box.kind === 'device' ? faces : undefined)
  const edges = useMemo(() => new EdgesGeometry(front), [front])
  // While its picture is read, or if it cannot be, the box stands for the device.
  const { model } = useModel(box.file ?? '', box.front ?? '+z', box.up ?? '+y')
  const pick = {
    onClick: (event: ThreeEvent<MouseEvent>) => {
      event.stopPropagation()
      onSelect(box.id, event.shiftKey || event.ctrlKey)
    },
    onPointerOver: (e: ThreeEvent<PointerEvent>) => {
      e.stopPropagation()
      onUnder(box.kind === 'device' ? box.tag : `${box.kind} ${box.tag}`)
    },
    onPointerOut: () => onUnder(''),
  }
  return (
    <group position={middle} rotation={turn}>
      {box.kind === 'duct' ? (
        <Profile box={box} look={look} pick={pick} />
      ) : model ? (
        <primitive
          object={model.group}
          scale={SCALE}
          position={[0, 0, (-box.depth / 2) * SCALE]}
          rotation={[0, 0, box.turned ? -Math.PI / 2 : 0]}
          {...pick}
        />
      ) : (
        <mesh geometry={front} {...pick}>
          {[0, 1, 2, 3, 5].map((n) => (
            <meshStandardMaterial key={n} attach={`material-${n}`} color={look ? COPPER : SHOWN[box.kind]} />
          ))}
          <meshStandardMaterial
            key={faces ? 'face' : 'plain'}
            attach="material-4"
            color={look ? COPPER : faces ? '#ffffff' : SHOWN[box.kind]}
            {...(faces && !look ? { map: faces.texture } : {})}
          />
        </mesh>
      )}
      {box.kind !== 'duct' && (!model || look) && (
        <lineSegments geometry={edges}>
          <lineBasicMaterial color={look ? TEAL : INK} />
        </lineSegments>
      )}
    </group>
  )
}

interface ProfileProps {
  box: SpaceBox
  look: boolean
  pick: object
}

/** A duct: its bottom and two walls, open to the front so that its wires are seen. */
function Profile({ box, look, pick }: ProfileProps) {
  const level = box.width > box.height
  const [w, h, d] = [box.width * SCALE, box.height * SCALE, box.depth * SCALE]
  const t = WALL_MM * SCALE
  const side: [number, number, number] = level ? [w, t, d] : [t, h, d]
  const off = (level ? h : w) / 2 - t / 2
  const colour = look ? COPPER : SHOWN.duct
  return (
    <group {...pick}>
      <mesh position={[0, 0, -d / 2 + t / 2]}>
        <boxGeometry args={[w, h, t]} />
        <meshStandardMaterial color={colour} />
      </mesh>
      {[-off, off].map((o) => (
        <mesh key={o} position={level ? [0, o, 0] : [o, 0, 0]}>
          <boxGeometry args={side} />
          <meshStandardMaterial color={colour} transparent opacity={0.75} />
        </mesh>
      ))}
    </group>
  )
}

interface WireProps {
  points: Vector3[]
  colour: string
  strong: boolean
}

export function Wire({ points, colour, strong }: WireProps) {
  const path = useMemo(() => (points.length > 1 ? bent(points) : null), [points])
  if (!path) return null
  return (
    <mesh>
      <tubeGeometry args={[path, points.length * 8, strong ? 0.04 : 0.014, strong ? 8 : 5, false]} />
      <meshStandardMaterial color={colour} />
    </mesh>
  )
}
