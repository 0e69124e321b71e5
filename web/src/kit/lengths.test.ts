import { describe, expect, test } from 'vitest'
import { INCHES, lengthIn, lengthOf, METRIC, noLength, type Unit } from './lengths'

describe('a typed length', () => {
  test.each<[string, Unit, number]>([
    ['24', 'in', 609.6],
    ['2 ft', 'mm', 609.6],
    ['1 1/2"', 'mm', 38.1],
    ['1-1/2 in', 'mm', 38.1],
    ['2\' 6"', 'mm', 762],
    ['2′6″', 'mm', 762],
    ['300\' 6 1/2"', 'ft', 91605.1],
    ['-2\' 6"', 'mm', -762],
    ['0,75 m', 'in', 750],
    ['3/4', 'in', 19.05],
    ['-3/4', 'in', -19.05],
    ['12 cm', 'mm', 120],
    ['1 foot', 'mm', 304.8],
    ['7 INCHES', 'mm', 177.8],
    ['5.', 'mm', 5],
  ])('%s of %s is %d mm', (typed, unit, mm) => expect(lengthIn(typed, unit)).toBeCloseTo(mm, 4))

  test.each([
    '',
    '  ',
    'wide',
    '12 parsec',
    '1/0',
    '1 1/2 1/2',
    '"',
    "6' x",
    '1e999',
    'mm',
    'constructor',
    '3 toString',
  ])('%s is none', (typed) => expect(lengthIn(typed, 'mm')).toBeNull())

  test.each<[Unit, number]>([
    ['mm', 0.0006],
    ['cm', 0.006],
    ['m', 0.6],
    ['in', 0.013],
    ['ft', 0.16],
  ])('in %s comes back as what stands in the field, to half of its third place', (unit, half) => {
    for (const mm of [0, 1, 25.4, 304.8, 1234.5])
      expect(Math.abs(lengthIn(lengthOf(mm, unit), unit)! - mm)).toBeLessThan(half)
  })

  test('that is none is told with the unit that need not be typed', () => {
    expect(noLength('wide', 'in')).toContain('“wide”')
    expect(noLength('wide', 'in')).toContain('unless it is in')
  })
})

describe('a length that is read', () => {
  test('in inches and feet it has two places always, in metres only what it needs', () => {
    expect([INCHES.said(25.4), INCHES.bare(38.1), INCHES.saidLong(0.3048)]).toEqual([
      '1.00 in',
      '1.50',
      '1.00 ft',
    ])
    expect([METRIC.said(25), METRIC.bare(25.456), METRIC.saidLong(1.5)]).toEqual(['25 mm', '25.46', '1.5 m'])
  })
})
