/** Shapes of the picture in space: from surface millimetres to scene units, and ways with bends. */
import { CurvePath, LineCurve3, QuadraticBezierCurve3, Vector3 } from 'three'
import type { EnclosureValue, Way } from './shapes'

export const SCALE = 0.01 // scene units for each mm
const IN_DUCT_MM = 30
const BEND_MM = 12

export interface Place {
  at: (surface: string, x: number, y: number, out: number) => Vector3
  width: number
  height: number
  depth: number
}

/** From mm on a surface (y downwards, so far in front of it; of the door behind it) to scene units about the middle. */
export function placesOf(enclosure: EnclosureValue): Place {
  const [width, height, depth] = enclosure.outside
  const [plateWidth, plateHeight] = enclosure.plate ?? [0, 0]
  const back = -depth / 2 + 15
  const at = (surface: string, x: number, y: number, out: number): Vector3 => {
    const corner =
      surface === 'door'
        ? [x - width / 2, height / 2 - y, depth / 2 - 2 - out]
        : surface === 'left'
          ? [-width / 2 + out, height / 2 - y, back + x]
          : surface === 'right'
            ? [width / 2 - out, height / 2 - y, back + x]
            : surface === 'roof'
              ? [x - width / 2, height / 2 - out, back + y]
              : surface === 'gland'
                ? [x - width / 2, -height / 2 + out, back + y]
                : [x - plateWidth / 2, plateHeight / 2 - y, back + out]
    return new Vector3(...(corner.map((v) => v * SCALE) as [number, number, number]))
  }
  return { at, width, height, depth }
}

/** The corners of a way on the door and off it: each in scene units, no two alike one after the other. */
export function cornersOf(way: Way, place: Place, enclosure: string): { door: Vector3[]; inside: Vector3[] } {
  const found = { door: [] as Vector3[], inside: [] as Vector3[] }
  for (const leg of way.legs.filter((l) => l.enclosure_id === enclosure)) {
    const run = leg.surface === 'door' ? found.door : found.inside
    for (const [x, y] of leg.points) {
      const next = place.at(leg.surface, x, y, leg.surface === 'door' ? 5 : IN_DUCT_MM)
      const last = run[run.length - 1]
      if (!last || last.distanceTo(next) > 1e-6) run.push(next)
    }
  }
  return found
}

/** Corners as a path, its corners round. */
export function bent(points: Vector3[]): CurvePath<Vector3> {
  const path = new CurvePath<Vector3>()
  let from = points[0]!
  points.slice(1).forEach((corner, i) => {
    const next = points[i + 2]
    if (!next) {
      path.add(new LineCurve3(from, corner))
      return
    }
    const before = corner.distanceTo(from)
    const after = corner.distanceTo(next)
    const r = Math.min(BEND_MM * SCALE, before / 2, after / 2)
    const start = corner.clone().lerp(from, r / before)
    const end = corner.clone().lerp(next, r / after)
    path.add(new LineCurve3(from, start))
    path.add(new QuadraticBezierCurve3(start, corner, end))
    from = end
  })
  return path
}
