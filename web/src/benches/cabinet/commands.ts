/** The Cabinet bench's commands. */
import type { Command } from '../../project/commands'

interface Acts {
  show: (look: 'plate' | 'door' | 'space') => void
  draw: (what: 'rail' | 'duct') => void
  choose: () => void
  remove: () => void
  some: boolean
  there: boolean
  /** Whether a part is chosen to draw with. */
  has: { rail: boolean; duct: boolean }
}

export function cabinetCommands({ show, draw, choose, remove, some, there, has }: Acts): Command[] {
  const enabled = () => there
  const chosen = () => some
  return [
    {
      id: 'plate',
      label: 'Show the mounting plate',
      shortcut: 'P',
      run: () => show('plate'),
      enabled,
      reads: true,
    },
    { id: 'door', label: 'Show the door', shortcut: 'O', run: () => show('door'), enabled, reads: true },
    {
      id: 'space',
      label: 'Show the enclosure in space',
      shortcut: '3',
      run: () => show('space'),
      enabled,
      reads: true,
    },
    {
      id: 'rail',
      label: 'Draw a rail',
      shortcut: 'R',
      run: () => draw('rail'),
      enabled: () => there && has.rail,
    },
    {
      id: 'duct',
      label: 'Draw a duct',
      shortcut: 'D',
      run: () => draw('duct'),
      enabled: () => there && has.duct,
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
