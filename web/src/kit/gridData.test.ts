import { describe, expect, test } from 'vitest'
import {
  arranged,
  changesOf,
  copied,
  emptied,
  filledDown,
  pasted,
  rangeOf,
  valueOf,
  type Column,
} from './gridData'

interface Row {
  id: string
  tag: string
  kind: string
  note: string
}

const KINDS = [
  { id: 'k1', name: 'Fuse' },
  { id: 'k2', name: 'Feed' },
]
const TAG: Column<Row> = {
  key: 'tag',
  name: 'Tag',
  width: 80,
  text: (r) => r.tag,
  edit: (r) => r.id !== 'locked',
}
const KIND: Column<Row> = {
  ...{ key: 'kind', name: 'Kind', width: 80, choices: KINDS, edit: () => true },
  text: (r) => KINDS.find((k) => k.id === r.kind)?.name ?? '',
  value: (r) => r.kind,
}
const NOTE: Column<Row> = { key: 'note', name: 'Note', width: 80, text: (r) => r.note }
const COLUMNS = [TAG, KIND, NOTE]
const row = (id: string, tag: string, kind = 'k1', note = ''): Row => ({ id, tag, kind, note })
const ROWS = [row('a', 'FC10', 'k1', 'spare'), row('b', 'FC2', 'k2'), row('c', 'FC1')]
const whole = { top: 0, bottom: 2, left: 0, right: 2 }
const cell = (r: number, c: number) => ({ top: r, bottom: r, left: c, right: c })

describe('rows', () => {
  test('are those that have all the words, whatever their case and column', () => {
    expect(arranged(ROWS, COLUMNS, 'fuse fc1', null).map((r) => r.id)).toEqual(['a', 'c'])
    expect(arranged(ROWS, COLUMNS, 'feed spare', null)).toEqual([])
  })

  test('stand in the order of numbers, and the other way round', () => {
    expect(arranged(ROWS, COLUMNS, '', { key: 'tag', down: false }).map((r) => r.tag)).toEqual([
      'FC1',
      'FC2',
      'FC10',
    ])
    expect(arranged(ROWS, COLUMNS, '', { key: 'tag', down: true }).map((r) => r.tag)).toEqual([
      'FC10',
      'FC2',
      'FC1',
    ])
  })

  test('keep their order without one, and are not put in order in place', () => {
    expect(arranged(ROWS, COLUMNS, ' ', null)).toBe(ROWS)
    expect(arranged(ROWS, COLUMNS, '', { key: 'gone', down: false })).toBe(ROWS)
    arranged(ROWS, COLUMNS, '', { key: 'tag', down: false })
    expect(ROWS.map((r) => r.id)).toEqual(['a', 'b', 'c'])
  })
})

describe('a value', () => {
  test('of a column of choices is the id, by id or name', () => {
    expect(valueOf(KIND, 'k2')).toBe('k2')
    expect(valueOf(KIND, ' feed ')).toBe('k2')
    expect(valueOf(KIND, '')).toBe('')
    expect(valueOf(KIND, 'Lamp')).toBeNull()
  })

  test('of any other column is what was typed', () => expect(valueOf(TAG, ' x ')).toBe(' x '))
})

describe('changes', () => {
  test('leave out cells that cannot be edited', () => {
    const wanted = [
      { row: row('locked', 'A'), column: TAG, typed: 'B' },
      { row: ROWS[0]!, column: NOTE, typed: 'B' },
      { row: ROWS[0]!, column: TAG, typed: 'B' },
    ]
    expect(changesOf(wanted)).toEqual([{ id: 'a', key: 'tag', value: 'B' }])
  })

  test('are none at all where one is no choice, and it is named', () => {
    const wanted = [
      { row: ROWS[0]!, column: TAG, typed: 'B' },
      { row: ROWS[0]!, column: KIND, typed: 'Lamp' },
    ]
    expect(changesOf(wanted)).toEqual({
      problem: '“Lamp” is none of the choices of Kind. Nothing was changed.',
    })
  })

  test('are handed up also where the row at hand has that value', () => {
    expect(changesOf([{ row: ROWS[0]!, column: TAG, typed: 'FC10' }])).toHaveLength(1)
  })
})

describe('a range', () => {
  test('is the cells between two, whichever is first', () => {
    expect(rangeOf({ row: 3, column: 1 }, { row: 1, column: 4 })).toEqual({
      top: 1,
      bottom: 3,
      left: 1,
      right: 4,
    })
    expect(rangeOf({ row: 3, column: 1 }, null)).toEqual(cell(3, 1))
  })

  test('is filled down from its first row, with values and not with what is shown', () => {
    const filled = filledDown(ROWS, COLUMNS, { ...whole, right: 1 })
    expect(filled.map((w) => [w.row.id, w.column.key, w.typed])).toEqual([
      ['b', 'tag', 'FC10'],
      ['b', 'kind', 'k1'],
      ['c', 'tag', 'FC10'],
      ['c', 'kind', 'k1'],
    ])
    expect(filledDown(ROWS, COLUMNS, cell(1, 0))).toEqual([])
  })

  test('is emptied cell by cell', () => {
    expect(
      emptied(ROWS, COLUMNS, { top: 1, bottom: 2, left: 0, right: 0 }).map((w) => [w.row.id, w.typed]),
    ).toEqual([
      ['b', ''],
      ['c', ''],
    ])
  })
})

describe('a pasted block', () => {
  const said = (text: string, range = cell(0, 0)) => {
    const { wanted, beyond } = pasted(text, ROWS, COLUMNS, range)
    return { wanted: wanted.map((w) => [w.row.id, w.column.key, w.typed]), beyond }
  }

  test('goes from the first cell to the right and down, and is cut at the last column', () => {
    expect(said('X\tFeed\tn\tbeyond\nY', cell(1, 0)).wanted).toEqual([
      ['b', 'tag', 'X'],
      ['b', 'kind', 'Feed'],
      ['b', 'note', 'n'],
      ['c', 'tag', 'Y'],
    ])
  })

  test('of one cell fills the range', () => {
    expect(said('X\n', { top: 0, bottom: 2, left: 0, right: 0 }).wanted).toHaveLength(3)
  })

  test('goes on below the last row as new rows, with ids of choices', () => {
    expect(said('X\tFeed\nY\tLamp', cell(2, 0)).beyond).toEqual([{ tag: 'Y', kind: 'Lamp' }])
    expect(said('X\nY\tfeed', cell(2, 0)).beyond).toEqual([{ tag: 'Y', kind: 'k2' }])
  })

  test('has one row for a cell with a line break', () => {
    expect(said('"Pump\n1"\tFeed').wanted).toEqual([
      ['a', 'tag', 'Pump 1'],
      ['a', 'kind', 'Feed'],
    ])
  })

  test('that was copied changes nothing', () => {
    const odd = [row('a', 'say "go"', 'k2', 'tab\tin it'), row('b', ' led', 'k1', '3/4"')]
    const { wanted } = pasted(copied(odd, COLUMNS, { ...whole, bottom: 1 }), odd, COLUMNS, cell(0, 0))
    expect(wanted).toHaveLength(6)
    for (const w of wanted) expect(w.typed).toBe(w.column.text(w.row))
  })
})
