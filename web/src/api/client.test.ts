import { afterEach, describe, expect, test, vi } from 'vitest'
import { got, makeEdit, Refusal, wordsOf } from './client'

const response = (status: number) => new Response(null, { status })
const refused = async (status: number, error?: object) => {
  const answer = Promise.resolve({ error, response: response(status) })
  return got(answer).catch((e: unknown) => e as Refusal) as Promise<Refusal>
}

describe('an answer', () => {
  test('is what was given', async () => {
    expect(await got(Promise.resolve({ data: { revision: 3 }, response: response(200) }))).toEqual({
      revision: 3,
    })
  })

  test('of nothing but an empty text is an answer', async () => {
    expect(await got(Promise.resolve({ data: '', response: response(200) }))).toBe('')
  })

  test('that refuses is told in the words of the server, with what it is about', async () => {
    const error = await refused(422, { message: 'FC1 is locked.', ids: ['d1'], field: 'text' })
    expect(error).toBeInstanceOf(Refusal)
    expect([error.message, error.status, error.ids, error.field]).toEqual([
      'FC1 is locked.',
      422,
      ['d1'],
      'text',
    ])
  })

  test('without words is told by its number', async () => {
    expect((await refused(500)).message).toBe('The server answered 500.')
    expect((await refused(502, {})).ids).toEqual([])
  })

  test('that did not come is told as such, and that nothing accepted is lost', async () => {
    const lost = await got(Promise.reject(new TypeError('Failed to fetch'))).catch(
      (e: unknown) => e as Refusal,
    )
    expect(lost).toMatchObject({ status: 0 })
    expect(wordsOf(lost)).toContain('cannot be reached')
  })
})

describe('a request', () => {
  afterEach(() => vi.unstubAllGlobals())

  test('that changes something carries the token of the page, a question does not', async () => {
    const sent: Request[] = []
    vi.stubGlobal('document', { cookie: 'other=1; spool_csrf=abc' })
    vi.stubGlobal('fetch', (request: Request) => {
      sent.push(request)
      return Promise.resolve(new Response('{}', { headers: { 'Content-Type': 'application/json' } }))
    })
    const Real = globalThis.Request
    vi.stubGlobal('Request', function (url: string, init: RequestInit) {
      return new Real(new URL(url, 'http://127.0.0.1'), init)
    })
    vi.resetModules()
    const { client } = await import('./client')
    await client.GET('/api/me')
    await client.POST('/api/sign-out')
    expect(sent.map((r) => [r.method, new URL(r.url).pathname, r.headers.get('X-CSRFToken')])).toEqual([
      ['GET', '/api/me', null],
      ['POST', '/api/sign-out', 'abc'],
    ])
  })
})

test('an edit has its kind and what was said of it', () => {
  expect(makeEdit('set-text', { device_id: 'd1', text: 'Pump' })).toEqual({
    kind: 'set-text',
    device_id: 'd1',
    text: 'Pump',
  })
})
