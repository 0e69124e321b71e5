import { describe, expect, test } from 'vitest'
import type { Prim, PrimOf } from './item'
import { smallestAt, strokesFor } from './legible'
import { around } from './viewport'

const words = (said: Partial<PrimOf<'text'>> = {}): Prim =>
  ({
    ...{ kind: 'text', x: 10, y: 10, words: '1234567890', size: 2, anchor: 'start' },
    ...{ role: 'label', link: '', upward: false, ...said },
  }) as Prim

describe('words', () => {
  test('that can be read are painted as they are', () => {
    const prims = [words({ size: 2 })]
    expect(strokesFor(prims, 2)).toEqual({ kept: prims, strokes: '' })
    expect(strokesFor(prims, 2).kept).toBe(prims)
  })

  test.each([
    ['start', 'M10.0 9.3h11.0'],
    ['middle', 'M4.5 9.3h11.0'],
    ['end', 'M-1.0 9.3h11.0'],
  ] as const)('too small are a stroke of their length, anchored at the %s', (anchor, strokes) => {
    expect(strokesFor([words({ anchor })], 2.1)).toEqual({ kept: [], strokes })
  })

  test('that stand upright, and what is no text, stay', () => {
    const line: Prim = { kind: 'line', x1: 0, y1: 0, x2: 1, y2: 1, pen: 'ink' }
    const found = strokesFor([line, words({ upward: true }), words()], 5)
    expect(found.kept).toEqual([line, words({ upward: true })])
    expect(found.strokes).toHaveLength('M10.0 9.3h11.0'.length)
  })

  test('have the same smallest size over a little zoom, and half of it at twice the scale', () => {
    expect(smallestAt(1)).toBe(2)
    expect(smallestAt(2)).toBe(1)
    expect(smallestAt(1.05)).toBe(smallestAt(1))
    expect(smallestAt(0)).toBe(2)
  })
})

test('the box around boxes is none around none', () => {
  expect(around([])).toBeNull()
  expect(
    around([
      [0, 5, 2, 7],
      [-1, 6, 1, 9],
    ]),
  ).toEqual([-1, 5, 2, 9])
})
