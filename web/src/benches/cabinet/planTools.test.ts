import { describe, expect, it, vi } from 'vitest'
import { useProject } from '../../project/store'
import type { At } from '../../scene/Surface'
import { CHOOSE, type PlanState, type PlanTool } from './planTool'
import { momentsOf, placing } from './planTools'
import type { EnclosureValue } from './shapes'

const state = (part: Partial<PlanState> = {}): PlanState => ({
  surface: 'plate',
  wires: [],
  gap: 0,
  push: false,
  planning: true,
  from: null,
  setFrom: vi.fn(),
  setTool: vi.fn(),
  ...part,
})
const AT = { enclosure_id: 'e1', surface: 'plate', x: 40, y: 60 } as const
const enclosure = {
  id: 'e1',
  eyelets: [{ placing_id: 'p1', name: 'd3/1' }],
  scene: {
    items: [
      { id: 'p1', kind: 'placing', facts: { tag: '-B1' } },
      { id: 'p2', kind: 'placing', facts: { tag: '-Q1' } },
      { id: 'l1', kind: 'lane', facts: {} },
    ],
  },
} as unknown as EnclosureValue

/** A press on what has an id, as the surface hands it on. */
function pressOn(id: string, kind: string, shiftKey = false): At {
  const thing = { getAttribute: (name: string) => ({ 'data-id': id, 'data-kind': kind })[name] ?? null }
  const target = { closest: () => thing, parentElement: null, ...thing }
  return { x: 0, y: 0, gx: 0, gy: 0, target, event: { shiftKey } } as unknown as At
}

const sent = () => {
  const send = vi.fn().mockResolvedValue(null)
  const say = vi.fn()
  useProject.setState({ send, say } as never)
  return { send, say }
}

describe('what tools wait for', () => {
  const said = (tool: PlanTool, part: Partial<PlanState> = {}) => momentsOf(tool).words(state(part), tool)
  it('is nothing while one chooses', () => expect(said(CHOOSE)).toBe(''))
  it('counts what is held', () => {
    expect(said({ name: 'put', ids: ['d1'] })).toBe('Click where it goes.')
    expect(said({ name: 'put', ids: ['d1', 'd2', 'd3'] })).toBe('Click where the 3 go.')
  })
  it('follows what is chosen and begun', () => {
    expect(said({ name: 'through' })).toContain('Choose wires')
    expect(said({ name: 'through' }, { wires: ['w1'] })).toContain('lead the wire through')
    expect(said({ name: 'through' }, { wires: ['w1', 'w2'] })).toContain('lead 2 wires through')
    expect(said({ name: 'crossing' })).toContain('leave this surface')
    const from = { enclosure: 'e1', surface: 'door', x: 1, y: 2 } as const
    expect(said({ name: 'crossing' }, { from })).toContain('comes out')
  })
})

describe('what is put down', () => {
  it('is the devices of the tray, with the gap and the pushing that are set', () => {
    const tool: PlanTool = { name: 'put', ids: ['d1', 'd2'] }
    const edit = momentsOf(tool).edit!(state({ gap: 3, push: true }), tool, AT)
    expect(edit).toEqual({ kind: 'place-devices', ...AT, device_ids: ['d1', 'd2'], gap_mm: 3, push: true })
    expect(edit).toEqual(placing(state({ gap: 3, push: true }), ['d1', 'd2'], AT))
  })
  it('is a planned device, which stays in hand, or a kept layout, which does not', () => {
    const plan: PlanTool = { name: 'plan', part: 'k22' }
    expect(momentsOf(plan).edit!(state(), plan, AT)).toMatchObject({
      kind: 'plan-device',
      part_id: 'k22',
      x: 40,
    })
    expect(momentsOf(plan).once).toBeUndefined()
    const stamp: PlanTool = { name: 'stamp', id: 's1' }
    expect(momentsOf(stamp).edit!(state({ planning: false }), stamp, AT)).toMatchObject({
      kind: 'put-layout',
      stamp_id: 's1',
      plan: false,
    })
    expect(momentsOf(stamp).once).toBe(true)
  })
  it('is nothing with a tool that draws', () => {
    for (const name of ['lane', 'through', 'crossing'] as const)
      expect(momentsOf({ name }).edit).toBeUndefined()
  })
})

describe('what is dragged', () => {
  it('is a rail or a duct of the part in hand, as wide as one', () => {
    const [rail, duct]: PlanTool[] = [
      { name: 'rail', part: 'r1' },
      { name: 'duct', part: 'u1' },
    ]
    expect(momentsOf(rail!).run!(rail!)).toEqual({ what: 'rail', part_id: 'r1', width: 12 })
    expect(momentsOf(duct!).run!(duct!)).toEqual({ what: 'duct', part_id: 'u1', width: 24 })
  })
})

describe('leading wires through', () => {
  const through = momentsOf({ name: 'through' })
  it('asks for wires first', () => {
    const { send, say } = sent()
    through.click!({ state: state(), enclosure }, pressOn('l1', 'lane'), 0, 0)
    expect(send).not.toHaveBeenCalled()
    expect(say).toHaveBeenCalledWith('Choose wires in the ledger first.', 'error')
  })
  it('names the eyelet of a device, or the lane itself', () => {
    const { send } = sent()
    const chosen = state({ wires: ['w1'] })
    through.click!({ state: chosen, enclosure }, pressOn('p1', 'placing'), 0, 0)
    through.click!({ state: chosen, enclosure }, pressOn('l1', 'lane', true), 0, 0)
    expect(send.mock.calls).toEqual([
      [{ kind: 'lead-through', conductors: ['w1'], through: ['d3/1'], how: 'add' }],
      [{ kind: 'lead-through', conductors: ['w1'], through: ['l1'], how: 'take' }],
    ])
  })
  it('says that a device has none', () => {
    const { send, say } = sent()
    through.click!({ state: state({ wires: ['w1'] }), enclosure }, pressOn('p2', 'placing'), 0, 0)
    expect(send).not.toHaveBeenCalled()
    expect(say).toHaveBeenCalledWith('-Q1 has no eyelet. Say it in its part.', 'error')
  })
})

describe('a crossing', () => {
  const crossing = momentsOf({ name: 'crossing' })
  it('begins at the first click and ends at the second, on another surface', () => {
    const { send } = sent()
    const first = state({ surface: 'door' })
    crossing.click!({ state: first, enclosure }, pressOn('', ''), 10, 20)
    expect(send).not.toHaveBeenCalled()
    const from = { enclosure: 'e1', surface: 'door', x: 10, y: 20 } as const
    expect(first.setFrom).toHaveBeenCalledWith(from)
    const second = state({ from })
    crossing.click!({ state: second, enclosure }, pressOn('', ''), 30, 40)
    expect(send.mock.calls[0]![0]).toMatchObject({
      ...{ kind: 'draw-crossing', surface: 'door', x: 10, y: 20 },
      ...{ other_surface: 'plate', other_x: 30, other_y: 40 },
    })
    expect(second.setFrom).toHaveBeenCalledWith(null)
    expect(second.setTool).toHaveBeenCalledWith(CHOOSE)
  })
  it('stays in hand while the other surface is looked for', () => {
    expect(crossing.stays).toBe(true)
    expect(momentsOf({ name: 'lane' }).stays).toBeUndefined()
  })
})
