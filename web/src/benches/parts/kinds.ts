/** What the library's forms offer: classes with their fields, kinds of unit, markings; as the server gives them. */
import { useQuery } from '@tanstack/react-query'
import { client, got } from '../../api/client'
import type { Schemas } from '../../api/shapes'

export type FieldSpec = Schemas['FieldSpec']
export type ClassSpec = Schemas['ClassValue']
export type UnitSpec = Schemas['UnitKind']
export type Kinds = Schemas['Kinds']
export type PartRecord = Schemas['PartRecord']
export type Draft = Schemas['Draft']
export type Shelf = Schemas['ShelfLine']
export type Difference = Schemas['Difference']
export type HistoryLine = Schemas['VersionLine']
export type StoredPart = Schemas['StoredPart']

export const PURPOSES = ['drawing', 'layout', 'ordering', 'making']

export function useKinds() {
  return useQuery({
    queryKey: ['part-kinds'],
    queryFn: async () => await got(client.GET('/api/library/kinds')),
    staleTime: 60_000,
  }).data
}

export function useShelves() {
  return useQuery({
    queryKey: ['shelves'],
    queryFn: async () => await got(client.GET('/api/library/shelves')),
  }).data
}

type DraftIn = { act: 'new' | 'like' | 'text' | 'units' | 'cores' | 'check' } & Record<string, unknown>

/** One step in making a part; nothing is kept by it. */
export async function draftStep(step: DraftIn): Promise<Draft> {
  const body = {
    record: {},
    part_class: '',
    part_id: '',
    text: '',
    kind: '',
    count: 1,
    order: 'numbered',
    protective: false,
    section: '',
    shields: 0,
    class_name: '',
    like: '',
    iec: '',
    na: '',
    ...step,
  }
  return await got(client.POST('/api/library/draft', { body: body as never }))
}

/** A field's typed condition as the server reads it: "24" is equal, "9+" and ">=9" at least, "<=3" at most. */
export function condition(key: string, typed: string): string {
  const text = typed.trim()
  const match = /^(>=|<=|≥|≤)?\s*(.*?)(\+)?$/.exec(text)
  if (!match || !match[2]) return ''
  const sign = match[1] === '≥' ? '>=' : match[1] === '≤' ? '<=' : match[1]
  const least = key.startsWith('units.') && !sign
  return `${key}${sign ?? (match[3] || least ? '>=' : '=')}${match[2]}`
}
