/** The Draw bench's commands. R, F, N and D act on a selection; with none, typing opens the list at the caret. */
import { checked, type Command } from '../../project/commands'
import { around, showBox } from '../../scene/viewport'
import { now } from './store'
import { jump } from './jump'
import {
  changeRungs,
  deleteSelected,
  groupSelected,
  lockSelected,
  swapSelected,
  symbolsOf,
  turnable,
  turnSelected,
  ungroupSelected,
} from './acts'
import { copySelected } from './clipboard'
import { atRest as idle, startBus, startCopy, startPaste, startQuick, startStroke, startWire } from './tools'

const get = () => now()
const some = () => idle() && get().selection.size > 0
const several = () => idle() && get().selection.size > 1
const someTurned = () => idle() && turnable(get().selection).length > 0
const someSymbol = () => idle() && symbolsOf(get().selection).length > 0

function nearSelection() {
  const { selection, view } = get()
  const items = [...selection].map((id) => view.items[id]).filter((i) => i !== undefined)
  const box = around(items.map((i) => i.box))
  if (box) showBox(box)
}

export const drawCommands: Command[] = checked([
  {
    id: 'zoom-selection',
    label: 'Bring the selection near',
    shortcut: 'Z',
    run: nearSelection,
    enabled: some,
    reads: true,
  },
  { id: 'wire', label: 'Draw a wire', shortcut: 'W', run: startWire, enabled: idle, arms: true },
  { id: 'bus', label: 'Lay a bus', shortcut: 'B', run: startBus, enabled: idle, arms: true },
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
    run: startQuick,
    enabled: idle,
  },
  {
    id: 'turn',
    label: 'Turn the symbol or note',
    shortcut: 'R',
    run: () => turnSelected('turn'),
    enabled: someTurned,
  },
  {
    id: 'flip',
    label: 'Flip the symbol',
    shortcut: 'F',
    run: () => turnSelected('flip'),
    enabled: someSymbol,
  },
  {
    id: 'trace',
    label: 'Trace what feeds the selection',
    shortcut: 'T',
    run: () => get().set({ panel: 'trace' }),
    enabled: some,
    reads: true,
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
    id: 'copy',
    label: 'Copy',
    shortcut: 'Ctrl+C',
    reads: true,
    run: () => void copySelected(false),
    enabled: some,
  },
  { id: 'cut', label: 'Cut', shortcut: 'Ctrl+X', run: () => void copySelected(true), enabled: some },
  { id: 'paste', label: 'Paste, from any project', shortcut: 'Ctrl+V', run: startPaste, enabled: idle },
  { id: 'lock', label: 'Lock or unlock the selection', shortcut: 'L', run: lockSelected, enabled: some },
  {
    id: 'jump',
    label: 'Jump to the next place of the selection',
    shortcut: 'J',
    reads: true,
    run: () => void jump(1),
    enabled: some,
  },
  {
    id: 'jump-back',
    label: 'Jump to the place before',
    shortcut: 'Shift+J',
    reads: true,
    run: () => void jump(-1),
    enabled: some,
  },
  {
    id: 'planned',
    label: 'Draw planned terminals',
    shortcut: 'Shift+N',
    run: () => get().set({ panel: 'planned', selection: new Set(), subject: '' }),
    enabled: idle,
  },
  {
    id: 'stamps',
    label: 'Put down a stamp',
    shortcut: 'Shift+S',
    run: () => get().set({ panel: 'stamps', selection: new Set(), subject: '' }),
    enabled: idle,
  },
  {
    id: 'keep-stamp',
    label: 'Keep the selection as a stamp',
    shortcut: 'Shift+K',
    run: () => get().set({ panel: 'keep' }),
    enabled: some,
  },
  {
    id: 'marks',
    label: 'Continuations at the ends of wires',
    shortcut: 'Shift+M',
    run: () => startStroke('marks'),
    enabled: idle,
  },
  {
    id: 'boundary',
    label: 'Boundary around a group',
    shortcut: 'Shift+B',
    run: () => startStroke('boundary'),
    enabled: idle,
  },
  {
    id: 'line',
    label: 'Line without meaning',
    shortcut: 'Shift+L',
    run: () => startStroke('line'),
    enabled: idle,
  },
  { id: 'arrow', label: 'Arrow', shortcut: 'Shift+A', run: () => startStroke('arrow'), enabled: idle },
  {
    id: 'dimension',
    label: 'Dimension',
    shortcut: 'Shift+D',
    run: () => startStroke('dimension'),
    enabled: idle,
  },
  { id: 'group', label: 'Group what is selected', shortcut: 'G', run: groupSelected, enabled: several },
  { id: 'ungroup', label: 'Ungroup', shortcut: 'Shift+G', run: ungroupSelected, enabled: some },
  {
    id: 'layers',
    label: 'Layers',
    shortcut: 'Shift+Y',
    reads: true,
    run: () => get().set({ panel: 'layers', selection: new Set(), subject: '' }),
    enabled: idle,
  },
  {
    id: 'picture',
    label: 'Picture',
    shortcut: 'Shift+P',
    run: () => startStroke('picture'),
    enabled: idle,
  },
  {
    id: 'table',
    label: 'Table of parts or wire types',
    shortcut: '',
    run: () => startStroke('table'),
    enabled: idle,
  },
  {
    id: 'insert-rung',
    label: 'Insert a rung at the caret',
    shortcut: 'Insert',
    run: () => changeRungs('insert-rung'),
    enabled: idle,
  },
  {
    id: 'remove-rung',
    label: 'Take the empty rung at the caret out',
    shortcut: 'Shift+Delete',
    run: () => changeRungs('remove-rung'),
    enabled: idle,
  },
  {
    id: 'replace',
    label: 'Search and replace',
    shortcut: 'Ctrl+H',
    run: () => get().set({ panel: 'replace' }),
    enabled: idle,
  },
  {
    id: 'print',
    label: 'Print this sheet',
    shortcut: 'Ctrl+P',
    reads: true,
    run: () => {
      const { projectId, sheetId, language } = get()
      window.open(
        `/api/projects/${projectId}/drawing.pdf?sheet_id=${sheetId}&language=${language}&inline=true`,
      )
    },
  },
  ...(['dxf', 'svg'] as const).map((format) => ({
    id: `sheet-${format}`,
    label: `Save this sheet as ${format.toUpperCase()}`,
    shortcut: '',
    reads: true,
    run: () => {
      const { projectId, sheetId, language } = get()
      window.location.assign(
        `/api/projects/${projectId}/drawing.${format}?sheet_id=${sheetId}&language=${language}`,
      )
    },
  })),
  {
    id: 'select-all',
    reads: true,
    label: 'Select everything on the sheet',
    shortcut: 'Ctrl+A',
    run: () =>
      get().select(
        Object.values(get().view.items)
          .filter((i) => ['symbol', 'wire', 'continuation', 'note', 'figure', 'band'].includes(i.kind))
          .map((i) => i.id),
      ),
    enabled: idle,
  },
])
