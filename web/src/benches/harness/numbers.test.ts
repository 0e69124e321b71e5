import { describe, expect, test } from 'vitest'
import { lengthsIn, written } from './numbers'

describe('places in space', () => {
  test('are lengths with anything between them', () => {
    expect(lengthsIn('10 20;30 | 40|50\n60', 'mm')).toEqual([10, 20, 30, 40, 50, 60])
    expect(lengthsIn('1in 2', 'mm')).toEqual([25.4, 2])
  })

  test('keep a decimal comma', () => expect(lengthsIn('0,5 1,25', 'mm')).toEqual([0.5, 1.25]))

  test('are none when one of them is none', () => {
    expect(lengthsIn('10 wide 30', 'mm')).toBeNull()
    expect(lengthsIn('', 'mm')).toEqual([])
  })

  test('are written three to a place with a bar between, and read again as they were', () => {
    expect(written([1, 2, 3, 4, 5, 6], 'mm')).toBe('1 2 3 | 4 5 6')
    expect(written([25.4, 50.8], 'in', 2)).toBe('1 2')
    expect(written([], 'mm')).toBe('')
    expect(lengthsIn(written([1.5, -2, 3], 'mm'), 'mm')).toEqual([1.5, -2, 3])
  })
})
