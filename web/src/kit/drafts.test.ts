import { beforeEach, expect, test, vi } from 'vitest'
import { draftOf, keepDraft } from './drafts'

const room = new Map<string, string>()
vi.stubGlobal('sessionStorage', {
  getItem: (name: string) => room.get(name) ?? null,
  setItem: (name: string, text: string) => room.set(name, text),
})
beforeEach(() => room.clear())

test('a draft is kept under its name until it is dropped, beside others', () => {
  keepDraft('p/s1|Title', { base: 'Pumps', text: 'Pumps and fans' })
  keepDraft('p/s2|Title', { base: '', text: 'Lights' })
  expect(draftOf('p/s1|Title')).toEqual({ base: 'Pumps', text: 'Pumps and fans' })
  keepDraft('p/s1|Title', null)
  expect(draftOf('p/s1|Title')).toBeUndefined()
  expect(draftOf('p/s2|Title')?.text).toBe('Lights')
})

test('where there is no place to keep it under, or what is there cannot be read, there is none', () => {
  keepDraft('', { base: '', text: 'x' })
  expect(room.size).toBe(0)
  room.set('spool.drafts', 'no JSON')
  expect(draftOf('p/s1|Title')).toBeUndefined()
})
