/** Draws what a part looks like on plate or door, within its outline, in mm. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useState } from 'react'
import { client, got, wordsOf } from '../../../api/client'
import type { Prim } from '../../../scene/item'
import { LINE, SNAG } from '../../../theme/theme'
import type { ToolName } from './art'
import { Canvas, type Chosen } from './Canvas'
import { Tools } from './Tools'
import { useDrawing } from './useDrawing'
import { useMakerKeys } from './useMakerKeys'

interface Props {
  surface: string
  start: Prim[]
  frame: { width: number; height: number; round: boolean }
  close: () => void
  done: (key: string) => void
}

export function OutlineMaker({ surface, start, frame, close, done }: Props) {
  const drawing = useDrawing(start)
  const [tool, setTool] = useState<ToolName>('line')
  const [chosen, setChosen] = useState<Chosen>(null)
  const [problem, setProblem] = useState('')
  const art = drawing.now
  const change = (next: Prim[]) => drawing.put(next)
  const span = Math.max(frame.width, frame.height, 10)
  const snap = span > 300 ? 5 : span > 60 ? 1 : 0.5
  useMakerKeys({
    art,
    pins: null,
    chosen,
    snap,
    choose: setChosen,
    change,
    setTool,
    undo: drawing.undo,
    redo: drawing.redo,
  })
  const keep = () =>
    got(client.POST('/api/library/outline', { body: { art } })).then(done, (error: unknown) =>
      setProblem(wordsOf(error)),
    )
  const margin = span * 0.08
  return (
    <Box sx={{ border: `1px solid ${LINE}`, mt: 1 }} role="group" aria-label={`Drawing on the ${surface}`}>
      <Tools
        tool={tool}
        pins={false}
        set={setTool}
        undo={drawing.canUndo ? drawing.undo : null}
        redo={drawing.canRedo ? drawing.redo : null}
        unit="mm"
        width={frame.width}
        bring={(found) => change([...art, ...found])}
      />
      <Box sx={{ height: 320, display: 'flex' }}>
        <Canvas
          art={art}
          pins={[]}
          tool={tool}
          chosen={chosen}
          box={[-margin, -margin, frame.width + 2 * margin, frame.height + 2 * margin]}
          snap={snap}
          dots={span > 300 ? 50 : span > 60 ? 10 : 5}
          pen={span / 160}
          frame={frame}
          textSize={Math.max(2, span / 16)}
          choose={setChosen}
          change={change}
        />
      </Box>
      {problem && <Box sx={{ color: SNAG, fontSize: 12.5, p: 1 }}>{problem}</Box>}
      <Foot take={art.length ? () => void keep() : undefined} close={close} />
    </Box>
  )
}

interface FootProps {
  take?: () => void
  close: () => void
}

function Foot({ take, close }: FootProps) {
  return (
    <Box sx={{ display: 'flex', gap: 1, p: 0.75 }}>
      <Button variant="contained" size="small" disabled={!take} onClick={take}>
        Take this drawing
      </Button>
      <Button size="small" onClick={close}>
        Cancel
      </Button>
    </Box>
  )
}
