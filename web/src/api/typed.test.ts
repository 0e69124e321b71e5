import { expect, test } from 'vitest'
import { nowShown, shownNow, typedAt, typedSince } from './typed'

test('what is sent within an act says at which revision it was typed, and nothing after it does', () => {
  nowShown(7)
  const begun = shownNow()
  nowShown(9)
  expect(typedSince()).toBe(-1)
  expect(typedAt(begun, () => [typedSince(), typedAt(9, typedSince), typedSince()])).toEqual([7, 9, 7])
  expect(typedSince()).toBe(-1)
})

test('an act that fails leaves nothing behind', () => {
  expect(() =>
    typedAt(3, () => {
      throw new Error('no')
    }),
  ).toThrow('no')
  expect(typedSince()).toBe(-1)
})
