import { beforeEach, describe, expect, test, vi } from 'vitest'
import { makeEdit } from '../api/client'
import type { Server } from '../testing/server'
import { change, news } from '../testing/server'
import { emptyView } from './view'

const held = vi.hoisted(() => ({ server: null as unknown as Server }))
vi.mock('../api/client', async (original) => {
  const { Server } = await import('../testing/server')
  held.server = new Server()
  return { ...(await original<object>()), client: held.server.client }
})
/** What is to be done later, in the hands of the test: no clock runs. */
const clock = {
  waiting: new Map<number, () => void>(),
  count: 0,
  rests() {
    const due = [...this.waiting.values()]
    this.waiting.clear()
    for (const act of due) act()
  },
}
const room = new Map<string, string>()
vi.stubGlobal('sessionStorage', {
  getItem: (name: string) => room.get(name) ?? null,
  setItem: (name: string, text: string) => room.set(name, text),
  removeItem: (name: string) => room.delete(name),
})
vi.stubGlobal('window', {
  setTimeout: (act: () => void) => (clock.waiting.set(++clock.count, act), clock.count),
  clearTimeout: (n: number) => clock.waiting.delete(n),
})

const { useProject } = await import('./store')
const { known, useLine } = await import('../api/line')
const { keepUnsent, unsentOf } = await import('./unsent')
const { getState: now, setState: put } = useProject
const edit = (text: string) => makeEdit('set-text', { device_id: 'd1', text })
const item = (words: string) => ({ kind: 'symbol', words })
const answer = (revision: number, items: Record<string, object> = {}, drop: string[] = []) => ({
  ...{ revision, undo: 'text', redo: '', label: 'text', remarks: [], placed: [], caret: null },
  view: change(items, drop),
})
/** The project is open on sheet s1 with two symbols, at revision 5. */
beforeEach(() => {
  held.server.clear()
  clock.waiting.clear()
  room.clear()
  useLine.setState({ state: 'in step', waiting: 0, refused: 0 })
  const view = { ...emptyView, items: { a: item('A'), b: item('B') } } as unknown as typeof emptyView
  put({
    ...useProject.getInitialState(),
    projectId: 'p',
    sheetId: 's1',
    revision: 5,
    found: 5,
    loaded: true,
    view,
  })
})
const settled = () => new Promise((resolve) => setTimeout(resolve, 0))

