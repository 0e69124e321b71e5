import { beforeEach, expect, test } from 'vitest'
import { allSent, counted, heard, isAway, known, useLine } from './line'

const state = () => useLine.getState().state
beforeEach(() => useLine.setState({ state: 'in step', waiting: 0, refused: 0 }))

test.each([0, 502, 504])('with %d the server is away, until it answers anything', (status) => {
  expect(isAway(status)).toBe(true)
  heard(status)
  expect(state()).toBe('away')
  heard(422)
  expect(state()).toBe('in step')
})

test('what it refuses, and what it fails at, is answered', () => {
  for (const status of [200, 409, 422, 500, 503]) heard(status)
  expect(state()).toBe('in step')
})

test('who is signed out stays so until somebody has signed in, also when the server was away meanwhile', () => {
  heard(401)
  expect(state()).toBe('signed out')
  heard(200)
  expect(state()).toBe('signed out')
  known()
  expect(state()).toBe('in step')
})

test('what waits is counted until it has ended, however it ends', async () => {
  let end = () => undefined as void
  const one = counted(new Promise<void>((resolve) => (end = resolve)))
  const other = counted(Promise.reject(new Error('no'))).catch(() => 'no')
  expect(useLine.getState().waiting).toBe(2)
  expect(await other).toBe('no')
  let sent = false
  const all = allSent().then(() => (sent = true))
  await Promise.resolve()
  expect([useLine.getState().waiting, sent]).toEqual([1, false])
  end()
  await one
  await all
  expect([useLine.getState().waiting, sent]).toEqual([0, true])
  await allSent()
})
