/** The quick line at the caret; what it would place is previewed while it is typed, errors stand under it. */
import Box from '@mui/material/Box'
import InputBase from '@mui/material/InputBase'
import Paper from '@mui/material/Paper'
import { useState } from 'react'
import type { AnyEdit } from '../../api/client'
import { COPPER, MONO, QUIET, SNAG } from '../../theme/theme'
import type { Placed } from '../../scene/Surface'
import { boxPlace, IN_FRONT } from './boxPlace'
import { useProject } from '../../project/store'
import { useDraw, now } from './store'
import { cancel } from './tools/moments'

const WIDTH = 460

function edit(line: string): AnyEdit {
  const s = now()
  return {
    kind: 'place-row',
    sheet_id: s.sheetId,
    x: s.caret[0],
    y: s.caret[1],
    line,
    wire_type_id: s.wireType,
  }
}

export function QuickLine({ at }: { at: Placed }) {
  const preview = useProject((s) => s.preview)
  const [line, setLine] = useState('')
  const change = (text: string) => {
    setLine(text)
    useProject.getState().ask(text.trim() ? edit(text) : null)
  }
  const onKey = (event: React.KeyboardEvent) => {
    if (event.key === 'Escape') cancel()
    else if (event.key === 'Enter' && line.trim()) {
      const s = now()
      void s.send(edit(line)).then((answer) => {
        if (answer)
          useDraw.getState().set({ tool: { name: 'idle' }, selection: new Set(), subject: answer.placed[0] })
      })
    } else return
    event.preventDefault()
  }
  return (
    <Paper
      data-overlay
      data-testid="quick-line"
      elevation={6}
      sx={{ ...IN_FRONT, ...boxPlace(at, WIDTH, 44), width: WIDTH }}
    >
      <InputBase
        autoFocus
        fullWidth
        value={line}
        placeholder={'nc "Stop", no "Start" | no, coil "Fan run"'}
        inputProps={{ 'aria-label': 'Quick line', maxLength: 400 }}
        onChange={(e) => change(e.target.value)}
        onKeyDown={onKey}
        sx={{ px: 1.5, py: 0.75, fontFamily: MONO, color: COPPER }}
      />
      {preview?.problem && (
        <Box role="alert" sx={{ px: 1.5, pb: 0.5, color: SNAG, fontSize: 12 }}>
          {preview.problem}
        </Box>
      )}
      <Box
        sx={{ px: 1.5, py: 0.5, fontSize: 11, color: QUIET, borderTop: '1px solid', borderColor: 'divider' }}
      >
        , next · | beside, in parallel · ; next line · "text" · @QA1 of a device, @ of the last coil · #part
      </Box>
    </Paper>
  )
}