describe('an edit', () => {
  test('is sent with the sheet and revision that are shown, and a name of its own', async () => {
    void now().send(edit('one'))
    const { path, said, ...question } = await held.server.next()
    expect(path).toContain('/edits')
    expect(said.body).toMatchObject({ edit: { kind: 'set-text', text: 'one' }, sheet_id: 's1', since: 5 })
    expect(said.body!['key']).toMatch(/\w+-\w+/)
    question.answer(answer(6))
  })

  test('changes what is shown by nothing but the answer, and leaves the rest the same objects', async () => {
    const before = now().view
    const sent = now().send(edit('one'))
    const question = await held.server.next()
    expect(now().view).toBe(before)
    question.answer(answer(6, { a: item('A2') }))
    expect(await sent).toMatchObject({ revision: 6 })
    expect(now().view.items).toMatchObject({ a: item('A2') })
    expect(now().view.items['b']).toBe(before.items['b'])
    expect(now().view.wires).toBe(before.wires)
    expect([now().revision, now().undo]).toEqual([6, 'text'])
  })

  test('waits for the one before; one that is refused does not stop the next', async () => {
    const both = [now().send(edit('one')), now().send(edit('two'))]
    const first = await held.server.next()
    await settled()
    expect(held.server.open).toBe(0)
    first.refuse(422, 'It is locked.')
    const second = await held.server.next()
    expect(second.said.body).toMatchObject({ edit: { text: 'two' } })
    second.answer(answer(6))
    expect((await Promise.all(both)).map((a) => a?.revision)).toEqual([undefined, 6])
  })

  test('that is refused is told in the words of the server, and nothing is changed', async () => {
    const before = now().view
    const sent = now().send(edit('one'))
    ;(await held.server.next()).refuse(422, 'FC1 is locked. Unlock it first.')
    expect(await sent).toBeNull()
    expect(now().message).toMatchObject({ text: 'FC1 is locked. Unlock it first.', kind: 'error' })
    expect([now().view, now().revision]).toEqual([before, 5])
    expect(held.server.open).toBe(0)
  })

  test.each([404, 409])('that is refused with %d asks for what is there now', async (status) => {
    void now().send(edit('one'))
    ;(await held.server.next()).refuse(status, 'Jory has deleted it.')
    const question = await held.server.next()
    expect(question.path).toContain('/changes')
    question.answer(news(7, { view: change({}, ['a']) }))
    await vi.waitFor(() => expect(now().view.items).not.toHaveProperty('a'))
  })

  test('that does not reach the server waits, and is sent again under its name when it is back', async () => {
    const first = now().send(edit('one'))
    const second = now().send(edit('two'))
    const lost = await held.server.next()
    lost.lose()
    await vi.waitFor(() => expect(useLine.getState()).toMatchObject({ state: 'away', waiting: 2 }))
    expect(unsentOf('p').map((u) => u.edit)).toEqual([edit('one'), edit('two')])
    expect(held.server.open).toBe(0)
    clock.rests()
    const again = await held.server.next()
    expect(again.said.body!['key']).toBe(lost.said.body!['key'])
    again.answer(answer(6))
    expect((await first)?.revision).toBe(6)
    const next = await held.server.next()
    expect(next.said.body).toMatchObject({ edit: { text: 'two' } })
    next.answer(answer(7))
    await second
    expect(useLine.getState()).toMatchObject({ state: 'in step', waiting: 0, refused: 0 })
    expect(unsentOf('p')).toEqual([])
  })

  test('of somebody whose session has ended waits until they have signed in', async () => {
    const sent = now().send(edit('one'))
    ;(await held.server.next()).refuse(401, 'Please sign in.')
    await vi.waitFor(() => expect(useLine.getState()).toMatchObject({ state: 'signed out', waiting: 1 }))
    clock.rests()
    await settled()
    expect(held.server.open).toBe(0)
    known()
    ;(await held.server.next()).answer(answer(6))
    expect((await sent)?.revision).toBe(6)
  })

  test('that the server failed at is named, and kept no longer', async () => {
    const sent = now().send(edit('one'))
    ;(await held.server.next()).refuse(500, 'The server answered 500.')
    expect(await sent).toBeNull()
    expect(now().message?.text).toBe('Not done: set text. The server answered 500. Try it again.')
    expect(useLine.getState().refused).toBe(1)
    expect(unsentOf('p')).toEqual([])
  })

  test('under way when the window was loaded anew is sent again, in order and under its name', async () => {
    keepUnsent('p', { key: 'a-1', edit: edit('one') })
    keepUnsent('p', { key: 'b-2', edit: edit('two') })
    const own = now().send(edit('three'))
    now().resume()
    now().resume()
    ;(await held.server.next()).answer(answer(6))
    await own
    for (const key of ['a-1', 'b-2']) {
      const question = await held.server.next()
      expect(question.said.body).toMatchObject({ key })
      question.answer(answer(6))
    }
    await vi.waitFor(() => expect(unsentOf('p')).toEqual([]))
    expect(held.server.asked.filter((q) => q.path.endsWith('/edits'))).toHaveLength(3)
  })

  test('that is accepted takes away what was said of the one before, and says its remarks', async () => {
    now().say('It is locked.', 'error')
    void now().send(edit('one'))
    ;(await held.server.next()).answer(answer(6))
    await vi.waitFor(() => expect(now().message).toBeNull())
    void now().send(edit('two'))
    ;(await held.server.next()).answer({ ...answer(7), remarks: ['W1 lost its number.', 'W2 too.'] })
    await vi.waitFor(() => expect(now().message?.text).toBe('W1 lost its number. W2 too.'))
  })

  test('whose answer is older than what is shown is not taken', async () => {
    const sent = now().send(edit('one'))
    const question = await held.server.next()
    put({ revision: 9 })
    question.answer(answer(6, { a: item('old') }))
    await sent
    expect(now().revision).toBe(9)
    expect(now().view.items['a']).toEqual(item('A'))
  })

  test('answered on another sheet changes nothing of that: it is asked for', async () => {
    const sent = now().send(edit('one'))
    const question = await held.server.next()
    put({ sheetId: 's2' })
    question.answer(answer(6, { a: item('of the first sheet') }))
    await sent
    expect(now().view.items['a']).toEqual(item('A'))
    expect((await held.server.next()).said.params?.query).toMatchObject({ sheet_id: 's2' })
  })

  test('leaves selected what is still there', async () => {
    now().select(['a', 'b'])
    const sent = now().send(edit('one'))
    ;(await held.server.next()).answer(answer(6, {}, ['a']))
    await sent
    expect([...now().selection]).toEqual(['b'])
  })

  test('points the caret only on the sheet it was made on', async () => {
    const sent = now().send(edit('one'))
    ;(await held.server.next()).answer({ ...answer(6), caret: [30, 40] })
    await sent
    expect(now().pointed).toEqual({ at: [30, 40] })
  })
})

