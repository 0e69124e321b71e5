import { describe, expect, test } from 'vitest'
import { boxPlace } from './boxPlace'

const at = (left: number, top: number) => ({ left, top, width: 1000, height: 600 })

describe('a box at the caret', () => {
  test('stands below it, a little to the left', () => {
    expect(boxPlace(at(400, 100), 300, 10)).toEqual({ left: 388, top: 110, maxHeight: 482 })
  })

  test('stands above it where there is more room', () => {
    expect(boxPlace(at(400, 500), 300, 10)).toEqual({ left: 388, bottom: 110, maxHeight: 482 })
  })

  test('is below at the very middle', () => expect(boxPlace(at(400, 300), 300, 10)).toHaveProperty('top'))

  test('does not go over the edges', () => {
    expect(boxPlace(at(5, 100), 300, 10).left).toBe(8)
    expect(boxPlace(at(990, 100), 300, 10).left).toBe(692)
    expect(boxPlace({ ...at(50, 100), width: 200 }, 300, 10).left).toBe(8) // wider than all there is
  })

  test('is never so low that nothing can be read in it', () => {
    expect(boxPlace({ left: 0, top: 20, width: 300, height: 60 }, 200, 10).maxHeight).toBe(120)
  })
})
