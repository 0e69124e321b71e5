/** The Cabinet bench's commands. */
import type { Command } from '../../project/commands'
import type { Look } from './shapes'
import type { PlanTool } from './planTool'

interface Acts {
  show: (look: Look) => void
  draw: (what: 'rail' | 'duct') => void
  take: (tool: PlanTool) => void
  choose: () => void
  remove: () => void
  /** What Enter ends, of the tool in hand; null for nothing. */
  ends: () => (() => void) | null
  some: boolean
  there: boolean
}

const LOOKS: [Look, string, string][] = [
  ['plate', 'Show the mounting plate', 'P'],
  ['door', 'Show the door', 'O'],
  ['door-back', 'Show the door from behind', 'B'],
  ['space', 'Show the enclosure in space', '3'],
]

export function cabinetCommands(acts: Acts): Command[] {
  const { show, draw, take, choose, remove, ends, some, there } = acts
  const enabled = () => there
  const chosen = () => some
  const looks = LOOKS.map(([look, label, shortcut]) => ({
    ...{ id: look, label, shortcut, enabled, reads: true },
    run: () => show(look),
  }))
  return [
    ...looks,
    ...(['rail', 'duct'] as const).map((what) => ({
      id: what,
      label: `Draw a ${what}`,
      shortcut: what === 'rail' ? 'R' : 'D',
      run: () => draw(what),
      enabled,
    })),
    { id: 'lane', label: 'Draw a lane', shortcut: 'L', run: () => take({ name: 'lane' }), enabled },
    {
      id: 'lane-end',
      label: 'End the lane that is drawn',
      shortcut: 'Enter',
      run: () => ends()?.(),
      enabled: () => ends() !== null,
    },
    {
      id: 'through',
      label: 'Lead wires through what is pointed at',
      shortcut: 'T',
      run: () => take({ name: 'through' }),
      enabled,
    },
    {
      id: 'crossing',
      label: 'Draw a crossing to another surface',
      shortcut: 'X',
      run: () => take({ name: 'crossing' }),
      enabled,
    },
    { id: 'choose', label: 'Choose nothing', shortcut: 'Escape', run: choose, reads: true },
    { id: 'remove', label: 'Take out of the layout', shortcut: 'Delete', run: remove, enabled: chosen },
    {
      id: 'remove-too',
      label: 'Take out of the layout',
      shortcut: 'Backspace',
      run: remove,
      enabled: chosen,
    },
  ]
}
