/** What the Brief bench's endpoints answer. */
import type { Item } from '../../api/shapes'

export interface SheetRecord {
  id: string
  number: string
  title: string
  subtitle: string
  order: number
  kind: string
  size: string
  frame: 'ladder' | 'zones'
  function_id: string
  location_id: string
  first_line: number
  line_count: number
  line_spacing: number
  ladders: number
  columns: number
  rows: number
  title_block_id: string
  device_id: string
  enclosure_id: string
  harness_id: string
  report: string
  fields: Record<string, string>
}

export interface Habit {
  id: string
  kind: string
  size: string
  frame: 'ladder' | 'zones'
  line_count: number
  line_spacing: number
  ladders: number
  columns: number
  rows: number
  title_block_id: string
  left_rail_type_id: string
  right_rail_type_id: string
}

interface Named {
  id: string
  name: string
}

export interface Sheets {
  sheets: SheetRecord[]
  habits: Habit[]
  kinds: (Named & { drawn: boolean; subject: '' | 'device_id' | 'enclosure_id' | 'harness_id' | 'report' })[]
  sizes: string[]
  blocks: Named[]
  own_fields: string[]
  subjects: Record<string, Named[]>
}

export interface Cell {
  id: string
  block_id: string
  x: number
  y: number
  width: number
  height: number
  heading: string
  content: string
  size_mm: number
  anchor: 'start' | 'middle' | 'end'
  border: boolean
  picture_id: string
}

export interface Blocks {
  project: (Named & { used: string })[]
  built_in: Named[]
  library: Named[]
  block: { id: string; name: string; width_mm: number; height_mm: number }
  cells: Cell[]
  scene: { width: number; height: number; items: Item[] }
  fields: { name: string; help: string; text: string }[]
  pictures: { id: string; name: string; width_px: number; height_px: number }[]
}

export interface JournalLine {
  revision: number
  who: string
  at: string
  act: string
  label: string
  live: boolean
  count: number
  objects: { kind: string; name: string; id: string; sheet_id: string }[]
}

export interface JournalDetail extends JournalLine {
  changes: { kind: string; name: string; id: string; what: string; fields: [string, string, string][] }[]
  more: number
  sheets: { id: string; number: string; title: string }[]
  can: boolean
  why: string
  later: JournalLine[]
}

export interface SheetThen {
  width: number
  height: number
  items: Item[]
}

export interface WireTypeRecord {
  id: string
  name: string
  colour: string
  cross_section_mm2: number
  awg: string
  category: string
  numbered: boolean
  outside: boolean
  number_at: string
  used: number
}

/** A piece of a number with its texts: digits and first number of a running one, the words of a fixed text. */
export type NumberPiece = [string, string[]]

export interface NumberRuleRecord {
  id: string
  name: string
  pieces: NumberPiece[]
  category: string
  type_id: string
  at_channel: boolean
  potential: string
  function_id: string
  location_id: string
  scope: string
}

export interface TagRuleRecord {
  id: string
  part_class: string
  function_id: string
  location_id: string
  letters: string
  start: number
}

export interface WiringHabits {
  types: WireTypeRecord[]
  categories: string[]
  number_places: string[]
  rules: NumberRuleRecord[]
  own_pattern: string
  potentials: string[]
  letters: { id: string; name: string; letters: string; usual: string; own: string; start: number }[]
  tag_rules: TagRuleRecord[]
  fixed_numbers: number
  wires: number
}
