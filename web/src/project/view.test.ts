import { describe, expect, test } from 'vitest'
import type { ViewChange } from '../api/client'
import { changed, emptyView, type View } from './view'

const view = { ...emptyView, items: { a: { n: 1 }, b: { n: 2 } }, wires: { w: { n: 3 } } } as unknown as View
const change = (said: object) => ({ whole: false, put: {}, drop: {}, ...said }) as unknown as ViewChange

describe('a view', () => {
  test('is the same where nothing changed', () => {
    expect(changed(view, null)).toBe(view)
    expect(changed(view, undefined)).toBe(view)
    expect(changed(view, change({}))).toEqual(view)
  })

  test('keeps what is untouched as the same objects, section by section', () => {
    const next = changed(view, change({ put: { items: { a: { n: 9 } } } }))
    expect(next.items).toEqual({ a: { n: 9 }, b: { n: 2 } })
    expect(next.items['b']).toBe(view.items['b'])
    expect(next.wires).toBe(view.wires)
    expect(view.items['a']).toEqual({ n: 1 })
  })

  test('loses what is dropped, also what is put and dropped at once', () => {
    const next = changed(
      view,
      change({ put: { items: { c: { n: 4 } } }, drop: { items: ['a', 'c', 'unknown'] } }),
    )
    expect(Object.keys(next.items)).toEqual(['b'])
  })

  test('that comes whole has nothing of the one before', () => {
    const next = changed(view, change({ whole: true, put: { items: { c: { n: 4 } } } }))
    expect(next.items).toEqual({ c: { n: 4 } })
    expect(next.wires).toEqual({})
  })
})
