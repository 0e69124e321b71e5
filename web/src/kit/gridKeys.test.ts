import { describe, expect, test, vi } from 'vitest'
import type { Cursor } from './gridCursor'
import { rangeOf, type At, type Column, type Wanted } from './gridData'
import { pressed, valueOf, type Sheet } from './gridKeys'

interface Row {
  id: string
  tag: string
}
const CHOICES = [{ id: 'k', name: 'Kind' }]
const COLUMNS: Column<Row>[] = [
  { key: 'tag', name: 'Tag', width: 80, text: (r) => r.tag, edit: (r) => r.id !== 'locked' },
  {
    key: 'kind',
    name: 'Kind',
    width: 80,
    text: () => 'Kind',
    value: () => 'k',
    choices: CHOICES,
    edit: () => true,
  },
  { key: 'note', name: 'Note', width: 80, text: () => 'note' },
]
const ROWS = [
  { id: 'a', tag: 'FC1' },
  { id: 'b', tag: 'FC2' },
  { id: 'locked', tag: 'FC3' },
]

type Key = React.KeyboardEvent

const key = (name: string, held: Partial<Key> = {}) =>
  ({ key: name, shiftKey: false, ctrlKey: false, altKey: false, metaKey: false, ...held }) as Key

/** A table with the mark at a cell; what its cursor and its acts were told. */
function table(at: At | null, until: At | null = null, typing: string | null = null) {
  const told = { go: vi.fn(), type: vi.fn(), change: vi.fn(), toggle: vi.fn(), selectAll: vi.fn() }
  const cursor = {
    at,
    until,
    typing,
    page: 10,
    range: at && rangeOf(at, until),
    go: told.go,
    type: told.type,
  }
  const { change, toggle, selectAll } = told
  const sheet: Sheet<Row> = {
    ...{ rows: ROWS, columns: COLUMNS, change, toggle, selectAll },
    cursor: cursor as unknown as Cursor,
  }
  return { told, sheet, press: (name: string, held?: Partial<Key>) => pressed(key(name, held), sheet) }
}
const cell = (row: number, column: number): At => ({ row, column })

describe('keys that lead', () => {
  test.each<[string, Partial<Key>, At, boolean]>([
    ['ArrowDown', {}, cell(2, 1), false],
    ['ArrowUp', {}, cell(0, 1), false],
    ['ArrowLeft', {}, cell(1, 0), false],
    ['ArrowRight', {}, cell(1, 2), false],
    ['PageDown', {}, cell(11, 1), false],
    ['PageUp', {}, cell(-9, 1), false],
    ['Tab', {}, cell(1, 2), false],
    ['Tab', { shiftKey: true }, cell(1, 0), false],
    ['ArrowDown', { shiftKey: true }, cell(2, 1), true],
  ])('%s %j', (name, held, to, extend) => {
    const { told, press } = table(cell(1, 1))
    expect(press(name, held)).toBe(true)
    expect(told.go).toHaveBeenCalledWith(to, extend)
  })

  test('go on from the far end of a block, and from its beginning without Shift', () => {
    const { told, press } = table(cell(0, 0), cell(1, 0))
    press('ArrowDown', { shiftKey: true })
    press('ArrowDown')
    expect(told.go.mock.calls).toEqual([
      [cell(2, 0), true],
      [cell(1, 0), false],
    ])
  })

  test('leave the table at the ends of a row', () => {
    expect(table(cell(0, 2)).press('Tab')).toBe(false)
    expect(table(cell(0, 0)).press('Tab', { shiftKey: true })).toBe(false)
  })

  test('with Alt are the keys of the bench', () => {
    const { told, press } = table(cell(1, 1))
    expect(press('ArrowDown', { altKey: true })).toBe(false)
    expect(told.go).not.toHaveBeenCalled()
  })
})

describe('keys that act', () => {
  test('Space chooses the row, Ctrl+A all', () => {
    const { told, press } = table(cell(1, 0))
    expect([press(' '), press('A', { ctrlKey: true })]).toEqual([true, true])
    expect(told.toggle).toHaveBeenCalledWith('b')
    expect(told.selectAll).toHaveBeenCalledOnce()
  })

  test('Ctrl+D fills down, Delete empties', () => {
    const { told, press } = table(cell(0, 0), cell(1, 0))
    press('d', { ctrlKey: true })
    press('Delete')
    const said = told.change.mock.calls.map(([all]) => (all as Wanted<Row>[]).map((w) => [w.row.id, w.typed]))
    expect(said).toEqual([
      [['b', 'FC1']],
      [
        ['a', ''],
        ['b', ''],
      ],
    ])
  })
})

describe('keys that type', () => {
  test.each([
    ['x', 'x'],
    ['7', '7'],
    ['Enter', 'FC1'],
    ['F2', 'FC1'],
  ])('%s begins with “%s”', (name, words) => {
    const { told, press } = table(cell(0, 0))
    expect(press(name)).toBe(true)
    expect(told.type).toHaveBeenCalledWith(words)
  })

  test.each<[string, At, string, Partial<Key>]>([
    ['where nothing can be edited', cell(2, 0), 'x', {}],
    ['in a column that is only read', cell(0, 2), 'x', {}],
    ['a letter into choices', cell(0, 1), 'x', {}],
    ['below the last row', cell(3, 0), 'x', {}],
    ['with Ctrl', cell(0, 0), 'x', { ctrlKey: true }],
    ['with the Command key', cell(0, 0), 'x', { metaKey: true }],
    ['a key that is no letter', cell(0, 0), 'F5', {}],
  ])('nothing %s', (_, at, name, held) => {
    const { told, press } = table(at)
    expect(press(name, held)).toBe(false)
    expect(told.type).not.toHaveBeenCalled()
  })

  test('Enter opens a choice by its id', () => {
    const { told, press } = table(cell(0, 1))
    press('Enter')
    expect(told.type).toHaveBeenCalledWith('k')
    expect(valueOf(COLUMNS[1]!, ROWS[0]!)).toBe('k')
  })
})

test('nothing is done while a cell is typed into, or nowhere', () => {
  expect(table(cell(0, 0), null, 'FC').press('ArrowDown')).toBe(false)
  expect(table(null).press('x')).toBe(false)
})

describe('what was refused at a cell', () => {
  const kept = (id: string, key: string) => (id === 'a' && key === 'tag' ? 'FC9' : undefined)
  const drop = vi.fn()
  const unsaved = { of: kept, drop, hand: vi.fn() }

  test('is gone on with by Enter, and put back by Escape', () => {
    const { sheet, told } = table({ row: 0, column: 0 })
    expect(pressed(key('Enter'), { ...sheet, unsaved })).toBe(true)
    expect(told.type).toHaveBeenCalledWith('FC9')
    expect(pressed(key('Escape'), { ...sheet, unsaved })).toBe(true)
    expect(drop).toHaveBeenCalledWith('a', 'tag')
  })

  test('is no matter of another cell', () => {
    const { sheet, told } = table({ row: 1, column: 0 })
    expect(pressed(key('Escape'), { ...sheet, unsaved })).toBe(false)
    pressed(key('Enter'), { ...sheet, unsaved })
    expect(told.type).toHaveBeenCalledWith('FC2')
  })
})
