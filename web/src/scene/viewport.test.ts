import { describe, expect, it, vi } from 'vitest'
import { around, hasView, leadsView, showAll, showBox } from './viewport'

describe('what leads the view', () => {
  it('is nothing while no surface is shown', () => {
    expect(hasView()).toBe(false)
    showAll()
    showBox([0, 0, 10, 10])
  })
  it('brings all into view on every surface, and a box on the one shown last', () => {
    const [first, second] = [vi.fn(), vi.fn()]
    const ends = [leadsView(first), leadsView(second)]
    expect(hasView()).toBe(true)
    showAll()
    expect([first.mock.calls, second.mock.calls]).toEqual([[[null]], [[null]]])
    showBox([1, 2, 3, 4])
    expect(first).toHaveBeenCalledTimes(1)
    expect(second).toHaveBeenLastCalledWith([1, 2, 3, 4])
    ends[1]!()
    showBox([5, 6, 7, 8])
    expect(first).toHaveBeenLastCalledWith([5, 6, 7, 8])
    expect(second).toHaveBeenCalledTimes(2)
    ends[0]!()
    expect(hasView()).toBe(false)
  })
})

describe('the box around boxes', () => {
  it('reaches as far as the furthest, and is none around none', () => {
    expect(around([])).toBeNull()
    expect(around([[5, 6, 7, 8]])).toEqual([5, 6, 7, 8])
    expect(
      around([
        [0, 10, 5, 20],
        [-3, 12, 4, 30],
      ]),
    ).toEqual([-3, 10, 5, 30])
  })
})
