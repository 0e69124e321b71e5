/** The typed client, the one error shape, and the names of the types the benches use. */
import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

type Schemas = components['schemas']
export type Outline = Schemas['Outline']
export type EditOut = Schemas['EditOut']
export type News = Schemas['News']
export type ViewChange = Schemas['ViewChange']
export type AnyEdit = Schemas['EditIn']['edit']
export type ProjectLine = Schemas['ProjectLine']
export type PartOut = Schemas['PartOut']
export type Me = Schemas['Me']

/** What the server says when it refuses. */
export class Refusal extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly ids: string[] = [],
    readonly field = '',
  ) {
    super(message)
  }
}

const csrf = () => /(?:^|; )spool_csrf=([^;]*)/.exec(document.cookie)?.[1] ?? ''

export const client = createClient<paths>({ baseUrl: '/' })
client.use({
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrf())
    return request
  },
})

type Result<T> = { data?: T; error?: unknown; response: Response }

/** Unwrap an answer, or throw a Refusal with the server's own words. */
export async function got<T>(answer: Promise<Result<T>>): Promise<T> {
  let result: Result<T>
  try {
    result = await answer
  } catch {
    throw new Refusal('The server cannot be reached. Your last accepted edit is safe.', 0)
  }
  if (result.data !== undefined && result.response.ok) return result.data
  const body = result.error as { message?: string; ids?: string[]; field?: string } | undefined
  const message = body?.message ?? `The server answered ${result.response.status}.`
  throw new Refusal(message, result.response.status, body?.ids ?? [], body?.field ?? '')
}

/** The message of anything that was thrown. */
export const wordsOf = (error: unknown) => (error instanceof Error ? error.message : String(error))
