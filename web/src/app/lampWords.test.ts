import { expect, test } from 'vitest'
import { lampOf } from './lampWords'

test('the lamp says what waits', () => {
  expect(lampOf({ state: 'in step', waiting: 0 }).words).toBe('In step')
  expect(lampOf({ state: 'in step', waiting: 2 }).words).toBe('2 edits waiting')
  expect(lampOf({ state: 'away', waiting: 0 }).words).toBe('Server away')
  expect(lampOf({ state: 'away', waiting: 1 }).words).toBe('Server away, 1 edit waiting')
  expect(lampOf({ state: 'signed out', waiting: 0 }).words).toBe('Signed out')
})
