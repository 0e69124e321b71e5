import { expect, test } from 'vitest'
import { NOTHING, withKind } from './planting'

const fault = {
  words: 'A fuse left out',
  harm: 'fire or shock',
  name: '-FC1',
  place: '10/B3',
  symbol_id: 's',
  sheet_id: 'b',
}

test('kinds are counted, and what goes unseen is kept with a row of its own', () => {
  const first = withKind({ ...NOTHING, kinds: 2, running: true }, 'guard-gone', {
    count: 3,
    unseen: [fault, fault],
  })
  const both = withKind(first, 'pe-cut', { count: 0, unseen: [] })
  expect([both.done, both.count, both.running]).toEqual([2, 3, true])
  expect(both.unseen.map((row) => row.id)).toEqual(['guard-gone 0', 'guard-gone 1'])
})
