/** The tools of the maker, what is chosen, and graphics from a file. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { client, got, wordsOf } from '../../../api/client'
import { fileBody } from '../../../api/upload'
import { type Prim } from '../../../scene/item'
import { LINE, MONO } from '../../../theme/theme'
import { useProject } from '../../../project/store'
import type { ToolName } from './art'

const TOOLS: { name: ToolName; label: string; key: string; hint: string }[] = [
  { name: 'select', label: 'Choose', key: 'S', hint: 'Choose and move' },
  { name: 'line', label: 'Line', key: 'L', hint: 'Drag from end to end' },
  { name: 'dash', label: 'Dashes', key: 'H', hint: 'A dashed line' },
  { name: 'rect', label: 'Box', key: 'X', hint: 'Drag from corner to corner' },
  { name: 'solid', label: 'Filled', key: 'I', hint: 'A filled box' },
  { name: 'circle', label: 'Circle', key: 'C', hint: 'Drag from the middle outwards' },
  { name: 'arc', label: 'Arc', key: 'A', hint: 'Half a circle: drag from end to end, it bulges clockwise' },
  { name: 'text', label: 'Text', key: 'T', hint: 'Click, type, Enter' },
  { name: 'pin', label: 'Pin', key: 'P', hint: 'Where wires end: on whole grid steps' },
]

/** The tool a key stands for, null for none. */
export const toolOf = (key: string, pins: boolean): ToolName | null =>
  TOOLS.find((t) => t.key === key.toUpperCase() && (pins || t.name !== 'pin'))?.name ?? null

interface Props {
  tool: ToolName
  pins: boolean
  set: (tool: ToolName) => void
  undo: (() => void) | null
  redo: (() => void) | null
  /** How wide a file's drawing should be, and in what. */
  unit: 'steps' | 'mm'
  width: number
  bring: (art: Prim[]) => void
}

export function Tools({ tool, pins, set, undo, redo, unit, width, bring }: Props) {
  const read = (file: File) => {
    const options = fileBody(file, { unit, width: String(width) })
    got(client.POST('/api/library/symbol-graphics', options)).then(
      (art) => bring(art),
      (error: unknown) => useProject.getState().say(wordsOf(error), 'error'),
    )
  }
  return (
    <Box
      role="toolbar"
      aria-label="Drawing tools"
      sx={{
        display: 'flex',
        gap: 0.25,
        p: 0.5,
        borderBottom: `1px solid ${LINE}`,
        bgcolor: '#FBF8F1',
        flexWrap: 'wrap',
      }}
    >
      {TOOLS.filter((t) => pins || t.name !== 'pin').map((t) => (
        <Button
          key={t.name}
          size="small"
          variant={t.name === tool ? 'contained' : 'text'}
          color={t.name === tool ? 'primary' : 'inherit'}
          title={t.hint}
          aria-pressed={t.name === tool}
          onClick={() => set(t.name)}
          endIcon={<kbd style={{ font: `11px ${MONO}`, opacity: 0.7 }}>{t.key}</kbd>}
          sx={{ py: 0.1, px: 0.6, minWidth: 0, '& .MuiButton-endIcon': { ml: 0.5 } }}
        >
          {t.label}
        </Button>
      ))}
      <Box sx={{ flex: 1 }} />
      <Button size="small" color="inherit" disabled={!undo} onClick={() => undo?.()} title="Ctrl+Z">
        Undo
      </Button>
      <Button size="small" color="inherit" disabled={!redo} onClick={() => redo?.()} title="Ctrl+Y">
        Redo
      </Button>
      <FromFile read={read} />
    </Box>
  )
}

interface FromFileProps {
  read: (file: File) => void
}

function FromFile({ read }: FromFileProps) {
  return (
    <Button size="small" component="label" title="An SVG or DXF file becomes lines here">
      From file…
      <input
        type="file"
        hidden
        accept=".svg,.dxf"
        aria-label="SVG or DXF file"
        onChange={(e) => {
          const file = e.target.files?.[0]
          if (file) read(file)
          e.target.value = ''
        }}
      />
    </Button>
  )
}
