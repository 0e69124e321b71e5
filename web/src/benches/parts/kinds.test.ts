import { describe, expect, test } from 'vitest'
import { condition } from './kinds'

describe('a typed condition', () => {
  test.each([
    ['24', 'voltage=24'],
    [' 24 V DC ', 'voltage=24 V DC'],
    ['9+', 'voltage>=9'],
    ['>=9', 'voltage>=9'],
    ['≥ 9', 'voltage>=9'],
    ['<=3', 'voltage<=3'],
    ['≤3', 'voltage<=3'],
    ['>=9+', 'voltage>=9'],
    ['coil+case', 'voltage=coil+case'],
  ])('%s', (typed, said) => expect(condition('voltage', typed)).toBe(said))

  test('of how many units is at least, unless it says otherwise', () => {
    expect(condition('units.no', '2')).toBe('units.no>=2')
    expect(condition('units.no', '<=2')).toBe('units.no<=2')
  })

  test.each(['', '   ', '>=', '+', '≤ '])('%j is none', (typed) =>
    expect(condition('voltage', typed)).toBe(''),
  )
})
