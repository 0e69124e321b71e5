/** The Snags bench's commands. */
import type { Command } from '../../project/commands'

export function snagCommands(show: (tab: 'open' | 'muted') => void): Command[] {
  return [
    { id: 'open', label: 'Show the open snags', shortcut: 'O', run: () => show('open'), reads: true },
    { id: 'muted', label: 'Show the muted snags', shortcut: 'M', run: () => show('muted'), reads: true },
  ]
}
