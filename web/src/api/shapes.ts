/** Shapes of values that the schema leaves open: scenes, ledger rows, device cards. */

import type { AnyEdit } from './client'

/** A primitive of a scene; jolly_core/scenes/primitives.py documents the kinds. */
export type Prim = [string, ...unknown[]]
export type Box = [number, number, number, number]

export interface Item {
  id: string
  kind: string
  prims: Prim[]
  box: Box
  facts: {
    device?: string
    definition?: string
    tag?: string
    text?: string
    group?: number
    number?: string
    fixed?: boolean
    type?: string
    name?: string
    locked?: boolean
    /** How many poles a symbol has and may have; texts of it that were moved ("dx,dy") or hidden ("off"). */
    poles?: [number, number]
    texts?: Record<string, string>
    /** How far texts have moved by themselves, to be clear of others: "dx,dy" in mm by role. */
    settled?: Record<string, string>
    /** What a figure is, its location, and its corners in grid steps. */
    figure?: string
    location?: string
    dashed?: boolean
    corners?: [number, number, number, number]
    ends?: [number, number][]
    pins?: [number, number][]
    body?: Box
    /** The graphics of a symbol that somebody drew; the others are fetched once. */
    art?: Prim[]
    /** Ends of a rail or duct in plate mm, and length and ends of a harness segment on its board. */
    run?: [number, number, number, number]
    length?: number
    from?: [number, number]
    to?: [number, number]
  }
}

export interface WireRow {
  id: string
  number: string
  from: string
  to: string
  type: string
  colour: string
  size: string
  place: string
  wire_id: string
  wires: string[]
  /** Its two pins, as orders of a net name them. */
  pins: [string, string]
  /** A person decided by which conductors its net is joined. */
  own: boolean
}

export interface DeviceRow {
  id: string
  tag: string
  text: string
  part: string
  what: string
  place: string
  symbols: string[]
}

/** The edit that puts a snag right in one step, with the word for its button. */
export interface SnagAct {
  label: string
  edit: AnyEdit
}

export interface SnagRow {
  order: number
  key: string
  code: string
  severity: string
  message: string
  ids: string[]
  at: [number, number]
  place: string
  mend: string
  device_id: string
  act: SnagAct | null
}

export interface SheetFacts {
  id: string
  number: string
  title: string
  kind: string
  /** Made from the project: looked at, not drawn on. */
  made: boolean
  frame: string
  function_id: string
  location_id: string
  width: number
  height: number
  /** Number, y, and the first y and x that count to it, of each ladder line; grid steps, ladder by ladder, top down. */
  lines: [number, number, number, number][]
  rails: [number, number]
  standard: string
}

export interface View {
  items: Record<string, Item>
  wires: Record<string, WireRow>
  devices: Record<string, DeviceRow>
  snags: Record<string, SnagRow>
  sheet: { sheet?: SheetFacts }
}

export interface DeviceCard {
  id: string
  tag: string
  full_tag: string
  fixed: boolean
  text: string
  function_id: string
  location_id: string
  what: string
  class: string
  part: { id: string; number: string; maker: string; text: string } | null
  ratings: { key: string; name: string; value: string; unit: string }[]
  stale: { field: string; before: string; after: string }[]
  units: {
    kind: string
    unit: string
    number: number
    pins: string
    place: string
    symbol_id: string
    sheet_id: string
    definition: string
  }[]
  wired: { pin: string; number: string; to: string; symbol: string }[]
  snags: { message: string; mend: string; severity: string; act: SnagAct | null }[]
  needs: Record<string, number>
}

export interface Offer {
  definition: string
  name: string
  device_id: string
  tag: string
  note: string
  text: string
  part_id: string
  /** The graphics of a symbol that somebody drew. */
  art: Prim[] | null
}

export interface Candidate {
  id: string
  tag: string
  text: string
  pins: string
  place: string
}

export interface SheetLine {
  id: string
  number: string
  title: string
  subtitle: string
  kind: string
  document: string
  drawn: boolean
  size: string
  frame: string
  function_id: string
  location_id: string
  function: string
  function_text: string
  location: string
}

/** A generated page of the drawing set. */
export interface PageLine {
  id: string
  number: string
  title: string
  kind: string
}

/** A bus the project usually has: its name and the wire types of its conductors. */
export interface BusLine {
  label: string
  types: string[]
}

export interface WireTypeLine {
  id: string
  name: string
  colour: string
  cross_section_mm2: number
  awg: string
  category: string
  numbered: boolean
  outside: boolean
  number_at: string
}

export const emptyView: View = { items: {}, wires: {}, devices: {}, snags: {}, sheet: {} }
