/** What the server says of strips; jolly_server/benches/terminals.py makes it. */
export interface Target {
  name: string
  device_id: string
  function_id: string
  symbol_id: string
  cable: string
  core: string
  number: string
  type: string
  sheet_id: string
  place: string
}

export interface StripRow {
  item_id: string
  kind: string
  unit: number
  number: string
  symbol_id: string
  panel: Target[]
  field: Target[]
  unknown: Target[]
  bridges: string[]
  width_mm: number
  terminal_kind: string
  part: string
  sheet_id: string
  place: string
}

/** Terminals of a strip that are ordered alike. */
export interface TerminalGroup {
  kind: string
  words: string
  units: number[]
  part: { id: string; number: string; text: string } | null
}

export interface Strip {
  /** The sheet or page that shows it. */
  plan_id: string
  id: string
  tag: string
  text: string
  part: { id: string; number: string; text: string } | null
  width_mm: number
  groups: TerminalGroup[]
  rows: StripRow[]
}

export interface TerminalsView {
  strips: Strip[]
}