describe('a step back', () => {
  test('says what was taken back', async () => {
    const step = now().step('undo')
    const question = await held.server.next()
    expect(question.path).toContain('/undo')
    question.answer({ ...answer(6), label: 'text of FC1' })
    await step
    expect(now().message).toMatchObject({ text: 'text of FC1', kind: 'info' })
  })

  test('comes after the edits before it', async () => {
    void now().send(edit('one'))
    void now().step('redo')
    ;(await held.server.next()).answer(answer(6))
    const question = await held.server.next()
    expect(question.path).toContain('/redo')
    expect(question.said.body).toMatchObject({ since: 6 })
    question.answer(answer(7))
  })
})

describe('a preview', () => {
  const seen = () => now().preview && [now().preview!.label, now().preview!.problem]

  test('shows what would be, and changes nothing', async () => {
    const before = now().view
    now().ask(edit('one'))
    ;(await held.server.next()).answer({ ...answer(6, { a: item('A2') }), label: 'text of FC1' })
    await vi.waitFor(() => expect(seen()).toEqual(['text of FC1', '']))
    expect([...now().preview!.changed]).toEqual(['a'])
    expect([now().view, now().revision]).toEqual([before, 5])
  })

  test('is of what was asked for last, whatever comes in between', async () => {
    now().ask(edit('one'))
    const first = await held.server.next()
    now().ask(edit('two'))
    now().ask(edit('three'))
    first.answer({ ...answer(6), label: 'one' })
    const last = await held.server.next()
    expect(last.said.body).toMatchObject({ edit: { text: 'three' } })
    expect(seen()).toBeNull()
    last.answer({ ...answer(6), label: 'three' })
    await vi.waitFor(() => expect(seen()).toEqual(['three', '']))
    expect(held.server.asked).toHaveLength(2)
  })

  test('is shown no more once nothing is thought of, also when it comes late', async () => {
    now().ask(edit('one'))
    const question = await held.server.next()
    now().ask(null)
    question.answer({ ...answer(6), label: 'one' })
    await settled()
    expect(now().preview).toBeNull()
  })

  test('says why it cannot be, but not that nothing would change', async () => {
    now().ask(edit('one'))
    ;(await held.server.next()).refuse(422, 'There is no room.')
    await vi.waitFor(() => expect(seen()).toEqual(['', 'There is no room.']))
    now().ask(edit('two'))
    ;(await held.server.next()).refuse(422, 'Nothing would change.')
    await vi.waitFor(() => expect(seen()).toEqual(['', '']))
  })

  test('of a revision that is gone is not shown', async () => {
    now().ask(edit('one'))
    const question = await held.server.next()
    put({ revision: 6 })
    question.answer({ ...answer(6), label: 'one' })
    await settled()
    expect(now().preview).toBeNull()
  })

  test('goes with the edit that is made', async () => {
    now().ask(edit('one'))
    ;(await held.server.next()).answer({ ...answer(6), label: 'one' })
    await vi.waitFor(() => expect(now().preview).not.toBeNull())
    const sent = now().send(edit('one'))
    ;(await held.server.next()).answer(answer(6))
    await sent
    expect(now().preview).toBeNull()
  })
})

