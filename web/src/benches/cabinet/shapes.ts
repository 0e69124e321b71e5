/** What the server says of layouts; jolly_server/benches/cabinet.py makes it. */
import type { SceneValue } from '../../kit/Drawing'

export type SurfaceName = 'plate' | 'door'

export interface Waiting {
  id: string
  tag: string
  text: string
  part: { id: string; number: string; text: string } | null
  width: number
  height: number
  surface: SurfaceName
  mounting: string
}

export interface Route {
  key: string
  number: string
  from: string
  to: string
  ends: [string, string]
  type: string
  colour: string
  length_mm: number | null
  missing: string
  why: string
  plate: [number, number][]
  door: [number, number][]
  ducts: string[]
  wire_id: string
  sheet_id: string
}

export interface SpaceBox {
  id: string
  kind: 'device' | 'duct' | 'rail'
  surface: SurfaceName
  tag: string
  x: number
  y: number
  width: number
  height: number
  depth: number
}

export interface EnclosureValue {
  id: string
  device_id: string
  tag: string
  text: string
  part: { id: string; number: string; text: string } | null
  ambient_c: number
  hinge: 'left' | 'right'
  /** The enclosure on its left to which the walls are open, "" for none, and how far down the opening is. */
  left_id: string
  opening_mm: number
  margin: number
  outside: [number, number, number]
  plate?: [number, number]
  door?: [number, number]
  problem: string
  faults: { code: string; message: string; ids: string[] }[]
  scene?: SceneValue
  heat?: { loss_w: number; rise_k: number; inside_c: number; why: string }
  boxes?: SpaceBox[]
  routes?: Route[]
  rails?: { id: string; level: boolean; length: number; load: number }[]
  fills?: { duct_id: string; percent: number; wires: number; why: string }[]
}

export interface CabinetView {
  enclosures: { id: string; tag: string; text: string }[]
  tray: Waiting[]
  enclosure: EnclosureValue | null
}
