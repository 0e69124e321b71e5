import { beforeEach, describe, expect, test, vi } from 'vitest'
import { change, news, type Server } from '../testing/server'
import { emptyView } from './view'

const held = vi.hoisted(() => ({ server: null as unknown as Server }))
vi.mock('../api/client', async (original) => {
  const { Server } = await import('../testing/server')
  held.server = new Server()
  return { ...(await original<object>()), client: held.server.client }
})
vi.stubGlobal('window', globalThis)

const { arrived, fetchAhead, keep, keptOf, restOn, soon } = await import('./ahead')
const kept = { view: emptyView, revision: 3, found: 3 }
let project = 0
/** A project of its own for each test: what is kept stays for as long as the page does. */
let p = ''
beforeEach(() => {
  held.server.clear()
  p = `p${++project}`
})

describe('views that are kept', () => {
  test('are those of the sheets left last, and of a sheet the last', () => {
    for (let n = 1; n <= 13; n++) keep(p, `s${n}`, { ...kept, revision: n })
    expect(keptOf(p, 's1')).toBeUndefined()
    expect(keptOf(p, 's2')?.revision).toBe(2)
    keep(p, 's2', { ...kept, revision: 20 })
    keep(p, 's14', kept)
    expect(keptOf(p, 's2')?.revision).toBe(20)
    expect(keptOf(p, 's3')).toBeUndefined()
  })

  test('are told apart by project', () => {
    keep(p, 's1', kept)
    expect(keptOf(`${p}x`, 's1')).toBeUndefined()
  })
})

describe('a sheet that may be opened next', () => {
  test('is asked for once, drawn alone, and is there when it came', async () => {
    fetchAhead(p, 's1')
    fetchAhead(p, 's1')
    const question = await held.server.next()
    expect(question.said.params).toMatchObject({
      path: { sheet_id: 's1' },
      query: { ahead: true, drawn: true },
    })
    question.answer(news(7, { view: change({ a: { kind: 'symbol' } }, [], true) }))
    await arrived(p, 's1')
    expect(keptOf(p, 's1')).toMatchObject({
      revision: 7,
      found: -1,
      view: { items: { a: { kind: 'symbol' } } },
    })
    fetchAhead(p, 's1')
    expect(held.server.asked).toHaveLength(1)
    expect(arrived(p, 's1')).toBeUndefined()
  })

  test('with its wires and snags has those of its revision', async () => {
    fetchAhead(p, 's1', false)
    ;(await held.server.next()).answer(news(7, { view: change({}, [], true) }))
    await arrived(p, 's1')
    expect(keptOf(p, 's1')?.found).toBe(7)
  })

  test('that is gone is not kept', async () => {
    fetchAhead(p, 's1')
    ;(await held.server.next()).answer(news(7, { sheet_gone: true }))
    await arrived(p, 's1')
    expect(keptOf(p, 's1')).toBeUndefined()
  })

  test('that could not be had is asked for again, and nobody is told', async () => {
    fetchAhead(p, 's1')
    ;(await held.server.next()).refuse(500, 'broken')
    await arrived(p, 's1')
    fetchAhead(p, 's1')
    ;(await held.server.next()).lose()
    await arrived(p, 's1')
    expect(keptOf(p, 's1')).toBeUndefined()
    expect(held.server.asked).toHaveLength(2)
  })

  test('of no project or no name is none', () => {
    fetchAhead('', 's1')
    fetchAhead(p, '')
    expect(held.server.asked).toHaveLength(0)
  })
})

describe('the pointer on a link', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    return () => vi.useRealTimers()
  })

  test('that rests asks for the sheet, one that passes does not', () => {
    const [first, second] = [soon(p, 's1'), soon(p, 's2')]
    first.onPointerEnter()
    first.onPointerLeave()
    second.onPointerEnter()
    vi.advanceTimersByTime(59)
    expect(held.server.asked).toHaveLength(0)
    vi.advanceTimersByTime(1)
    expect(held.server.asked.map((q) => q.said.params?.path?.['sheet_id'])).toEqual(['s2'])
  })

  test('that is pressed asks at once', () => {
    soon(p, 's1').onPointerDown()
    expect(held.server.asked).toHaveLength(1)
  })

  test('that goes on to nothing asks for nothing', () => {
    restOn(p, 's1')
    restOn(p, '')
    vi.runAllTimers()
    expect(held.server.asked).toHaveLength(0)
  })
})
