/** What each tool of the plan says and does: a tool is a record of this table. */
import type { AnyEdit } from '../../api/client'
import { itemUnder } from '../../kit/itemUnder'
import { useProject } from '../../project/store'
import type { At } from '../../scene/Surface'
import { CHOOSE, type Planned, type PlanState, type PlanTool } from './planTool'

/** Where what is held goes. */
export interface PlanSpot {
  enclosure_id: string
  surface: PlanState['surface']
  x: number
  y: number
}

export interface PlanMoments<T extends PlanTool> {
  /** What it waits for. */
  words: (state: PlanState, tool: T) => string
  /** The edit that putting down what it holds is; without this, it holds nothing. */
  edit?: (state: PlanState, tool: T, at: PlanSpot) => AnyEdit
  /** It is put away once what it held lies there. */
  once?: true
  /** A click that is no beginning of a drag: at a point of the surface, on whole steps of the raster. */
  click?: (props: Planned, at: At, x: number, y: number) => void
  /** Corners are clicked one after the other. */
  corners?: true
  /** It is dragged from end to end. */
  run?: (tool: T) => { what: 'rail' | 'duct'; part_id: string; width: number }
  /** It stays in hand while another surface is shown. */
  stays?: true
  /** Eyelets open where it is in hand. */
  opens?: true
}

type Table = { [N in PlanTool['name']]: PlanMoments<Extract<PlanTool, { name: N }>> }

const PASSED = new Set(['placing', 'duct', 'lane'])

/** Lead the chosen wires through what is pointed at; with Shift no longer. */
function pass({ state, enclosure }: Planned, at: At) {
  const { say, send } = useProject.getState()
  const id = itemUnder(at, PASSED)
  if (!id) return
  if (!state.wires.length) return say('Choose wires in the ledger first.', 'error')
  const eyelet = enclosure.eyelets?.find((e) => e.placing_id === id)
  const item = enclosure.scene?.items.find((i) => i.id === id)
  if (item?.kind === 'placing' && !eyelet)
    return say(`${String(item.facts.tag)} has no eyelet. Say it in its part.`, 'error')
  const how = at.event.shiftKey ? 'take' : 'add'
  void send({ kind: 'lead-through', conductors: state.wires, through: [eyelet?.name ?? id], how })
}

/** The two ends of a crossing, clicked on two surfaces. */
function cross({ state, enclosure }: Planned, x: number, y: number) {
  const { from } = state
  if (!from) return state.setFrom({ enclosure: enclosure.id, surface: state.surface, x, y })
  void useProject.getState().send({
    kind: 'draw-crossing',
    enclosure_id: from.enclosure,
    surface: from.surface,
    x: from.x,
    y: from.y,
    other_id: enclosure.id,
    other_surface: state.surface,
    other_x: x,
    other_y: y,
    extra_mm: 0,
  })
  state.setFrom(null)
  state.setTool(CHOOSE)
}

const drawn = (what: 'rail' | 'duct', width: number): PlanMoments<Extract<PlanTool, { name: 'rail' }>> => ({
  words: () => 'Drag from end to end; Escape ends.',
  run: ({ part }) => ({ what, part_id: part, width }),
})

const TOOLS: Table = {
  choose: { words: () => '' },
  put: {
    words: (_, { ids }) => `Click where ${ids.length > 1 ? `the ${ids.length} go` : 'it goes'}.`,
    edit: (state, { ids }, at) => placing(state, ids, at),
    once: true,
  },
  plan: {
    words: () => 'Click where it goes; it is drawn later.',
    edit: (_, { part }, at) => ({ kind: 'plan-device', ...at, part_id: part, text: '', count: 1 }),
  },
  stamp: {
    words: () => 'Click where its upper left corner goes.',
    edit: (state, { id }, at) => ({ kind: 'put-layout', ...at, stamp_id: id, plan: state.planning }),
    once: true,
  },
  rail: drawn('rail', 12),
  duct: drawn('duct', 24) as Table['duct'],
  lane: { words: () => 'Click its corners; Enter or a double click ends it.', corners: true },
  through: {
    words: ({ wires }) =>
      wires.length
        ? `Point at an eyelet, a lane or a duct to lead ${wires.length > 1 ? `${wires.length} wires` : 'the wire'} through it.`
        : 'Choose wires in the ledger first.',
    click: (props, at) => pass(props, at),
    opens: true,
  },
  crossing: {
    words: ({ from }) =>
      from
        ? 'Now click where it comes out, on this or another surface.'
        : 'Click where wires leave this surface.',
    click: (props, _, x, y) => cross(props, x, y),
    stays: true,
  },
}

/** What a tool says and does. */
export const momentsOf = (tool: PlanTool) => TOOLS[tool.name] as PlanMoments<PlanTool>

/** The edit that puts devices of the tray down. */
export const placing = (state: PlanState, ids: string[], at: PlanSpot): AnyEdit => ({
  ...{ kind: 'place-devices', ...at, device_ids: ids },
  ...{ gap_mm: state.gap, push: state.push },
})
