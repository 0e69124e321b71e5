/** The tool in hand on the plan, and what tools read and set of the bench. */
import type { EnclosureValue, SurfaceName } from './shapes'

export type PlanTool =
  | { name: 'choose' | 'lane' | 'through' | 'crossing' }
  | { name: 'rail' | 'duct'; part: string }
  | { name: 'put'; ids: string[] }
  | { name: 'plan'; part: string }
  | { name: 'stamp'; id: string }

export const CHOOSE: PlanTool = { name: 'choose' }

/** The first end of a crossing, while the second is looked for. */
export interface CrossingEnd {
  enclosure: string
  surface: SurfaceName
  x: number
  y: number
}

/** What a tool reads of the bench, and what it sets. */
export interface PlanState {
  surface: SurfaceName
  /** Chosen wires, in the order they were chosen. */
  wires: string[]
  gap: number
  push: boolean
  planning: boolean
  from: CrossingEnd | null
  setFrom: (from: CrossingEnd | null) => void
  setTool: (tool: PlanTool) => void
}

/** The bench and the enclosure that is shown. */
export interface Planned {
  state: PlanState
  enclosure: EnclosureValue
}
