import { describe, expect, test } from 'vitest'
import { blockOf, cellsIn } from './block'

describe('a block from the clipboard', () => {
  test('is rows of cells; the line break at its end is no row', () => {
    expect(cellsIn('a\tb\r\nc\td\r\n')).toEqual([
      ['a', 'b'],
      ['c', 'd'],
    ])
  })

  test('keeps cells that are empty, and rows that are', () => {
    expect(cellsIn('a\t\t\n\nb')).toEqual([['a', '', ''], [''], ['b']])
  })

  test('has no rows within a quoted cell: a line break there is a space', () => {
    expect(cellsIn('"Pump 1\nspare"\tRD\nPump 2\tBK')).toEqual([
      ['Pump 1 spare', 'RD'],
      ['Pump 2', 'BK'],
    ])
  })

  test('has quotation marks as they were meant, also a tab within them', () => {
    expect(cellsIn('"say ""go"""\t"a\tb"')).toEqual([['say "go"', 'a\tb']])
  })

  test.each(['2\'6"', '3/4" pipe', 'a "b" c', '"', '"open\tb'])('takes %s as it stands', (words) => {
    expect(cellsIn(words).flat().join('\t')).toBe(words)
  })

  test('an inch that begins a cell does not swallow the rows after it', () => {
    expect(cellsIn('" wide\tb\nc\td')).toHaveLength(2)
  })
})

describe('a block for the clipboard', () => {
  test('quotes only what would be read otherwise', () => {
    expect(blockOf([['a', 'b c', '1,5']])).toBe('a\tb c\t1,5')
    expect(blockOf([['say "go"', 'a\tb']])).toBe('"say ""go"""\t"a\tb"')
  })

  test.each([
    [
      [
        ['a', ''],
        ['', 'b'],
      ],
    ],
    [[['say "go"', 'tab\there', ' led by a space']]],
    [[['', '', '']]],
    [
      [
        ['3/4"', '2\'6"'],
        ['ß', 'µ'],
      ],
    ],
  ])('is read again as it was: %j', (cells) => {
    expect(cellsIn(blockOf(cells))).toEqual(cells)
  })
})
