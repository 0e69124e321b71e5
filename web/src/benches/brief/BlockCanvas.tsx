/** The canvas of a title block: cells are chosen, dragged and sized; letting go is one edit. */
import { useMemo, useRef, useState } from 'react'
import { COPPER } from '../../theme/theme'
import { Drawing } from '../../kit/Drawing'
import { itemUnder } from '../../kit/itemUnder'
import type { At } from '../../scene/Surface'
import { useCommands, type Command } from '../../project/commands'
import { useProject } from '../../project/store'
import type { Blocks, Cell } from './shapes'

const EDGE_MM = 12
const SNAP_MM = 1.2
const GRIP_MM = 2.4
const LEAST_MM = 4
const CELLS = new Set(['cell'])

type Frame = Pick<Cell, 'x' | 'y' | 'width' | 'height'>
interface Drag {
  cell: Cell
  corner: string
  from: [number, number]
}

interface Props {
  blocks: Blocks
  picked: string[]
  canEdit: boolean
  onPick: (ids: string[]) => void
}

/** A coordinate on one of the lines nearby, else on the whole millimetre. */
function snapped(value: number, lines: number[]): number {
  const near = lines.filter((l) => Math.abs(l - value) < SNAP_MM)
  near.sort((a, b) => Math.abs(a - value) - Math.abs(b - value))
  return near[0] ?? Math.round(value)
}

/** Where a dragged cell would be: within the block, on lines of its neighbours. */
export function dragged(drag: Drag, to: [number, number], blocks: Blocks): Frame {
  const { cell, corner } = drag
  const others = blocks.cells.filter((c) => c.id !== cell.id)
  const xs = [0, blocks.block.width_mm, ...others.flatMap((c) => [c.x, c.x + c.width])]
  const ys = [0, blocks.block.height_mm, ...others.flatMap((c) => [c.y, c.y + c.height])]
  const dx = to[0] - drag.from[0]
  const dy = to[1] - drag.from[1]
  const held = (v: number, most: number) => Math.max(0, Math.min(most, v))
  if (!corner) {
    let x = snapped(cell.x + dx, xs)
    if (!xs.includes(x)) {
      const right = snapped(cell.x + cell.width + dx, xs)
      if (xs.includes(right)) x = right - cell.width
    }
    let y = snapped(cell.y + dy, ys)
    if (!ys.includes(y)) {
      const bottom = snapped(cell.y + cell.height + dy, ys)
      if (ys.includes(bottom)) y = bottom - cell.height
    }
    return {
      x: held(x, blocks.block.width_mm - cell.width),
      y: held(y, blocks.block.height_mm - cell.height),
      width: cell.width,
      height: cell.height,
    }
  }
  const left = corner.includes('w') ? held(snapped(cell.x + dx, xs), cell.x + cell.width - LEAST_MM) : cell.x
  const top = corner.includes('n') ? held(snapped(cell.y + dy, ys), cell.y + cell.height - LEAST_MM) : cell.y
  const right = corner.includes('e')
    ? Math.max(left + LEAST_MM, held(snapped(cell.x + cell.width + dx, xs), blocks.block.width_mm))
    : cell.x + cell.width
  const bottom = corner.includes('s')
    ? Math.max(top + LEAST_MM, held(snapped(cell.y + cell.height + dy, ys), blocks.block.height_mm))
    : cell.y + cell.height
  return { x: left, y: top, width: right - left, height: bottom - top }
}

const ARROWS = [
  ['ArrowLeft', 'left', -1, 0],
  ['ArrowRight', 'right', 1, 0],
  ['ArrowUp', 'up', 0, -1],
  ['ArrowDown', 'down', 0, 1],
] as const

