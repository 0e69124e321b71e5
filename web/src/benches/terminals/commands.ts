/** The Terminals bench's commands. */
import type { Command } from '../../project/commands'
import { useProject } from '../../project/store'
import { movePlaces } from './moving'
import { terminalsOf, type Row, type Strip } from './shapes'
import type { Held } from './useHeld'

interface Around {
  held: Held
  strip: Strip | null
  chosen: Row[]
  canEdit: boolean
}

/** Move what is chosen by one place. */
export function step(strip: Strip, chosen: Row[], by: -1 | 1) {
  movePlaces(
    strip,
    chosen.map((r) => r.key),
    { by },
  )
}

export function takeOff(strip: Strip, chosen: Row[]) {
  const keys = chosen.map((r) => r.key)
  void useProject.getState().send({ kind: 'remove-strip-items', strip_id: strip.id, keys })
}

/** What is drawn of the first chosen terminal. */
export function drawnTerminal([first]: Row[]) {
  return first && 'symbol_id' in first ? { sheet_id: first.sheet_id, id: first.symbol_id } : undefined
}

/** The field wires of terminals that run in no cable yet, by their keys. */
export const uncabled = (rows: Row[]) =>
  rows.flatMap((r) => r.field.filter((t) => !t.cable_id).map((t) => t.conductor))

export function bridge(strip: Strip, chosen: Row[]) {
  const units = terminalsOf(chosen).map((r) => r.unit)
  void useProject.getState().send({ kind: 'bridge-terminals', strip_id: strip.id, units, part_id: '' })
}

/** What opens a form. */
function formCommands({ held, strip, chosen, canEdit }: Around): Command[] {
  const some = () => canEdit && strip !== null && chosen.length > 0
  const there = () => canEdit && strip !== null
  const terminals = terminalsOf(chosen)
  const on = (act: (strip: Strip) => void) => () => strip && act(strip)
  return [
    {
      id: 'put-in',
      label: 'Put in terminals…',
      shortcut: 'Insert',
      run: () => held.open('put-in'),
      enabled: there,
    },
    {
      id: 'bridge',
      label: 'Bridge across what is chosen',
      shortcut: 'B',
      run: on((s) => bridge(s, chosen)),
      enabled: () => some() && terminals.length > 1,
    },
    { id: 'number', label: 'Number again…', shortcut: 'N', run: () => held.open('number'), enabled: there },
    { id: 'sort', label: 'Sort…', shortcut: 'S', run: () => held.open('sort'), enabled: there },
    {
      id: 'move-to',
      label: 'Move to another strip…',
      shortcut: 'M',
      run: () => held.open('move'),
      enabled: () => some() && terminals.length > 0,
    },
    {
      id: 'gather',
      label: 'Gather the field wires into a cable…',
      shortcut: 'C',
      run: () => held.open('gather'),
      enabled: () => some() && uncabled(terminals).length > 0,
    },
  ]
}

/** What is done at once. */
function actCommands({ held, strip, chosen, canEdit }: Around): Command[] {
  const some = () => canEdit && strip !== null && chosen.length > 0
  const on = (act: (strip: Strip) => void) => () => strip && act(strip)
  return [
    {
      id: 'up',
      label: 'Move towards the start',
      shortcut: 'Alt+ArrowUp',
      run: on((s) => step(s, chosen, -1)),
      enabled: some,
    },
    {
      id: 'down',
      label: 'Move towards the end',
      shortcut: 'Alt+ArrowDown',
      run: on((s) => step(s, chosen, 1)),
      enabled: some,
    },
    {
      id: 'take-off',
      label: 'Take off the strip',
      shortcut: 'Delete',
      run: on((s) => takeOff(s, chosen)),
      enabled: some,
    },
    {
      id: 'choose-none',
      label: 'Choose nothing',
      shortcut: 'Escape',
      run: () => held.choose(new Set()),
      reads: true,
    },
  ]
}

export const stripCommands = (around: Around): Command[] => [...formCommands(around), ...actCommands(around)]
