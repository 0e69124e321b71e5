/** Graphics of symbols and outlines while they are drawn. Pure functions. */
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
      return { kind: 'line', x1, y1, x2, y2, pen: tool === 'dash' ? 'dash' : 'ink' }
    case 'rect':
    case 'solid': {
      const [width, height] = [Math.abs(x2 - x1), Math.abs(y2 - y1)]
      const corner = { x: Math.min(x1, x2), y: Math.min(y1, y2) }
      const tone = tool === 'solid' ? ('ink' as const) : null
      return width && height ? { kind: 'rect', ...corner, width, height, pen: 'ink', tone } : null
    }
    case 'circle':
      return { kind: 'circle', cx: x1, cy: y1, radius: round(far), pen: 'ink' }
    case 'arc': {
      const start = round((Math.atan2(y1 - y2, x1 - x2) * 180) / Math.PI)
      const middle = { cx: round((x1 + x2) / 2), cy: round((y1 + y2) / 2) }
      return { kind: 'arc', ...middle, radius: round(far / 2), start, end: round(start + 180), pen: 'ink' }
    }
    case 'select':
    case 'pin':
    case 'text':
      return null
  }
}

/** Words typed at a point. */
export const wordsAt = ([x, y]: Point, words: string, size: number): Prim => ({
  kind: 'text',
  x,
  y,
  words,
  size,
  anchor: 'middle',
  role: 'label',
  link: '',
  upward: false,
})

export const round = (value: number) => Math.round(value * 1000) / 1000

export function movedPrim(prim: Prim, dx: number, dy: number): Prim {
  switch (prim.kind) {
    case 'poly':
      return { ...prim, points: prim.points.map((value, i) => round(value + (i % 2 ? dy : dx))) }
    case 'circle':
    case 'arc':
    case 'dot':
      return { ...prim, cx: round(prim.cx + dx), cy: round(prim.cy + dy) }
    case 'line':
    case 'wire':
      return {
        ...prim,
        x1: round(prim.x1 + dx),
        y1: round(prim.y1 + dy),
        x2: round(prim.x2 + dx),
        y2: round(prim.y2 + dy),
      }
    case 'art':
    case 'picture':
    case 'rect':
    case 'text':
      return { ...prim, x: round(prim.x + dx), y: round(prim.y + dy) }
  }
}
