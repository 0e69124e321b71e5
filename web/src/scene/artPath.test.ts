import { describe, expect, test } from 'vitest'
import { boundsOf, pathsOf, runsOf } from './artPath'
import type { Prim } from './item'

const line = (x1: number, y1: number, x2: number, y2: number, pen: 'ink' | 'dash' = 'ink'): Prim => ({
  ...{ kind: 'line', x1, y1, x2, y2, pen },
})
const rect = (x: number, y: number, tone: 'ink' | null = null): Prim => ({
  ...{ kind: 'rect', x, y, width: 4, height: 2, pen: 'ink', tone },
})
const circle = (cx: number, cy: number, radius: number): Prim => ({
  kind: 'circle',
  cx,
  cy,
  radius,
  pen: 'ink',
})
const arc = (start: number, end: number): Prim => ({
  kind: 'arc',
  cx: 0,
  cy: 0,
  radius: 2,
  start,
  end,
  pen: 'ink',
})
const text = (x: number, y: number): Prim => ({
  ...{ kind: 'text', x, y, words: 'A1', size: 2.5, anchor: 'middle', role: 'label', link: '', upward: false },
})

describe('the paths of a symbol', () => {
  test('have all solid lines in one, dashed ones in another, what is filled in a third, and the texts beside', () => {
    const paths = pathsOf([
      line(0, 0, 1, 2),
      line(1, 1, 3, 1, 'dash'),
      rect(0, 0),
      rect(5, 5, 'ink'),
      text(1, 1),
    ])
    expect(paths.lines).toBe('M0 0L1 2M0 0h4v2h-4Z')
    expect(paths.dashes).toBe('M1 1L3 1')
    expect(paths.solid).toBe('M5 5h4v2h-4Z')
    expect(paths.texts).toHaveLength(1)
  })

  test('of a line of many points and of a circle begin where those do', () => {
    expect(pathsOf([{ kind: 'poly', points: [0, 0, 2, 0, 2, 3], pen: 'ink' } as Prim]).lines).toBe(
      'M0 0L2 0L2 3',
    )
    expect(pathsOf([circle(5, 5, 2)]).lines).toBe('M3 5a2 2 0 1 0 4 0a2 2 0 1 0 -4 0')
  })

  test('of an arc go the short way up to a half, and the long way beyond it', () => {
    const flag = (start: number, end: number) => / 0 ([01]) 1 /.exec(pathsOf([arc(start, end)]).lines)?.[1]
    expect([flag(0, 90), flag(0, 180), flag(90, 300)]).toEqual(['0', '0', '1'])
  })

  test('are worked out once for the same graphics', () => {
    const art = [line(0, 0, 1, 1)]
    expect(pathsOf(art)).toBe(pathsOf(art))
  })

  test('of nothing are empty', () => {
    expect(pathsOf([])).toEqual({ lines: '', dashes: '', solid: '', texts: [] })
  })
})

describe('the box about graphics', () => {
  test('holds lines, circles, boxes, texts and pins', () => {
    expect(boundsOf([line(0, 0, 3, 1)])).toEqual([0, 0, 3, 1])
    expect(boundsOf([circle(5, 5, 2), rect(-1, 4)])).toEqual([-1, 3, 7, 7])
    expect(boundsOf([text(9, -2)], [[0, 8, 'A1']])).toEqual([0, -2, 9, 8])
  })

  test('is none of nothing', () => expect(boundsOf([])).toBeNull())
})

describe('outlines alike', () => {
  test('that follow one another and lie beside one another are one path', () => {
    const found = runsOf([rect(0, 0), rect(10, 0), rect(20, 0)])
    expect(found).toHaveLength(1)
    expect(found[0]).toMatchObject({ first: rect(0, 0), d: 'M0 0h4v2h-4ZM10 0h4v2h-4ZM20 0h4v2h-4Z' })
  })

  test('are painted apart where one lies on another, so that the later is above', () => {
    expect(runsOf([rect(0, 0), rect(1, 1)])).toEqual([rect(0, 0), rect(1, 1)])
    expect(runsOf([rect(0, 0), rect(4, 0)])).toHaveLength(1) // they share an edge only
  })

  test('keep their place among others', () => {
    const prims = [rect(0, 0), text(1, 1), rect(10, 0)]
    expect(runsOf(prims)).toEqual(prims)
  })

  test('of another pen or filling are another path', () => {
    expect(runsOf([line(0, 0, 1, 1), line(0, 0, 2, 2, 'dash')])).toHaveLength(2)
    expect(runsOf([rect(0, 0), rect(10, 0, 'ink')])).toHaveLength(2)
  })

  test('cross as they like when they are lines', () => {
    expect(runsOf([line(0, 0, 4, 4), line(0, 4, 4, 0)])).toHaveLength(1)
  })
})
