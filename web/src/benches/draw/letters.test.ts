import { beforeEach, describe, expect, test, vi } from 'vitest'
import type { Command } from '../../project/commands'

const held = vi.hoisted(() => ({
  tool: 'idle',
  /** Whether the tool in hand has drawn something; undefined where it is none that begins. */
  begun: undefined as boolean | undefined,
  taken: [] as string[],
  message: '' as string | null,
}))
vi.mock('./store', () => ({
  now: () => ({ set: ({ message }: { message: null }) => (held.message = message) }),
}))
vi.mock('./tools', () => ({
  atRest: () => held.tool === 'idle',
  moments: () => (held.begun === undefined ? {} : { begun: () => held.begun }),
  take: ({ text }: { text: string }) => held.taken.push(text),
}))
vi.stubGlobal('window', globalThis)
const { flush, forget, isWaiting, typed } = await import('./letters')

const ran: string[] = []
const command = (shortcut: string, more: Partial<Command> = {}): Command => ({
  ...{ id: shortcut, label: shortcut, shortcut, run: () => ran.push(shortcut), ...more },
})
/** B arms the bus, R turns, L locks; PageDown is no letter. */
const arms = command('B', { arms: true, run: () => (ran.push('B'), (held.begun = false)) })
const COMMANDS = [arms, command('R'), command('L', { reads: true }), command('Shift+T'), command('PageDown')]
const press = (key: string, said: Partial<KeyboardEvent> = {}, canEdit = true) =>
  typed(
    { key, ctrlKey: false, altKey: false, metaKey: false, shiftKey: false, ...said } as KeyboardEvent,
    COMMANDS,
    canEdit,
  )

beforeEach(() => {
  vi.useFakeTimers()
  forget()
  press('Escape') // nothing is armed any more
  ran.length = 0
  Object.assign(held, { tool: 'idle', begun: undefined, taken: [], message: 'hint' })
  return () => vi.useRealTimers()
})

describe('a letter', () => {
  test('that is a command waits a moment, and is one then', () => {
    expect(press('r')).toBe(true)
    expect([isWaiting(), ran]).toEqual([true, []])
    vi.advanceTimersByTime(349)
    expect(ran).toEqual([])
    vi.advanceTimersByTime(1)
    expect([isWaiting(), ran]).toEqual([false, ['R']])
  })

  test('that is none opens the list with it', () => {
    expect(press('k')).toBe(true)
    expect([held.taken, ran]).toEqual([['k'], []])
  })

  test('followed by another is a word', () => {
    press('r')
    press('e')
    vi.runAllTimers()
    expect([held.taken, ran]).toEqual([['re'], []])
    expect(held.message).toBeNull()
  })

  test('twice is the command twice', () => {
    press('r')
    press('r')
    vi.runAllTimers()
    expect([held.taken, ran]).toEqual([[], ['R', 'R']])
  })

  test('that waits is done before another key', () => {
    press('r')
    press('PageDown')
    expect(ran).toEqual(['R', 'PageDown'])
  })

  test('with Shift does not wait, and goes on no word', () => {
    press('r')
    press('T', { shiftKey: true })
    expect([ran, held.taken]).toEqual([['R', 'Shift+T'], []])
  })

  test('while a tool is in hand is a command at once', () => {
    held.tool = 'wire'
    press('r')
    expect([ran, isWaiting()]).toEqual([['R'], false])
    expect(press('k')).toBe(false)
  })

  test('can be done at once, and can be forgotten', () => {
    press('r')
    flush()
    press('r')
    forget()
    vi.runAllTimers()
    expect(ran).toEqual(['R'])
  })
})

describe('a letter that arms a tool', () => {
  test('arms it at once, and gives it up for a word', () => {
    press('b')
    expect(ran).toEqual(['B'])
    held.tool = 'bus'
    press('e')
    expect(held.taken).toEqual(['be'])
  })

  test('is not given up once something is drawn', () => {
    press('b')
    held.tool = 'bus'
    held.begun = true
    expect(press('e')).toBe(false)
    expect(held.taken).toEqual([])
  })

  test('is not given up for a key that is no letter, nor for itself', () => {
    press('b')
    press('PageDown')
    press('b')
    press('b')
    expect(held.taken).toEqual([])
    expect(ran).toEqual(['B', 'PageDown', 'B', 'B'])
  })
})

describe('for one who may only look', () => {
  test('letters that change nothing are commands at once, others do nothing', () => {
    expect(press('l', {}, false)).toBe(true)
    expect(press('r', {}, false)).toBe(false)
    expect(press('k', {}, false)).toBe(false)
    expect([ran, held.taken, isWaiting()]).toEqual([['L'], [], false])
  })
})

test.each([{ ctrlKey: true }, { altKey: true }, { metaKey: true }])('with %j it is no letter', (said) => {
  expect(press('k', said)).toBe(false)
  expect(held.taken).toEqual([])
})

describe('a figure', () => {
  test('opens the list with it', () => {
    expect(press('2')).toBe(true)
    expect(held.taken).toEqual(['2'])
  })

  test('0 is left to who fits the sheet, and is a word with a letter right behind it', () => {
    expect(press('0')).toBe(false)
    expect(press('v')).toBe(true)
    expect(held.taken).toEqual(['0v'])
    press('0')
    vi.advanceTimersByTime(351)
    press('k')
    expect(held.taken).toEqual(['0v', 'k'])
    press('0')
    press('r')
    vi.advanceTimersByTime(351)
    expect([ran, held.taken]).toEqual([['R'], ['0v', 'k']])
  })

  test('begins nothing for who only reads, nor with a tool in hand', () => {
    expect(press('2', {}, false)).toBe(false)
    held.tool = 'wire'
    expect(press('2')).toBe(false)
    expect(held.taken).toEqual([])
  })
})
