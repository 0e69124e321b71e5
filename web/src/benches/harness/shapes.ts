/** What the server says of harnesses; jolly_server/benches/harness.py makes it. */
import type { SceneValue } from '../../kit/Drawing'

export interface HarnessWire {
  key: string
  number: string
  from: string
  to: string
  type: string
  colour: string
  length_mm: number | null
  missing: string
  why: string
  segments: string[]
  wire_id: string
  sheet_id: string
  place: string
}

export interface Segment {
  id: string
  a: string
  b: string
  length_mm: number
  wires: number
  diameter_mm: number
}

export interface HarnessNode {
  id: string
  device_id: string
  name: string
}

export interface Connector {
  id: string
  tag: string
  text: string
  part: { id: string; number: string; text: string } | null
  cavities: { cavity: string; wires: string[]; to: string[]; contact: string; strip_mm: number }[]
}

export interface HarnessValue {
  id: string
  code: string
  text: string
  page_id: string
  scene: SceneValue | null
  nodes: HarnessNode[]
  segments: Segment[]
  wires: HarnessWire[]
  connectors: Connector[]
}

export interface HarnessView {
  harnesses: { id: string; code: string; text: string }[]
  free: { id: string; tag: string; text: string }[]
  harness: HarnessValue | null
}
