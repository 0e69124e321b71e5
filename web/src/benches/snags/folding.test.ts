import { expect, test } from 'vitest'
import { folded } from './folding'

const rows = [
  { key: 'coil', cause: 'joined' },
  { key: 'joined', cause: '' },
  { key: 'lamp', cause: 'joined' },
  { key: 'orphan', cause: 'muted' },
]

test('what follows is folded under its cause, and counted', () => {
  expect(folded(rows, '').map((r) => [r.key, r.after])).toEqual([
    ['joined', 2],
    ['orphan', 0],
  ])
})

test('unfolded it stands beneath its cause', () => {
  expect(folded(rows, 'joined').map((r) => [r.key, r.follows])).toEqual([
    ['joined', false],
    ['coil', true],
    ['lamp', true],
    ['orphan', false],
  ])
})
