/** The symbol maker: draw what a unit looks like, put its pins on the grid, and see it on wires as it will stand. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import { client, got, wordsOf } from '../../../api/client'
import { type Box as Rect, type Item, type Prim } from '../../../scene/item'
import { LINE, SNAG } from '../../../theme/theme'
import { ItemView } from '../../../scene/Painter'
import { useProject } from '../../../project/store'
import type { Kinds } from '../kinds'
import { boundsOf } from '../../../scene/artPath'
import { PLACE_NAMES, type Pin, type PlaceName, type Point, type Sketch, type ToolName } from './art'
import { Canvas, type Chosen } from './Canvas'
import { SymbolFacts } from './SymbolFacts'
import { Tools } from './Tools'
import { useDrawing } from './useDrawing'
import { useMakerKeys } from './useMakerKeys'

interface Props {
  id: string
  start: Sketch
  kinds: Kinds
  close: () => void
  kept: (key: string, id: string) => void
}

interface Look {
  key: string
  items: Item[]
  box: Rect
}

const LOOK_MS = 200
const NO_ART = {}

type Standard = 'iec' | 'na'
type Drawing = ReturnType<typeof useDrawing<Sketch>>

/** Whether it can be a symbol, and how it stands on wires, is for the server to say; it is asked when the hand rests. */
function useLook(sketch: Sketch, id: string, standard: Standard) {
  const [look, setLook] = useState<Look | null>(null)
  const [problem, setProblem] = useState('')
  useEffect(() => {
    let late = false
    const body = { sketch: { ...sketch }, id, standard, poles: sketch.poles }
    const timer = window.setTimeout(() => {
      got(client.POST('/api/library/symbol-look', { body })).then(
        (answer) => {
          if (late) return
          setLook(answer)
          setProblem('')
        },
        (error: unknown) => !late && setProblem(wordsOf(error)),
      )
    }, LOOK_MS)
    return () => {
      late = true
      window.clearTimeout(timer)
    }
  }, [sketch, standard, id])
  return { look, problem, setProblem }
}

/** Keeping the symbol in the library; what else shows symbols is asked again. */
function useKeeping(
  sketch: Sketch,
  id: string,
  standard: Standard,
  kept: Props['kept'],
  failed: (words: string) => void,
) {
  const queries = useQueryClient()
  return () => {
    const body = { sketch: { ...sketch }, id, standard, poles: 1 }
    return got(client.POST('/api/library/drawn-symbols', { body })).then(
      (row) => {
        for (const key of ['drawn-symbols', 'symbols', 'symbols-for', 'part', 'library'])
          void queries.invalidateQueries({ queryKey: [key] })
        useProject.getState().say(`${sketch.name} is in the library. Type its name at the caret to place it.`)
        kept(row.key, row.id)
      },
      (error: unknown) => failed(wordsOf(error)),
    )
  }
}

/** The paper: what is there at first, with room about it. */
function paperOf(start: Sketch): [number, number, number, number] {
  const [l, t, r, b] = boundsOf([...start.iec, ...(start.na ?? [])], start.pins) ?? [0, 0, 4, 0]
  const [w, h] = [Math.max(24, r - l + 10), Math.max(16, b - t + 10)]
  return [Math.floor((l + r) / 2 - w / 2), Math.floor((t + b) / 2 - h / 2), w, h]
}

export function SymbolMaker({ id, start, kinds, close, kept }: Props) {
  const drawing = useDrawing(start)
  const sketch = drawing.now
  const [tool, setTool] = useState<ToolName>('line')
  const [chosen, setChosen] = useState<Chosen>(null)
  const [standard, setStandard] = useState<Standard>('iec')
  const art = (standard === 'na' ? sketch.na : sketch.iec) ?? []
  const change = (next: Prim[], pins: Pin[]) => {
    // A pin that goes takes the pairs it was in with it.
    const gone = pins.length < sketch.pins.length
    const through = gone
      ? sketch.through.filter((pair) => pair.every((i) => i < pins.length))
      : sketch.through
    drawing.put({ ...sketch, [standard]: next, pins, through })
  }
  const setPlace = (name: PlaceName, to: Point | null) => {
    const rest = Object.entries(sketch.places ?? {}).filter(([key]) => key !== name)
    drawing.put({ ...sketch, places: Object.fromEntries(to ? [...rest, [name, to]] : rest) })
  }
  useMakerKeys({
    art,
    pins: sketch.pins,
    chosen,
    snap: 0.5,
    choose: setChosen,
    change,
    setTool,
    undo: drawing.undo,
    redo: drawing.redo,
    dropPlace: (index) => setPlace(PLACE_NAMES[index]!, null),
  })
  const { look, problem, setProblem } = useLook(sketch, id, standard)
  const keep = useKeeping(sketch, id, standard, kept, setProblem)
  const box = useMemo(() => paperOf(start), [start])
  return (
    <Box sx={{ display: 'flex', flex: 1, minHeight: 0, minWidth: 0 }}>
      <Paper
        {...{ drawing, tool, setTool, art, chosen, change, setPlace, box, look, problem }}
        choose={setChosen}
      />
      <Facts
        {...{ drawing, id, kinds, standard, chosen, close }}
        setStandard={(next) => {
          setStandard(next)
          setChosen(null)
        }}
        choose={setChosen}
        setPlace={(name, to) => {
          setPlace(name, to)
          setTool('select')
        }}
        keep={problem ? undefined : () => void keep()}
      />
    </Box>
  )
}

