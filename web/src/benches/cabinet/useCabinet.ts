/** What the bench holds: how one looks, the tool in hand, what is chosen, parts of rails and ducts. */
import { useRef, useState } from 'react'
import type { AnyEdit } from '../../api/client'
import { held } from '../../kit/held'
import { useProject } from '../../project/store'
import { momentsOf, placing } from './planTools'
import { CHOOSE, type CrossingEnd, type PlanTool } from './planTool'
import type { Look, SurfaceName } from './shapes'

/** What is chosen: things of the layout, and wires in the order they were chosen. */
function useChosen() {
  const [selected, setSelected] = useState<Set<string>>(new Set())
  const [wires, setWires] = useState<string[]>([])
  const select = (ids: string[], add: boolean) => {
    if (!add) setWires([])
    setSelected(new Set(add ? [...selected, ...ids] : ids))
  }
  const chooseWire = (key: string, add: boolean) => {
    if (add) setWires(wires.includes(key) ? wires.filter((k) => k !== key) : [...wires, key])
    else setWires(wires.length === 1 && wires[0] === key ? [] : [key])
  }
  return { selected, setSelected, wires, setWires, select, chooseWire }
}

export function useCabinet() {
  const [look, setLook] = useState<Look>('plate')
  const [tool, setTool] = useState<PlanTool>(CHOOSE)
  const [gap, setGap] = useState(0)
  const [push, setPush] = useState(false)
  const [planning, setPlanning] = useState(true)
  const [carried, setCarried] = useState<string[]>([])
  const [parts, setParts] = useState({ rail: '', duct: '' })
  const [pickingRuns, setPickingRuns] = useState(false)
  const [from, setFrom] = useState<CrossingEnd | null>(null)
  const [proposing, setProposing] = useState(false)
  const [looking, setLooking] = useState(false)
  /** What Enter ends, of the tool in hand. */
  const finish = useRef<(() => void) | null>(null)
  const surface: SurfaceName = look === 'space' ? 'plate' : look === 'door-back' ? 'door' : look
  const take = (next: PlanTool) => {
    setFrom(null)
    setTool(held(tool, next.name) && !held(next, 'put') ? CHOOSE : next)
  }
  /** Draw rails or ducts of the part that is chosen; without one it is asked for. */
  const draw = (what: 'rail' | 'duct') =>
    parts[what] ? take({ name: what, part: parts[what] }) : setPickingRuns(true)
  return {
    ...{ look, setLook, tool, setTool, take, gap, setGap, push, setPush, parts, setParts, from, setFrom },
    ...{ planning, setPlanning, carried, setCarried },
    ...{ proposing, setProposing, looking, setLooking, pickingRuns, setPickingRuns },
    ...{ surface, draw, finish, ...useChosen() },
  }
}

export type State = ReturnType<typeof useCabinet>

/** The edit that putting down what is held is: devices of the tray, a planned one, or a kept layout. */
export function putEdit(
  state: State,
  enclosure: string,
  x: number,
  y: number,
  dropped?: string[],
): AnyEdit | null {
  const { tool, surface } = state
  const at = { enclosure_id: enclosure, surface, x: Math.round(x), y: Math.round(y) }
  if (dropped) return dropped.length ? placing(state, dropped, at) : null
  return momentsOf(tool).edit?.(state, tool, at) ?? null
}

/** Put what is held down where the pointer is; it is chosen then. */
export async function put(state: State, enclosure: string, x: number, y: number, dropped?: string[]) {
  const edit = putEdit(state, enclosure, x, y, dropped)
  const answer = edit && (await useProject.getState().send(edit))
  if (!answer) return
  if (momentsOf(state.tool).once) state.setTool(CHOOSE)
  state.setSelected(new Set(answer.placed))
}
