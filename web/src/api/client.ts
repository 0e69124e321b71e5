/** The typed client, the one error shape, and the names of the types the benches use. */
import createClient, { type MaybeOptionalInit } from 'openapi-fetch'
import { heard } from './line'
import type { components, paths } from './schema'

type Schemas = components['schemas']
export type Outline = Schemas['Outline']
export type EditOut = Schemas['EditOut']
export type News = Schemas['News']
export type ViewChange = Schemas['ViewChange']
export type OutlineView = Schemas['OutlineView']
export type AnyEdit = Schemas['EditIn']['edit']
type EditOf = { [E in AnyEdit as E['kind']]: E }
export type Edit<K extends keyof EditOf> = EditOf[K]
export type NewSheet = Schemas['NewSheet']
export type ProjectLine = Schemas['ProjectLine']
export type PartOut = Schemas['PartOut']
export type Me = Schemas['Me']

/** An edit of a kind; what has a usual value may be left out. */
export const makeEdit = <K extends keyof EditOf>(kind: K, fields: Omit<EditOf[K], 'kind'>) =>
  ({ kind, ...(fields as object) }) as EditOf[K]

/** A word picked from a list that the server gave, or the cells of a grid whose columns it named, as an edit wants them. */
export const asGiven = <T>(given: unknown) => given as T

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

type Method = 'get' | 'post' | 'delete'
type PathWith<M extends Method> = {
  [P in keyof paths]: paths[P] extends Record<M, object> ? P : never
}[keyof paths]
type Answer<Operation> = Operation extends {
  responses: { 200: { content: { 'application/json': infer T } } }
}
  ? T
  : unknown
type Given<Init> = Partial<Init> extends Init ? [Init?] : [Init]
type Result<T> = { data?: T; error?: unknown; response: Response }

/** The calls as the schema has them; the library's own types make lists of what are pairs. */
type Ask<M extends Method> = <P extends PathWith<M>, Init extends MaybeOptionalInit<paths[P], M>>(
  url: P,
  ...init: Given<Init>
) => Promise<Result<Answer<paths[P][M]>>>
interface ExactClient {
  GET: Ask<'get'>
  POST: Ask<'post'>
  DELETE: Ask<'delete'>
}

/** What changes something carries the token; it is put in here, so that a question goes out before anything is painted. */
function sent(request: Request) {
  if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrf())
  return fetch(request)
}

export const client = createClient<paths>({ baseUrl: '/', fetch: sent }) as ExactClient

/** Unwrap an answer, or throw a Refusal with the server's own words. */
export async function got<T>(answer: Promise<Result<T>>): Promise<T> {
  let result: Result<T>
  try {
    result = await answer
  } catch {
    heard(0)
    throw new Refusal('The server cannot be reached. What waits is sent when it is back.', 0)
  }
  heard(result.response.status)
  if (result.data !== undefined && result.response.ok) return result.data
  const body = result.error as { message?: string; ids?: string[]; field?: string } | undefined
  const message = body?.message ?? `The server answered ${result.response.status}.`
  throw new Refusal(message, result.response.status, body?.ids ?? [], body?.field ?? '')
}

/** The message of anything that was thrown. */
export const wordsOf = (error: unknown) => (error instanceof Error ? error.message : String(error))
