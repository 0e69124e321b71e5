/** What the pointer does on the plan: it puts, draws rails, ducts, lanes and crossings, leads wires, chooses and moves. */
import { useEffect, useRef, useState } from 'react'
import { itemUnder } from '../../kit/itemUnder'
import type { At } from '../../scene/Surface'
import type { AnyEdit } from '../../api/client'
import { useProject } from '../../project/store'
import type { P, Run } from './PlanLayers'
import type { EnclosureValue } from './shapes'
import { momentsOf } from './planTools'
import { putEdit, type State } from './useCabinet'
import { useLanding } from './useLanding'

export interface PlanProps {
  state: State
  enclosure: EnclosureValue
  canEdit: boolean
  onPut: (x: number, y: number, dropped?: string[]) => void
}

const KINDS = new Set(['placing', 'rail', 'duct', 'lane', 'crossing'])
const STEP = 5
const snap = (value: number) => Math.round(value / STEP) * STEP

/** Corners of a lane, clicked one after the other; pieces are level or upright unless Alt is held. */
function useLane({ state, enclosure }: PlanProps) {
  const [corners, setCorners] = useState<P[]>([])
  const [tip, setTip] = useState<P | null>(null)
  const on = momentsOf(state.tool).corners ?? false
  const { finish } = state
  const end = () => {
    if (corners.length > 1)
      void useProject.getState().send({
        kind: 'draw-lane',
        enclosure_id: enclosure.id,
        surface: state.surface,
        points: corners,
        categories: [],
      })
    setCorners([])
    setTip(null)
  }
  const done = useRef(end)
  done.current = end
  useEffect(() => {
    if (!on) return
    finish.current = () => done.current()
    return () => {
      finish.current = null
      setCorners([])
      setTip(null)
    }
  }, [on, finish])
  const straight = (x: number, y: number, free: boolean): P => {
    const last = corners[corners.length - 1]
    const [sx, sy] = [snap(x), snap(y)]
    if (!last || free) return [sx, sy]
    return Math.abs(sx - last[0]) >= Math.abs(sy - last[1]) ? [sx, last[1]] : [last[0], sy]
  }
  const click = (x: number, y: number, event: PointerEvent | MouseEvent) => {
    const next = straight(x, y, event.altKey)
    const last = corners[corners.length - 1]
    if (event.detail > 1 || (last && last[0] === next[0] && last[1] === next[1])) return end()
    setCorners([...corners, next])
  }
  const line = tip && corners.length ? [...corners, tip] : corners
  return { on, line, click, over: (x: number, y: number, free: boolean) => setTip(straight(x, y, free)) }
}

/** Moving what is chosen. */
const moveEdit = (state: State, [dx, dy]: P): AnyEdit => ({
  ...{ kind: 'move-in-layout', ids: [...state.selected] },
  ...{ dx, dy, push: state.push },
})

export function usePointer(props: PlanProps) {
  const { state, enclosure, canEdit, onPut } = props
  const { tool, selected, surface, look } = state
  const pressed = useRef<{ at: P; id: string } | null>(null)
  const [shift, setShift] = useState<P | null>(null)
  const [run, setRun] = useState<Run | null>(null)
  const lane = useLane(props)
  const { landing, ask } = useLanding(enclosure, state)
  const m = enclosure.margin
  const does = momentsOf(tool)
  const still = look === 'door-back'
  const here = (at: At): P => [at.x - m, at.y - m]

  const down = (at: At) => {
    const [x, y] = here(at)
    if (does.edit) {
      ask(null)
      return onPut(x, y)
    }
    if (does.click) return does.click(props, at, snap(x), snap(y))
    if (does.corners) return lane.click(x, y, at.event)
    if (does.run) return setRun({ start: [snap(x), snap(y)], end: [snap(x), snap(y)] })
    const id = itemUnder(at, KINDS)
    pressed.current = { at: [x, y], id }
    const more = at.event.shiftKey || at.event.ctrlKey
    if (id && !selected.has(id)) state.select([id], more)
    else if (!id && !more) state.select([], false)
  }
  const move = (at: At) => {
    const [x, y] = here(at)
    if (does.edit) ask(putEdit(state, enclosure.id, snap(x), snap(y)))
    else if (lane.on) lane.over(x, y, at.event.altKey)
    else if (run) {
      const [sx, sy] = run.start
      const end: P = Math.abs(x - sx) >= Math.abs(y - sy) ? [snap(x), sy] : [sx, snap(y)]
      setRun({ ...run, end })
    } else if (pressed.current?.id && canEdit && !still) {
      const [dx, dy] = [x - pressed.current.at[0], y - pressed.current.at[1]]
      if (!shift && Math.hypot(dx, dy) <= 4) return
      setShift([snap(dx), snap(dy)])
      ask(moveEdit(state, [snap(dx), snap(dy)]))
    }
  }
  const up = () => {
    const { send } = useProject.getState()
    const drawn = run && does.run?.(tool)
    if (run && drawn) {
      const [[x1, y1], [x2, y2]] = [run.start, run.end]
      const { what, part_id } = drawn
      const edit = { kind: 'draw-run', what, part_id, enclosure_id: enclosure.id, surface } as const
      if (x1 !== x2 || y1 !== y2) void send({ ...edit, x1, y1, x2, y2 })
    }
    if (shift && (shift[0] || shift[1])) void send(moveEdit(state, shift))
    if (shift) ask(null)
    pressed.current = null
    setRun(null)
    setShift(null)
  }
  return { shift, run, line: lane.line, landing, ask, down, move, up }
}