/** Delete takes chosen cells out, arrows move the one that is chosen. */
function useCellCommands(blocks: Blocks, picked: string[], one: Cell | undefined) {
  const send = useProject((s) => s.send)
  const commands = useMemo((): Command[] => {
    const by = (dx: number, dy: number) => () => {
      if (!one) return
      const { x, y } = dragged({ cell: one, corner: '', from: [0, 0] }, [0, 0], blocks)
      const to = { x: Math.max(0, x + dx), y: Math.max(0, y + dy) }
      void send({ kind: 'put-title-cell', block_id: one.block_id, cell_id: one.id, ...to })
    }
    return [
      {
        ...{ id: 'cells-out', label: 'Take the chosen cells out', shortcut: 'Delete' },
        run: () => void send({ kind: 'remove-title-cells', cell_ids: picked }),
        enabled: () => picked.length > 0,
      },
      ...ARROWS.map(([shortcut, way, dx, dy]) => ({
        ...{ id: `cell-${way}`, label: `Move the chosen cell 1 mm ${way}`, shortcut },
        ...{ run: by(dx, dy), enabled: () => one !== undefined },
      })),
    ]
  }, [blocks, one, picked, send])
  useCommands('Title blocks', commands)
}

export function BlockCanvas({ blocks, picked, canEdit, onPick }: Props) {
  const send = useProject((s) => s.send)
  const drag = useRef<Drag | null>(null)
  const [ghost, setGhost] = useState<Frame | null>(null)
  const one = picked.length === 1 ? blocks.cells.find((c) => c.id === picked[0]) : undefined

  useCellCommands(blocks, picked, one)

  const down = (at: At) => {
    const corner = at.target?.getAttribute('data-corner') ?? ''
    const id = corner && one ? one.id : itemUnder(at, CELLS)
    if (!id) {
      onPick([])
      return
    }
    if (at.event.shiftKey) onPick(picked.includes(id) ? picked.filter((p) => p !== id) : [...picked, id])
    else onPick([id])
    const cell = blocks.cells.find((c) => c.id === id)
    if (cell && canEdit && !at.event.shiftKey) drag.current = { cell, corner, from: [at.x, at.y] }
  }
  const move = (at: At) => {
    if (drag.current) setGhost(dragged(drag.current, [at.x, at.y], blocks))
  }
  const up = () => {
    const held = drag.current
    drag.current = null
    setGhost(null)
    if (!held || !ghost) return
    const same = (['x', 'y', 'width', 'height'] as const).every(
      (k) => Math.abs(held.cell[k] - ghost[k]) < 0.01,
    )
    if (!same)
      void send({ kind: 'put-title-cell', block_id: held.cell.block_id, cell_id: held.cell.id, ...ghost })
  }
  const box = ghost ?? one
  return (
    <Drawing
      scene={blocks.scene}
      name={`block-${blocks.block.id}-${blocks.block.width_mm}-${blocks.block.height_mm}`}
      selected={new Set(picked)}
      onDown={down}
      onMove={move}
      onUp={up}
    >
      {box && <CellBox {...{ box, canEdit }} />}
    </Drawing>
  )
}

interface CellBoxProps {
  box: Frame
  canEdit: boolean
}

function CellBox({ box, canEdit }: CellBoxProps) {
  return (
    <g data-testid="cell-box">
      <rect
        x={EDGE_MM + box.x}
        y={EDGE_MM + box.y}
        width={box.width}
        height={box.height}
        fill="none"
        stroke={COPPER}
        strokeWidth={0.5}
        pointerEvents="none"
      />
      {canEdit &&
        ['nw', 'ne', 'sw', 'se'].map((corner) => (
          <rect
            key={corner}
            data-corner={corner}
            x={EDGE_MM + box.x + (corner.includes('e') ? box.width : 0) - GRIP_MM / 2}
            y={EDGE_MM + box.y + (corner.includes('s') ? box.height : 0) - GRIP_MM / 2}
            width={GRIP_MM}
            height={GRIP_MM}
            fill="#fff"
            stroke={COPPER}
            strokeWidth={0.35}
            style={{ cursor: `${corner}-resize` }}
          />
        ))}
    </g>
  )
}
