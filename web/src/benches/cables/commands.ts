/** The Cables bench's commands: a chosen core is exchanged with its neighbour. */
import { makeEdit } from '../../api/client'
import type { Command } from '../../project/commands'
import { useProject } from '../../project/store'
import type { Cable } from './shapes'

const ordinalOf = ([key = '']: Set<string>) => (key.startsWith('core:') ? Number(key.slice(5)) : 0)

/** What is drawn of the chosen core: the wire that it serves. */
export function drawnCore(cable: Cable | undefined, chosen: Set<string>) {
  const ordinal = ordinalOf(chosen)
  const core = ordinal ? cable?.cores.find((c) => c.ordinal === ordinal) : undefined
  return core && { sheet_id: core.sheet_id, id: core.wire_id }
}

export function coreCommands(
  cable: Cable | undefined,
  chosen: Set<string>,
  choose: (keys: Set<string>) => void,
): Command[] {
  const first = ordinalOf(chosen)
  const step = (by: number) => () => {
    const second = first + by
    if (!cable || !cable.cores.some((c) => c.ordinal === second)) return
    void useProject
      .getState()
      .send(makeEdit('swap-cores', { device_id: cable.id, first, second }))
      .then((answer) => answer && choose(new Set([`core:${second}`])))
  }
  const enabled = () => cable !== undefined && first > 0
  return [
    { id: 'core-up', label: 'Exchange with the core above', shortcut: 'Alt+ArrowUp', run: step(-1), enabled },
    {
      id: 'core-down',
      label: 'Exchange with the core below',
      shortcut: 'Alt+ArrowDown',
      run: step(1),
      enabled,
    },
  ]
}
