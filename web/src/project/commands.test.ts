import { describe, expect, test, vi } from 'vitest'
import { checked, commandFor, isTyping, keyName, paging, type Command } from './commands'

const key = (name: string, held: Partial<KeyboardEvent> = {}) =>
  ({
    key: name,
    ctrlKey: false,
    altKey: false,
    shiftKey: false,
    metaKey: false,
    target: null,
    ...held,
  }) as KeyboardEvent
const command = (id: string, shortcut: string, more: Partial<Command> = {}): Command => ({
  ...{ id, label: id, shortcut, run: () => undefined, ...more },
})

describe('the name of a key', () => {
  test.each<[string, Partial<KeyboardEvent>, string]>([
    ['w', {}, 'W'],
    ['W', { shiftKey: true }, 'Shift+W'],
    ['z', { ctrlKey: true }, 'Ctrl+Z'],
    ['z', { metaKey: true }, 'Ctrl+Z'],
    ['Z', { ctrlKey: true, shiftKey: true }, 'Ctrl+Shift+Z'],
    ['Delete', {}, 'Delete'],
    ['ArrowUp', { shiftKey: true, altKey: true }, 'Alt+Shift+ArrowUp'],
    ['?', { shiftKey: true }, '?'],
    ['+', { shiftKey: true, ctrlKey: true }, 'Ctrl+Shift++'],
    ['0', {}, '0'],
  ])('%s %j is %s', (name, held, said) => expect(keyName(key(name, held))).toBe(said))
})

describe('a command', () => {
  test('is found by its key, the first that may be done', () => {
    const off = command('off', 'W', { enabled: () => false })
    const on = command('on', 'W', { enabled: () => true })
    expect(commandFor(key('w'), [[off], [on]], true)).toBe(on)
    expect(commandFor(key('x'), [[off], [on]], true)).toBeUndefined()
  })

  test('that changes something is not for who may only look', () => {
    const [draws, looks] = [command('draws', 'W'), command('looks', 'L', { reads: true })]
    expect(commandFor(key('w'), [[draws, looks]], false)).toBeUndefined()
    expect(commandFor(key('l'), [[draws, looks]], false)).toBe(looks)
  })

  test('claims a key that no other of its list has', () => {
    expect(() => checked([command('one', 'W'), command('two', 'W')])).toThrow('two and one both claim W')
    const without = [command('one', ''), command('two', '')]
    expect(checked(without)).toBe(without)
  })
})

describe('a key typed into', () => {
  /** A place on the page: what it is, and what it stands in. */
  const place = (tagName: string, within = '', type = '') =>
    ({
      tagName,
      getAttribute: (name: string) => (name === 'type' ? type : null),
      closest: (what: string) => (within && what.includes(`"${within}"`) ? {} : null),
    }) as unknown as EventTarget

  test.each<[string, EventTarget, Partial<KeyboardEvent>, boolean]>([
    ['a field', place('INPUT'), {}, true],
    ['a box that is ticked', place('INPUT', '', 'checkbox'), {}, false],
    ['a button', place('BUTTON'), {}, false],
    ['a dialog', place('BUTTON', 'dialog'), {}, true],
    ['a list of choices', place('LI', 'listbox'), {}, true],
    ['a table', place('DIV', 'grid'), {}, true],
    ['a table, with Ctrl', place('DIV', 'grid'), { ctrlKey: true }, false],
    ['a table, to delete', place('DIV', 'grid'), { key: 'Delete' }, false],
    ['a table, to leave', place('DIV', 'grid'), { key: 'Escape' }, false],
  ])('%s', (_, target, held, typing) => expect(isTyping(key('x', { target, ...held }))).toBe(typing))

  test('nowhere is no typing', () => expect(isTyping(key('x'))).toBe(false))
})

describe('paging', () => {
  const paged = (ids: string[], shown: string | (() => string)) => {
    const go = vi.fn()
    const [next, before] = paging('sheet', ids, shown, go) as [Command, Command]
    return { go, next, before }
  }

  test('goes to the next and to the one before', () => {
    const { go, next, before } = paged(['a', 'b', 'c'], 'b')
    next.run()
    before.run()
    expect(go.mock.calls).toEqual([['c'], ['a']])
    expect([next.label, before.label]).toEqual(['Next sheet', 'Sheet before'])
  })

  test('stays at the ends', () => {
    const { go, before } = paged(['a', 'b'], 'a')
    before.run()
    paged(['a', 'b'], 'b').next.run()
    expect(go).not.toHaveBeenCalled()
  })

  test('begins at the first where none is shown', () => {
    const { go, next } = paged(['a', 'b'], '')
    next.run()
    expect(go).toHaveBeenCalledWith('a')
  })

  test('asks what is shown when the key is pressed', () => {
    let shown = 'a'
    const { go, next } = paged(['a', 'b', 'c'], () => shown)
    shown = 'b'
    next.run()
    expect(go).toHaveBeenCalledWith('c')
  })

  test('is none among one or none', () => {
    expect(paged(['a'], 'a').next.enabled?.()).toBe(false)
    expect(paged([], '').next.enabled?.()).toBe(false)
    paged([], '').next.run()
  })
})
