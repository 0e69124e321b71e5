/** Graphics of symbols and outlines while they are drawn; kinds as in docs/formats/symbol.md. Pure functions. */
import type { Prim } from '../../../scene/item'

export type Point = [number, number]
export type Pin = [number, number, string]
export type ToolName = 'select' | 'line' | 'dash' | 'rect' | 'solid' | 'circle' | 'arc' | 'text' | 'pin'

/** A symbol as the server reads it; docs/formats/symbol.md says what may be in it. */
export interface Sketch {
  name: string
  class: string
  unit: string
  leads: boolean
  nicknames: string[]
  poles: number
  pins: Pin[]
  through: [number, number][]
  iec: Prim[]
  na?: Prim[]
  /** Where tag, text and reference stand; those left out stand where they usually do. */
  places?: Places
}

export type PlaceName = 'tag' | 'text' | 'reference'
export type Places = Partial<Record<PlaceName, Point>>
export const PLACE_NAMES: PlaceName[] = ['tag', 'text', 'reference']

const LEAST = 0.05

export const snapTo = (value: number, step: number) => Math.round(value / step) * step

/** What a drag from one point to another draws; null when it has no size. */
export function drawnBy(tool: ToolName, [x1, y1]: Point, [x2, y2]: Point): Prim | null {
  const far = Math.hypot(x2 - x1, y2 - y1)
  if (far < LEAST) return null
  switch (tool) {
    case 'line':
    case 'dash':
    case 'rect':
    case 'solid':
      return tool === 'line' || tool === 'dash' || (x1 !== x2 && y1 !== y2) ? [tool, x1, y1, x2, y2] : null
    case 'circle':
      return ['circle', x1, y1, round(far)]
    case 'arc': {
      const from = (Math.atan2(y1 - y2, x1 - x2) * 180) / Math.PI
      return [
        'arc',
        round((x1 + x2) / 2),
        round((y1 + y2) / 2),
        round(far / 2),
        round(from),
        round(from + 180),
      ]
    }
    default:
      return null
  }
}

export const round = (value: number) => Math.round(value * 1000) / 1000

export function movedPrim(prim: Prim, dx: number, dy: number): Prim {
  const [kind, ...v] = prim
  const n = v as number[]
  if (kind === 'poly') return [kind, (v[0] as number[]).map((value, i) => round(value + (i % 2 ? dy : dx)))]
  const lengths = kind === 'circle' || kind === 'arc' || kind === 'text' ? 2 : 4
  return [kind, ...v.map((value, i) => (i < lengths ? round(n[i]! + (i % 2 ? dy : dx)) : value))]
}
