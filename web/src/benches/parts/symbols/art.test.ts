import { describe, expect, test } from 'vitest'
import type { Prim } from '../../../scene/item'
import { drawnBy, movedPrim, round, snapTo, wordsAt, type ToolName } from './art'

describe('a drag', () => {
  test('draws a line, solid or dashed', () => {
    const ends = { x1: 0, y1: 1, x2: 2, y2: 3 }
    expect(drawnBy('line', [0, 1], [2, 3])).toEqual({ kind: 'line', ...ends, pen: 'ink' })
    expect(drawnBy('dash', [0, 1], [2, 3])).toEqual({ kind: 'line', ...ends, pen: 'dash' })
  })

  test.each<[string, [number, number], [number, number]]>([
    ['down and right', [1, 1], [4, 3]],
    ['up and left', [4, 3], [1, 1]],
    ['up and right', [1, 3], [4, 1]],
  ])('draws the same box %s', (_, from, to) => {
    const box = { kind: 'rect', x: 1, y: 1, width: 3, height: 2, pen: 'ink' }
    expect(drawnBy('rect', from, to)).toEqual({ ...box, tone: null })
    expect(drawnBy('solid', from, to)).toEqual({ ...box, tone: 'ink' })
  })

  test('draws a circle about its beginning', () => {
    expect(drawnBy('circle', [1, 1], [4, 5])).toEqual({ kind: 'circle', cx: 1, cy: 1, radius: 5, pen: 'ink' })
  })

  test('draws a half circle between its ends', () => {
    expect(drawnBy('arc', [0, 0], [4, 0])).toMatchObject({ cx: 2, cy: 0, radius: 2, start: 180, end: 360 })
    expect(drawnBy('arc', [0, 0], [0, 4])).toMatchObject({ cx: 0, cy: 2, radius: 2, start: -90, end: 90 })
  })

  test.each<ToolName>(['line', 'rect', 'circle', 'arc'])('of no size draws no %s', (tool) =>
    expect(drawnBy(tool, [1, 1], [1.02, 1.02])).toBeNull(),
  )

  test('level or upright draws no box', () => {
    expect(drawnBy('rect', [0, 0], [3, 0])).toBeNull()
    expect(drawnBy('solid', [0, 0], [0, 3])).toBeNull()
  })

  test.each<ToolName>(['select', 'text', 'pin'])('of %s draws nothing', (tool) =>
    expect(drawnBy(tool, [0, 0], [3, 3])).toBeNull(),
  )
})

describe('graphics that are moved', () => {
  test.each<[string, Prim, object]>([
    ['a line', drawnBy('line', [0, 0], [2, 1])!, { x1: 0.1, y1: -3, x2: 2.1, y2: -2 }],
    ['a box', drawnBy('rect', [0, 0], [2, 1])!, { x: 0.1, y: -3, width: 2, height: 1 }],
    ['a circle', drawnBy('circle', [0, 0], [2, 0])!, { cx: 0.1, cy: -3, radius: 2 }],
    ['an arc', drawnBy('arc', [0, 0], [4, 0])!, { cx: 2.1, cy: -3, start: 180 }],
    ['words', wordsAt([1, 1], 'A1', 2.5), { x: 1.1, y: -2, words: 'A1' }],
    [
      'a line of points',
      { kind: 'poly', points: [0, 0, 1, 1], pen: 'ink' } as Prim,
      { points: [0.1, -3, 1.1, -2] },
    ],
  ])('%s', (_, prim, moved) => {
    expect(movedPrim(prim, 0.1, -3)).toMatchObject(moved)
    expect(movedPrim(movedPrim(prim, 0.1, -3), -0.1, 3)).toEqual(prim)
  })
})

test('places are rounded to a thousandth and snapped to a step', () => {
  expect(round(0.1 + 0.2)).toBe(0.3)
  expect([snapTo(2.6, 2.5), snapTo(3.8, 2.5), snapTo(-1.3, 2.5)]).toEqual([2.5, 5, -2.5])
})