describe('opening a sheet', () => {
  const view = (words: string) => change({ x: item(words) }, [], true)

  test('lets the old drawing stand until the new one is there, and selects nothing on it', async () => {
    now().select(['a'])
    const opened = now().open('p', 's2')
    const question = await held.server.next()
    expect(question.path).toContain('/sheets/{sheet_id}/view')
    expect(now().view.items).toHaveProperty('a')
    expect([now().loaded, now().selection.size]).toEqual([false, 0])
    question.answer(news(5, { view: view('X') }))
    await opened
    expect(Object.keys(now().view.items)).toEqual(['x'])
    expect(now().loaded).toBe(true)
  })

  test('of another project shows nothing of the one before', async () => {
    void now().open('q', 's9')
    const question = await held.server.next()
    expect([now().view, now().revision]).toEqual([emptyView, -1])
    question.answer(news(2, { view: view('X') }))
  })

  test('that comes late does not replace the one that is open by then', async () => {
    void now().open('p', 's3')
    const first = await held.server.next()
    const opened = now().open('p', 's4')
    const second = await held.server.next()
    second.answer(news(5, { view: view('fourth') }))
    await opened
    first.answer(news(5, { view: view('third') }))
    await settled()
    expect(now().view.items['x']).toEqual(item('fourth'))
  })

  test('that is gone says so, and is not asked for again and again', async () => {
    const opened = now().open('p', 's5')
    ;(await held.server.next()).refuse(422, 'There is no such sheet.')
    await opened
    expect([now().gone, now().loaded, now().message?.text]).toEqual([true, true, 'There is no such sheet.'])
  })

  test('asked for by a click is not asked for again when the page follows', async () => {
    now().openAhead('p', 's6')
    const question = await held.server.next()
    await now().open('p', 's6')
    expect(held.server.asked).toHaveLength(1)
    question.answer(news(5, { view: view('X') }))
  })
})

describe('looking what is new', () => {
  test('takes in what others did, and who is here', async () => {
    const polled = now().poll()
    const question = await held.server.next()
    expect(question.said.params?.query).toMatchObject({ since: 5, found: 5, sheet_id: 's1' })
    question.answer(
      news(6, { view: change({ a: item('theirs') }), people: [{ name: 'Jory', sheet_id: 's1' }] }),
    )
    await polled
    expect(now().view.items['a']).toEqual(item('theirs'))
    expect(now().people).toHaveLength(1)
  })

  test('leaves people as they are when they are not told of', async () => {
    put({ people: [{ name: 'Jory', sheet_id: 's1' }] })
    const polled = now().poll()
    ;(await held.server.next()).answer(news(5))
    await polled
    expect(now().people).toHaveLength(1)
  })

  test('says nothing when the server is away', async () => {
    const polled = now().poll()
    ;(await held.server.next()).lose()
    await polled
    expect(now().message).toBeNull()
  })

  test('is not done where no project is open', async () => {
    put({ projectId: '' })
    await now().poll()
    expect(held.server.asked).toHaveLength(0)
  })

  test('notices that the sheet is gone, and that it is back', async () => {
    for (const gone of [true, false]) {
      const polled = now().poll()
      ;(await held.server.next()).answer(news(5, { sheet_gone: gone }))
      await polled
      expect(now().gone).toBe(gone)
    }
  })
})

describe('wires and snags of a drawing', () => {
  test('are asked for when one rests on it, once for several edits', async () => {
    for (const revision of [6, 7]) {
      const sent = now().send(edit('one'))
      ;(await held.server.next()).answer(answer(revision))
      await sent
    }
    expect(held.server.open).toBe(0)
    clock.rests()
    const question = await held.server.next()
    expect(question.said.params?.query).toMatchObject({ since: 7, found: 5 })
    question.answer(news(7))
    await vi.waitFor(() => expect(now().found).toBe(7))
    clock.rests()
    expect(held.server.open).toBe(0)
  })

  test('take away nothing that is previewed on it', async () => {
    put({ found: 4 })
    now().ask(edit('one'))
    ;(await held.server.next()).answer({ ...answer(6), label: 'one' })
    await vi.waitFor(() => expect(now().preview).not.toBeNull())
    const polled = now().poll()
    ;(await held.server.next()).answer(news(5))
    await polled
    expect(now().preview?.label).toBe('one')
    expect(now().found).toBe(5)
  })
})

test('a project is entered once', () => {
  now().enter('p', 9, 'u', 'r')
  expect(now().revision).toBe(5)
  now().enter('q', 9, 'u', 'r')
  expect([now().projectId, now().sheetId, now().revision, now().undo]).toEqual(['q', '', 9, 'u'])
})
