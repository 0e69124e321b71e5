/** What the library's forms offer: classes with their fields, kinds of unit, markings; as the server gives them. */
import { useQuery } from '@tanstack/react-query'
import { client, got } from '../../api/client'

export interface FieldSpec {
  key: string
  name: string
  unit: string
  kind: 'number' | 'text' | 'choice' | 'flag' | 'parts'
  choices: string[]
}

export interface ClassSpec {
  key: string
  name: string
  units: string[]
  fields: string[]
  add_on: boolean
  /** Facts that may be said of units of each kind. */
  details: Record<string, string[]>
}

export interface UnitSpec {
  key: string
  name: string
  many: string
  pins: string[]
}

export interface Kinds {
  classes: ClassSpec[]
  fields: Record<string, FieldSpec>
  facts: Record<string, FieldSpec>
  units: Record<string, UnitSpec>
  core_orders: string[]
  mountings: string[]
}

/** A part as the server reads and writes it. */
export interface PartRecord {
  id: string
  maker: string
  number: string
  part_class: string
  text: string
  units: [string, string[]][]
  ratings: Record<string, string>
  width_mm: number
  height_mm: number
  depth_mm: number
  mounting: string
  supplier: string
  version: number
  details: Record<string, string>[]
  texts: Record<string, string>
  symbols: Record<string, string>
  diameter_mm: number
  weight_kg: number
  order_number: string
  price: number
  currency: string
  link: string
  datasheet: string
  picture: string
  members: string[]
  accessories: string[]
  alternatives: string[]
}

export interface Draft {
  record: PartRecord
  missing: Record<string, string[]>
  problem: string
  understood?: [string, string][]
  left?: string[]
  /** The part's class, also where it is a new one of the house's own. */
  spec: ClassSpec | null
}

export interface Shelf {
  id: string
  name: string
  text: string
  read_only: boolean
  own: boolean
  may_change: boolean
  parts: number
}

export interface Difference {
  field: string
  before: string
  after: string
}

export interface HistoryLine {
  version: number
  act: string
  by: string
  at: string
  library: string
  changed: Difference[]
}

export interface StoredPart extends Draft {
  shelf: { id: string; name: string; may_change: boolean }
  history: HistoryLine[]
  projects: { id: string; name: string; version: number; devices: number }[]
}

export const PURPOSES = ['drawing', 'layout', 'ordering', 'making']

export function useKinds() {
  return useQuery({
    queryKey: ['part-kinds'],
    queryFn: async () => (await got(client.GET('/api/library/kinds'))) as unknown as Kinds,
    staleTime: 60_000,
  }).data
}

export function useShelves() {
  return useQuery({
    queryKey: ['shelves'],
    queryFn: async () => (await got(client.GET('/api/library/shelves'))) as unknown as Shelf[],
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
  return (await got(client.POST('/api/library/draft', { body: body as never }))) as unknown as Draft
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
