/** The commands that hold on every bench. */
import { useMemo } from 'react'
import { useGo } from '../kit/useGo'
import { useCommandsEverywhere, type Command } from '../project/commands'
import { useProject } from '../project/store'
import { hasView, showAll } from '../scene/viewport'
import { BENCHES } from './benches'

const step = (act: 'undo' | 'redo') => () => void useProject.getState().step(act)
const some = (act: 'undo' | 'redo') => () => !!useProject.getState()[act]

const LASTING: Command[] = [
  { id: 'undo', label: 'Undo', shortcut: 'Ctrl+Z', run: step('undo'), enabled: some('undo') },
  { id: 'redo', label: 'Redo', shortcut: 'Ctrl+Y', run: step('redo'), enabled: some('redo') },
  { id: 'redo-too', label: 'Redo', shortcut: 'Ctrl+Shift+Z', run: step('redo'), enabled: some('redo') },
]

const PARTS_OF_BRIEF = ['Structure', 'Sheets', 'Title blocks', 'People', 'Journal']

/** Offer them, with the way to each bench: one list while the project is open, whatever the address. */
export function useEverywhere(projectId: string, find: () => void, help: () => void) {
  const go = useGo()
  const commands = useMemo((): Command[] => {
    const to = (path: string) => () => go(`/p/${projectId}/${path}`)
    return [
      ...LASTING,
      { id: 'find', label: 'Find, or do by name', shortcut: 'Ctrl+K', run: find, reads: true },
      {
        ...{ id: 'zoom-all', label: 'Bring all that is drawn into view', shortcut: '0' },
        ...{ run: showAll, enabled: hasView, reads: true },
      },
      { id: 'help', label: 'List the shortcuts', shortcut: 'F1', run: help, reads: true },
      ...BENCHES.map((b, i) => ({
        id: b.path,
        label: `Go to the ${b.label} bench`,
        shortcut: i < 9 ? `Alt+${i + 1}` : '',
        run: to(b.path),
        reads: true,
      })),
      ...PARTS_OF_BRIEF.map((name) => ({
        id: `brief-${name}`,
        label: `Brief: ${name.toLowerCase()}`,
        shortcut: '',
        run: to(`brief/${name.toLowerCase().replace(' ', '-')}`),
        reads: true,
      })),
    ]
  }, [projectId, go, find, help])
  useCommandsEverywhere(commands)
}
