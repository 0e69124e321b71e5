/** The I/O bench's commands. */
import type { Command } from '../../project/commands'

interface Acts {
  read: () => void
  free: () => void
  drop: () => void
  some: boolean
}

export function ioCommands({ read, free, drop, some }: Acts): Command[] {
  const enabled = () => some
  return [
    { id: 'read', label: 'Take in a point list', shortcut: 'L', run: read },
    { id: 'free', label: 'Take the chosen points off their channels', shortcut: 'F', run: free, enabled },
    { id: 'drop', label: 'Choose no point', shortcut: 'Escape', run: drop, enabled, reads: true },
  ]
}
