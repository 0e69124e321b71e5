/** The Snags bench's commands. */
import type { Command } from '../../project/commands'

export type Which = 'open' | 'muted' | 'unseen'

export function snagCommands(show: (tab: Which) => void): Command[] {
  return [
    { id: 'open', label: 'Show the open snags', shortcut: 'O', run: () => show('open'), reads: true },
    { id: 'muted', label: 'Show the muted snags', shortcut: 'M', run: () => show('muted'), reads: true },
    {
      id: 'unseen',
      label: 'Ask whether faults would be noticed',
      shortcut: 'W',
      run: () => show('unseen'),
      reads: true,
    },
  ]
}
