import { beforeEach, describe, expect, test, vi } from 'vitest'

type Point = [number, number]
const held = vi.hoisted(() => ({
  state: {} as Record<string, unknown>,
  moments: {} as { begin?: (at: Point) => void; steer?: (to: Point) => void },
}))
vi.mock('../../scene/Surface', () => ({ GRID: 2.5 }))
vi.mock('./store', () => ({ now: () => held.state }))
vi.mock('./tools/moments', () => ({ moments: () => held.moments }))
const { moveCaret } = await import('./caret')

let caret: Point
/** A sheet of 100 by 60 grid steps with lines at 16 and 25, a symbol with two pins, a wire. */
beforeEach(() => {
  caret = [20, 16]
  held.moments = {}
  const items = {
    symbol: {
      facts: {
        pins: [
          [30, 16],
          [40, 16],
        ],
      },
    },
    wire: {
      facts: {
        ends: [
          [20, 30],
          [21, 40],
        ],
      },
    },
    words: { facts: {} },
  }
  const sheet = {
    sheet: {
      width: 250,
      height: 150,
      lines: [
        [101, 16],
        [102, 25],
      ],
    },
  }
  held.state = {
    view: { items, sheet },
    get caret() {
      return caret
    },
    set: (said: { caret: Point }) => (caret = said.caret),
  }
})

describe('the caret', () => {
  test('goes a step', () => {
    moveCaret(1, 0, false)
    moveCaret(0, -1, false)
    expect(caret).toEqual([21, 15])
  })

  test('stays on the sheet', () => {
    caret = [1, 1]
    moveCaret(-1, 0, false)
    moveCaret(0, -1, false)
    expect(caret).toEqual([1, 1])
    caret = [99, 59]
    moveCaret(1, 0, false)
    moveCaret(0, 1, false)
    expect(caret).toEqual([99, 59])
  })

  test('goes far to the next thing on its row, and on from there', () => {
    moveCaret(1, 0, true)
    expect(caret).toEqual([30, 16])
    moveCaret(1, 0, true)
    expect(caret).toEqual([40, 16])
    moveCaret(-1, 0, true)
    expect(caret).toEqual([30, 16])
  })

  test('goes far down to the next line or end about its column, and keeps its column', () => {
    moveCaret(0, 1, true)
    expect(caret).toEqual([20, 25])
    moveCaret(0, 1, true)
    expect(caret).toEqual([20, 30])
    moveCaret(0, 1, true)
    expect(caret).toEqual([20, 40])
  })

  test('goes far by a pitch where nothing is', () => {
    moveCaret(-1, 0, true)
    expect(caret).toEqual([10, 16])
    moveCaret(0, -1, true)
    expect(caret).toEqual([10, 7])
  })

  test('is nowhere without a sheet', () => {
    held.state['view'] = { items: {}, sheet: {} }
    moveCaret(1, 0, false)
    expect(caret).toEqual([20, 16])
  })

  test('begins and steers the tool in hand instead, from where it stood', () => {
    const said: unknown[] = []
    held.moments = { begin: (at) => said.push(['begin', at]), steer: (to) => said.push(['steer', to]) }
    moveCaret(1, 0, false)
    expect(said).toEqual([
      ['begin', [20, 16]],
      ['steer', [21, 16]],
    ])
    expect(caret).toEqual([20, 16])
  })
})
