/** The form board at true scale; what is pointed at is chosen, an end is dragged to another length. */
import { useRef, useState } from 'react'
import { Drawing } from '../../kit/Drawing'
import { itemUnder } from '../../kit/itemUnder'
import { usePick } from '../../project/store'
import type { At } from '../../scene/Surface'
import { COPPER, MONO } from '../../theme/theme'
import type { HarnessValue } from './shapes'

const KINDS = new Set(['segment', 'node', 'table', 'covering'])

interface BoardProps {
  harness: HarnessValue
  selected: string
  canEdit: boolean
  onSelect: (id: string) => void
  along: Set<string>
}

/** An end of the harness that is dragged out or in: where its segment begins, which way it runs, how long it was. */
interface Drag {
  segment: string
  from: [number, number]
  unit: [number, number]
  length: number
  /** What is added to its typed length. */
  extra: number
}

/** The form board. An end is dragged along its segment to give that another length. */
export function Board({ harness, selected, canEdit, onSelect, along }: BoardProps) {
  const { send } = usePick('send')
  const drag = useRef<Drag | null>(null)
  const [length, setLength] = useState<number | null>(null)
  const down = (at: At) => {
    const id = itemUnder(at, KINDS)
    onSelect(id)
    const beside = harness.segments.filter((s) => s.a === id || s.b === id)
    const item = (harness.scene?.items ?? []).find((i) => i.id === beside[0]?.id)
    const segment = beside[0]
    // A length that follows from a path in space is not dragged.
    if (!canEdit || beside.length !== 1 || segment?.form !== 'typed' || !item?.facts.from || !item.facts.to)
      return
    const [near, far] = segment.a === id ? [item.facts.from, item.facts.to] : [item.facts.to, item.facts.from]
    const run = Math.hypot(near[0] - far[0], near[1] - far[1]) || 1
    const unit: [number, number] = [(near[0] - far[0]) / run, (near[1] - far[1]) / run]
    drag.current = {
      segment: segment.id,
      from: far,
      unit,
      length: segment.length_mm,
      extra: segment.length_mm - segment.base_mm,
    }
  }
  const move = (at: At) => {
    const d = drag.current
    if (!d) return
    const along = (at.x - d.from[0]) * d.unit[0] + (at.y - d.from[1]) * d.unit[1]
    setLength(Math.max(10, Math.round(along / 10) * 10))
  }
  const up = () => {
    const d = drag.current
    drag.current = null
    if (d && length !== null && Math.abs(length - d.length) >= 10)
      void send({ kind: 'set-segment', segment_id: d.segment, length_mm: length - d.extra })
    setLength(null)
  }
  const d = drag.current
  return (
    <Drawing
      scene={harness.scene!}
      name={`${harness.id}:${harness.nodes.length}:${harness.heading}`}
      selected={new Set([selected])}
      linked={along}
      strokes
      onDown={down}
      onMove={move}
      onUp={up}
    >
      {d && length !== null && <Stretch drag={d} length={length} />}
    </Drawing>
  )
}

interface StretchProps {
  drag: Drag
  length: number
}

function Stretch({ drag: d, length }: StretchProps) {
  return (
    <>
      <line
        x1={d.from[0]}
        y1={d.from[1]}
        x2={d.from[0] + d.unit[0] * length}
        y2={d.from[1] + d.unit[1] * length}
        stroke={COPPER}
        strokeWidth={2}
      />
      <text
        x={d.from[0] + d.unit[0] * length}
        y={d.from[1] + d.unit[1] * length - 8}
        fontSize={10}
        fontFamily={MONO}
        fill={COPPER}
      >
        {length} mm
      </text>
    </>
  )
}
