import { afterEach, describe, expect, test, vi } from 'vitest'
import { remember, remembered } from './remember'

/** A store of texts as browsers have it; it may refuse. */
function storage(refuses = false) {
  const texts = new Map<string, string>()
  const refuse = () => {
    if (refuses) throw new Error('not allowed')
  }
  vi.stubGlobal('window', {
    localStorage: {
      getItem: (name: string) => (refuse(), texts.get(name) ?? null),
      setItem: (name: string, value: string) => (refuse(), texts.set(name, value)),
    },
  })
  return texts
}
afterEach(() => vi.unstubAllGlobals())

describe('what a person arranged', () => {
  test('comes back as it was kept, under a name of our own', () => {
    const texts = storage()
    remember('columns', { tag: 120, hidden: ['note'] })
    expect(remembered('columns', null)).toEqual({ tag: 120, hidden: ['note'] })
    expect([...texts.keys()]).toEqual(['spool-columns'])
  })

  test('is what is usual where nothing was kept, or what was is damaged', () => {
    const texts = storage()
    expect(remembered('columns', 'usual')).toBe('usual')
    texts.set('spool-columns', '{"tag":')
    expect(remembered('columns', 'usual')).toBe('usual')
  })

  test('that was kept as nothing is nothing, and not what is usual', () => {
    storage()
    remember('sort', null)
    expect(remembered('sort', 'usual')).toBeNull()
  })

  test('breaks nothing where storage is not allowed, or there is none', () => {
    storage(true)
    expect(() => remember('columns', 1)).not.toThrow()
    expect(remembered('columns', 'usual')).toBe('usual')
    vi.unstubAllGlobals()
    expect(() => remember('columns', 1)).not.toThrow()
    expect(remembered('columns', 'usual')).toBe('usual')
  })
})