interface OnWiresProps {
  look: Look | null
  problem: string
}

function OnWires({ look, problem }: OnWiresProps) {
  return (
    <Box
      sx={{
        display: 'flex',
        height: 190,
        flexShrink: 0,
        borderTop: `1px solid ${LINE}`,
        bgcolor: '#FBF8F1',
      }}
    >
      <Box sx={{ flex: 1, minWidth: 0, p: 1 }}>
        <Box sx={{ fontSize: 11.5, color: 'text.secondary' }}>On its wires, level and upright</Box>
        {look && !problem && (
          <svg
            role="img"
            aria-label="The symbol on wires"
            data-testid="symbol-look"
            viewBox={`${look.box[0]} ${look.box[1]} ${look.box[2] - look.box[0]} ${look.box[3] - look.box[1]}`}
            width="100%"
            height={152}
          >
            {look.items.map((item) => (
              <ItemView key={item.id} item={item} art={NO_ART} look="plain" />
            ))}
          </svg>
        )}
        {problem && (
          <Box role="alert" sx={{ color: SNAG, fontSize: 12.5, mt: 1 }}>
            {problem}
          </Box>
        )}
      </Box>
    </Box>
  )
}

interface PaperProps {
  drawing: Drawing
  tool: ToolName
  setTool: (tool: ToolName) => void
  art: Prim[]
  chosen: Chosen
  choose: (chosen: Chosen) => void
  change: (art: Prim[], pins: Pin[]) => void
  setPlace: (name: PlaceName, to: Point | null) => void
  box: Rect
  look: Look | null
  problem: string
}

function Paper({
  drawing,
  tool,
  setTool,
  art,
  chosen,
  choose,
  change,
  setPlace,
  box,
  look,
  problem,
}: PaperProps) {
  const sketch = drawing.now
  return (
    <Box sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column' }}>
      <Tools
        tool={tool}
        pins
        set={setTool}
        undo={drawing.canUndo ? drawing.undo : null}
        redo={drawing.canRedo ? drawing.redo : null}
        unit="steps"
        width={0}
        bring={(found) => change([...art, ...found], sketch.pins)}
      />
      <Canvas
        art={art}
        pins={sketch.pins}
        places={sketch.places ?? {}}
        movePlace={setPlace}
        tool={tool}
        chosen={chosen}
        box={box}
        snap={0.5}
        dots={1}
        pen={0.14}
        textSize={1.2}
        choose={choose}
        change={change}
      />
      <OnWires {...{ look, problem }} />
    </Box>
  )
}

interface FactsProps {
  drawing: Drawing
  id: string
  kinds: Kinds
  standard: Standard
  setStandard: (standard: Standard) => void
  chosen: Chosen
  choose: (chosen: Chosen) => void
  setPlace: (name: PlaceName, to: Point | null) => void
  keep?: () => void
  close: () => void
}

function Facts({
  drawing,
  id,
  kinds,
  standard,
  setStandard,
  chosen,
  choose,
  setPlace,
  keep,
  close,
}: FactsProps) {
  const sketch = drawing.now
  return (
    <Box
      component="aside"
      aria-label="Symbol"
      sx={{
        width: 300,
        flexShrink: 0,
        borderLeft: `1px solid ${LINE}`,
        bgcolor: '#FBF8F1',
        overflow: 'auto',
        p: 1.5,
      }}
    >
      <Box sx={{ display: 'flex', gap: 1, mb: 1 }}>
        <Button variant="contained" disabled={!keep} onClick={keep}>
          {id ? 'Save' : 'Keep in the library'}
        </Button>
        <Button onClick={close}>Close</Button>
      </Box>
      <SymbolFacts
        sketch={sketch}
        kinds={kinds}
        standard={standard}
        setStandard={setStandard}
        chosen={chosen}
        choose={choose}
        setPlace={setPlace}
        put={(part) => drawing.put({ ...sketch, ...part })}
      />
    </Box>
  )
}
