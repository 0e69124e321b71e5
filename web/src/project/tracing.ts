/** One key on every bench that shows wires: the trace of what is chosen, opened on the drawing. */
import type { NavigateFunction } from 'react-router'
import type { Command } from './commands'
import { useProject } from './store'

interface Drawn {
  sheet_id: string
  id: string
}

/** Where the trace of something drawn is shown. */
export const traceAddress = (projectId: string, { sheet_id, id }: Drawn) =>
  `/p/${projectId}/draw/${sheet_id}?sel=${id}&panel=trace`

/** The command that opens the trace of what is chosen, where that is drawn. */
export function traceCommand(chosen: Drawn | undefined, go: NavigateFunction): Command {
  const drawn = chosen?.sheet_id && chosen.id ? chosen : undefined
  return {
    id: 'trace',
    label: 'Trace what feeds the selection',
    shortcut: 'Alt+T', // in a table a letter alone is typed into the cell
    run: () => {
      if (drawn) void go(traceAddress(useProject.getState().projectId, drawn))
    },
    enabled: () => drawn !== undefined,
    reads: true,
  }
}
