/** A symbol's graphics as few paths: all its lines in one, so that a sheet of many symbols is painted quickly. */
import type { Prim, PrimOf } from './item'
import { PENS } from '../theme/paints'

export interface ArtPaths {
  /** Solid lines, dashed lines, and what is filled, as path data; "" for none. */
  lines: string
  dashes: string
  solid: string
  texts: PrimOf<'text'>[]
}

const known = new WeakMap<Prim[], ArtPaths>()

const on = (arc: PrimOf<'arc'>, deg: number) => {
  const rad = (deg * Math.PI) / 180
  return `${arc.cx + arc.radius * Math.cos(rad)} ${arc.cy + arc.radius * Math.sin(rad)}`
}

/** The path of one primitive; "" of what is no line. */
function pathOf(prim: Prim): string {
  switch (prim.kind) {
    case 'line':
      return `M${prim.x1} ${prim.y1}L${prim.x2} ${prim.y2}`
    case 'poly':
      return prim.points.map((p, i) => (i % 2 ? `${p}` : `${i ? 'L' : 'M'}${p} `)).join('')
    case 'circle': {
      const { cx, cy, radius: r } = prim
      return `M${cx - r} ${cy}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`
    }
    case 'arc': {
      const large = prim.end - prim.start > 180 ? 1 : 0
      return `M${on(prim, prim.start)}A${prim.radius} ${prim.radius} 0 ${large} 1 ${on(prim, prim.end)}`
    }
    case 'rect':
      return `M${prim.x} ${prim.y}h${prim.width}v${prim.height}h${-prim.width}Z`
    case 'art':
    case 'dot':
    case 'picture':
    case 'text':
    case 'wire':
      return ''
  }
}

const isDashed = (prim: Prim) => 'pen' in prim && Boolean(PENS[prim.pen]?.dash)
const isSolid = (prim: Prim) => prim.kind === 'rect' && Boolean(prim.tone)

export function pathsOf(art: Prim[]): ArtPaths {
  let found = known.get(art)
  if (!found) {
    const of = (wanted: (prim: Prim) => boolean) => art.filter(wanted).map(pathOf).join('')
    found = {
      lines: of((prim) => !isDashed(prim) && !isSolid(prim)),
      dashes: of(isDashed),
      solid: of(isSolid),
      texts: art.filter((prim) => prim.kind === 'text'),
    }
    known.set(art, found)
  }
  return found
}

/** The corners of the box about a primitive: x, y, x, y. */
function cornersOf(prim: Prim): number[] {
  switch (prim.kind) {
    case 'poly':
      return prim.points
    case 'circle':
    case 'arc':
    case 'dot':
      return [prim.cx - prim.radius, prim.cy - prim.radius, prim.cx + prim.radius, prim.cy + prim.radius]
    case 'line':
    case 'wire':
      return [prim.x1, prim.y1, prim.x2, prim.y2]
    case 'rect':
    case 'picture':
      return [prim.x, prim.y, prim.x + prim.width, prim.y + prim.height]
    case 'art':
    case 'text':
      return [prim.x, prim.y]
  }
}

/** Left, top, right, bottom of graphics and pins; null when there is nothing. */
export function boundsOf(
  art: Prim[],
  pins: readonly (readonly [number, number, ...unknown[]])[] = [],
): [number, number, number, number] | null {
  const all = [...art.map(cornersOf), ...pins.map((p) => [p[0], p[1]])].flat()
  const xs = all.filter((_, i) => i % 2 === 0)
  const ys = all.filter((_, i) => i % 2 === 1)
  return xs.length ? [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] : null
}

/** Outlines painted as one path, for all of them look alike; `first` tells how. */
export interface Run {
  first: PrimOf<'line' | 'circle' | 'rect'>
  d: string
}

type Plain = Run['first']

const isPlain = (prim: Prim): prim is Plain =>
  prim.kind === 'line' || prim.kind === 'circle' || prim.kind === 'rect'

const toneOf = (prim: Plain) => (prim.kind === 'line' ? '' : prim.tone)

/** Whether two boxes share more than an edge: what is painted later lies on what is painted first. */
const lies = (a: number[], b: number[]) => a[0]! < b[2]! && b[0]! < a[2]! && a[1]! < b[3]! && b[1]! < a[3]!

const runsKnown = new WeakMap<Prim[], (Prim | Run)[]>()

/** Primitives in painting order, those alike that follow one another and lie beside one another as one path. */
export function runsOf(prims: Prim[]): (Prim | Run)[] {
  const known = runsKnown.get(prims)
  if (known) return known
  const found: (Prim | Run)[] = []
  let run: Plain[] = []
  const close = () => {
    if (run.length > 1) found.push({ first: run[0]!, d: run.map(pathOf).join('') })
    else found.push(...run)
    run = []
  }
  for (const prim of prims) {
    const alike =
      isPlain(prim) &&
      run.length > 0 &&
      run[0]!.kind === prim.kind &&
      run[0]!.pen === prim.pen &&
      toneOf(run[0]!) === toneOf(prim) &&
      (prim.kind === 'line' || !run.some((other) => lies(cornersOf(other), cornersOf(prim))))
    if (!alike) close()
    if (isPlain(prim)) run.push(prim)
    else found.push(prim)
  }
  close()
  runsKnown.set(prims, found)
  return found
}
