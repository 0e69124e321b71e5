import { Vector3 } from 'three'
import { describe, expect, test } from 'vitest'
import { turnOf } from './solids'

const AXES: Record<string, [number, number, number]> = {
  ...{ '+x': [1, 0, 0], '-x': [-1, 0, 0], '+y': [0, 1, 0] },
  ...{ '-y': [0, -1, 0], '+z': [0, 0, 1], '-z': [0, 0, -1] },
}
const turned = (axis: string, front: string, up: string) =>
  new Vector3(...AXES[axis]!)
    .applyQuaternion(turnOf(front, up))
    .toArray()
    .map(Math.round)
    .map((n) => n + 0)

describe('a model that is turned', () => {
  const pairs = Object.keys(AXES).flatMap((front) =>
    Object.keys(AXES)
      .filter((up) => up[1] !== front[1])
      .map((up): [string, string] => [front, up]),
  )

  test.each(pairs)('with its front at %s and its top at %s looks forward and stands upright', (front, up) => {
    expect(turned(front, front, up)).toEqual([0, 0, 1])
    expect(turned(up, front, up)).toEqual([0, 1, 0])
  })

  test('as it should be stays so', () => expect(turned('+x', '+z', '+y')).toEqual([1, 0, 0]))

  test.each(Object.keys(AXES))('whose top is along its front at %s is put right', (front) => {
    expect(turned(front, front, front)).toEqual([0, 0, 1])
  })
})
