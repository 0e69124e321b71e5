/** A server for unit tests: it answers when the test says so, and notes what it was asked. */
import { vi } from 'vitest'
import type { News, ViewChange } from '../api/client'

export interface Question {
  method: string
  path: string
  said: {
    params?: { path?: Record<string, string>; query?: Record<string, unknown> }
    body?: Record<string, unknown>
  }
  answer: (data: object) => void
  refuse: (status: number, message: string) => void
  /** As when there is no server. */
  lose: () => void
}

/** All that was asked, the latest last; `next` gives what nobody has answered yet, the first first. */
export class Server {
  asked: Question[] = []
  private waiting: Question[] = []

  client = { GET: this.takes('GET'), POST: this.takes('POST'), DELETE: this.takes('DELETE') }

  clear() {
    this.asked = []
    this.waiting = []
  }

  /** Wait for a question that is still open, and take it. */
  async next(): Promise<Question> {
    await vi.waitFor(() => {
      if (!this.waiting.length) throw new Error('Nothing was asked.')
    })
    return this.waiting.shift()!
  }

  get open() {
    return this.waiting.length
  }

  private takes(method: string) {
    return (path: string, said: Question['said']) =>
      new Promise((resolve, reject) => {
        const response = (status: number) => new Response(null, { status })
        const question = {
          ...{ method, path, said },
          answer: (data: object) => resolve({ data, response: response(200) }),
          refuse: (status: number, message: string) =>
            resolve({ error: { message }, response: response(status) }),
          lose: () => reject(new TypeError('Failed to fetch')),
        }
        this.asked.push(question)
        this.waiting.push(question)
      })
  }
}

/** What is answered about a sheet: items by id, and which are dropped. */
export const change = (items: Record<string, object>, drop: string[] = [], whole = false) =>
  ({ whole, put: { items }, drop: { items: drop } }) as unknown as ViewChange

export const news = (revision: number, said: Partial<News> = {}) => ({
  ...{ revision, undo: '', redo: '', people_key: 'k', sheet_gone: false, view: null, people: null, ...said },
})
