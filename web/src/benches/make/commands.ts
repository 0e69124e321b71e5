/** The Make bench's commands. */
import type { Command } from '../../project/commands'

interface Acts {
  give: (again: boolean) => void
  fresh: number
  refused: number
}

export function makeCommands({ give, fresh, refused }: Acts): Command[] {
  return [
    {
      id: 'give',
      label: 'Give the new pieces to the machine',
      shortcut: 'G',
      run: () => give(false),
      enabled: () => fresh > 0,
    },
    {
      id: 'again',
      label: 'Try the refused pieces again',
      shortcut: 'Shift+G',
      run: () => give(true),
      enabled: () => refused > 0,
    },
  ]
}
