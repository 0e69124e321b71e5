import { expect, test } from 'vitest'
import { after } from './gridUnsaved'

const change = (id: string, value: string) => ({ id, key: 'tag', value })

test('what is refused stays at its cell, beside others, until it is taken', () => {
  const one = after(new Map(), [change('a', 'FC1'), change('b', 'FC1')], true)
  expect([...one]).toEqual([
    ['a|tag', 'FC1'],
    ['b|tag', 'FC1'],
  ])
  expect([...after(one, [change('a', 'FC9')], false).keys()]).toEqual(['b|tag'])
  expect(one.size).toBe(2)
})

test('where nothing is unsaved nothing is painted anew when a change is taken', () => {
  const none = new Map<string, string>()
  expect(after(none, [change('a', 'FC1')], false)).toBe(none)
})
