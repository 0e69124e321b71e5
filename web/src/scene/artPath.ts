/** A symbol's graphics as few paths: all its lines in one, so that a sheet of many symbols is painted quickly. */
import type { Prim } from './item'

export interface ArtPaths {
  /** Solid lines, dashed lines, and what is filled, as path data; "" for none. */
  lines: string
  dashes: string
  solid: string
  texts: Prim[]
}

const known = new WeakMap<Prim[], ArtPaths>()

const point = (cx: number, cy: number, r: number, deg: number) => {
  const rad = (deg * Math.PI) / 180
  return `${cx + r * Math.cos(rad)} ${cy + r * Math.sin(rad)}`
}

/** The path of one primitive of a symbol; jolly_core/scenes/primitives.py documents the kinds. */
function pathOf(prim: Prim): string {
  const [kind, ...v] = prim
  const n = v as number[]
  switch (kind) {
    case 'line':
    case 'dash':
      return `M${n[0]} ${n[1]}L${n[2]} ${n[3]}`
    case 'poly': {
      const points = v[0] as number[]
      return points.map((p, i) => (i % 2 ? `${p}` : `${i ? 'L' : 'M'}${p} `)).join('')
    }
    case 'circle': {
      const [cx, cy, r] = n as [number, number, number]
      return `M${cx - r} ${cy}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`
    }
    case 'arc': {
      const [cx, cy, r, from, to] = n as [number, number, number, number, number]
      return `M${point(cx, cy, r, from)}A${r} ${r} 0 ${to - from > 180 ? 1 : 0} 1 ${point(cx, cy, r, to)}`
    }
    case 'rect':
    case 'solid':
      return `M${n[0]} ${n[1]}H${n[2]}V${n[3]}H${n[0]}Z`
    default:
      return ''
  }
}

export function pathsOf(art: Prim[]): ArtPaths {
  let found = known.get(art)
  if (!found) {
    const of = (wanted: (kind: string) => boolean) =>
      art
        .filter(([kind]) => wanted(kind))
        .map(pathOf)
        .join('')
    found = {
      lines: of((kind) => kind !== 'dash' && kind !== 'solid'),
      dashes: of((kind) => kind === 'dash'),
      solid: of((kind) => kind === 'solid'),
      texts: art.filter(([kind]) => kind === 'text'),
    }
    known.set(art, found)
  }
  return found
}

/** Left, top, right, bottom of graphics and pins; null when there is nothing. */
export function boundsOf(
  art: Prim[],
  pins: readonly (readonly [number, number, ...unknown[]])[] = [],
): [number, number, number, number] | null {
  const xs = pins.map((p) => p[0])
  const ys = pins.map((p) => p[1])
  for (const [kind, ...v] of art) {
    const n = v as number[]
    if (kind === 'poly') {
      const points = v[0] as number[]
      points.forEach((p, i) => (i % 2 ? ys : xs).push(p))
    } else if (kind === 'circle' || kind === 'arc') {
      xs.push(n[0]! - n[2]!, n[0]! + n[2]!)
      ys.push(n[1]! - n[2]!, n[1]! + n[2]!)
    } else if (kind === 'text') {
      xs.push(n[0]!)
      ys.push(n[1]!)
    } else {
      xs.push(n[0]!, n[2]!)
      ys.push(n[1]!, n[3]!)
    }
  }
  return xs.length ? [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] : null
}
