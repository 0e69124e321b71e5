/** The Draw bench's commands. R, F, N and D act on a selection; with none, typing opens the list at the caret. */
import { checked, type Command } from '../../app/commands'
import { useSheet } from './store'
import {
  deleteSelected,
  startCopy,
  startBus,
  startStroke,
  startWire,
  swapSelected,
  symbolsOf,
  turnSelected,
} from './tools'

const get = () => useSheet.getState()
const idle = () => get().tool.name === 'idle'
const some = () => idle() && get().selection.size > 0
const someSymbol = () => idle() && symbolsOf(get().selection).length > 0

export const drawCommands: Command[] = checked([
  {
    id: 'undo',
    label: 'Undo',
    shortcut: 'Ctrl+Z',
    run: () => void get().step('undo'),
    enabled: () => !!get().undo,
  },
  {
    id: 'redo',
    label: 'Redo',
    shortcut: 'Ctrl+Y',
    run: () => void get().step('redo'),
    enabled: () => !!get().redo,
  },
  {
    id: 'redo-too',
    label: 'Redo',
    shortcut: 'Ctrl+Shift+Z',
    run: () => void get().step('redo'),
    enabled: () => !!get().redo,
  },
  { id: 'wire', label: 'Draw a wire', shortcut: 'W', run: startWire, enabled: idle },
  { id: 'bus', label: 'Lay a bus', shortcut: 'B', run: startBus, enabled: idle },
  {
    id: 'terminals',
    label: 'Row of terminals across wires',
    shortcut: 'Shift+T',
    run: () => startStroke('terminals'),
    enabled: idle,
  },
  {
    id: 'band',
    label: 'Cable band across wires',
    shortcut: 'Shift+C',
    run: () => startStroke('band'),
    enabled: idle,
  },
  {
    id: 'quick-line',
    label: 'Quick line at the caret',
    shortcut: '/',
    run: () => get().set({ tool: { name: 'quick' } }),
    enabled: idle,
  },
  {
    id: 'turn',
    label: 'Turn the symbol',
    shortcut: 'R',
    run: () => turnSelected('turn'),
    enabled: someSymbol,
  },
  {
    id: 'flip',
    label: 'Flip the symbol',
    shortcut: 'F',
    run: () => turnSelected('flip'),
    enabled: someSymbol,
  },
  { id: 'swap', label: 'Swap NO and NC', shortcut: 'N', run: swapSelected, enabled: someSymbol },
  { id: 'duplicate', label: 'Duplicate the selection', shortcut: 'D', run: startCopy, enabled: some },
  { id: 'delete', label: 'Delete the selection', shortcut: 'Delete', run: deleteSelected, enabled: some },
  {
    id: 'delete-too',
    label: 'Delete the selection',
    shortcut: 'Backspace',
    run: deleteSelected,
    enabled: some,
  },
  {
    id: 'select-all',
    label: 'Select everything on the sheet',
    shortcut: 'Ctrl+A',
    run: () =>
      get().select(
        Object.values(get().view.items)
          .filter((i) => ['symbol', 'wire', 'continuation', 'note'].includes(i.kind))
          .map((i) => i.id),
      ),
    enabled: idle,
  },
])
