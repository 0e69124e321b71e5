/** Harnesses as blocks: boxes are dragged, a stroke from connector to connector joins them by a harness. */
import Box from '@mui/material/Box'
import { useRef, useState } from 'react'
import { makeEdit } from '../../api/client'
import { Drawing } from '../../kit/Drawing'
import { itemUnder } from '../../kit/itemUnder'
import { usePick } from '../../project/store'
import type { At } from '../../scene/Surface'
import { COPPER, QUIET } from '../../theme/theme'
import type { BlocksView, SceneItem } from './shapes'

const KINDS = new Set(['block', 'port', 'harness-link', 'cable-link'])
const STEP_MM = 5

interface Props {
  view: BlocksView
  /** A stroke makes a harness of its own, also from a connector that is in one. */
  own: boolean
  selected: string
  canEdit: boolean
  onSelect: (id: string) => void
}

/** What the pointer drags: a box by a point of it, or a stroke from a connector. */
interface Drag {
  item: SceneItem
  from: [number, number]
  to: [number, number]
}

const snapped = (v: number) => Math.max(0, Math.round(v / STEP_MM) * STEP_MM)
const middle = ([x1, y1, x2, y2]: SceneItem['box']): [number, number] => [(x1 + x2) / 2, (y1 + y2) / 2]

export function Blocks({ view, own, selected, canEdit, onSelect }: Props) {
  const { send } = usePick('send')
  const [drag, setDrag] = useState<Drag | null>(null)
  const began = useRef<Drag | null>(null)
  const scene = view.scene
  if (!scene)
    return (
      <Box sx={{ p: 3, color: QUIET }}>
        Nothing to show as blocks yet. Add a box on the right: a device, a board, a fan. Then give it its
        connectors, and draw a stroke from one connector to another.
      </Box>
    )
  const itemOf = (id: string) => scene.items.find((i) => i.id === id)
  const down = (at: At) => {
    const id = itemUnder(at, KINDS)
    onSelect(id)
    const item = itemOf(id)
    const draws = item && (item.kind === 'block' || item.kind === 'port')
    began.current = canEdit && draws ? { item, from: [at.x, at.y], to: [at.x, at.y] } : null
  }
  const move = (at: At) => {
    const d = began.current
    if (d && (drag || Math.hypot(at.x - d.from[0], at.y - d.from[1]) > 2)) setDrag({ ...d, to: [at.x, at.y] })
  }
  const up = (at: At) => {
    const d = drag
    began.current = null
    setDrag(null)
    if (!d) return
    if (d.item.kind === 'port') {
      const other = itemOf(itemUnder(at, new Set(['port'])))
      if (other && other.id !== d.item.id)
        void send(makeEdit('join-connectors', { one_id: d.item.id, other_id: other.id, own }))
      return
    }
    const [dx, dy] = [d.to[0] - d.from[0], d.to[1] - d.from[1]]
    const device = d.item.facts.device ?? ''
    const [x, y] = [snapped(d.item.box[0] + dx), snapped(d.item.box[1] + dy)]
    void send({ kind: 'move-block', device_id: device, x, y })
  }
  return (
    <Drawing
      scene={scene}
      name={`blocks:${view.boxes.length}`}
      selected={new Set([selected])}
      onDown={down}
      onMove={move}
      onUp={up}
    >
      {drag && <Shown drag={drag} />}
    </Drawing>
  )
}

/** The box where it would be let go, or the stroke that is being drawn. */
function Shown({ drag }: { drag: Drag }) {
  const { item, from, to } = drag
  if (item.kind === 'port') {
    const [x, y] = middle(item.box)
    return <line x1={x} y1={y} x2={to[0]} y2={to[1]} stroke={COPPER} strokeWidth={1} pointerEvents="none" />
  }
  const [x1, y1, x2, y2] = item.box
  const [x, y] = [snapped(x1 + to[0] - from[0]), snapped(y1 + to[1] - from[1])]
  return (
    <rect
      {...{ x, y, width: x2 - x1, height: y2 - y1 }}
      fill="none"
      stroke={COPPER}
      strokeWidth={1}
      pointerEvents="none"
    />
  )
}
