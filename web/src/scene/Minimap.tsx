/** The whole sheet, small, with what is in view; a press or drag on it moves the view there. */
import { memo } from 'react'
import type { Box } from './item'
import { COPPER, INK, LINE, PAPER } from '../theme/theme'

const WIDE_PX = 168

interface Props {
  width: number
  height: number
  /** Where something is drawn, mm. */
  boxes: Box[]
  /** What is in view, mm. */
  view: Box
  /** Bring a point to the middle of the view, mm. */
  onMove: (x: number, y: number) => void
}

export function Minimap({ width, height, boxes, view, onMove }: Props) {
  const high = Math.min(WIDE_PX, (WIDE_PX * height) / width)
  const wide = (high * width) / height
  const lead = (event: React.PointerEvent) => {
    const rect = event.currentTarget.getBoundingClientRect()
    onMove(
      ((event.clientX - rect.left) / rect.width) * width,
      ((event.clientY - rect.top) / rect.height) * height,
    )
  }
  const [left, top] = [Math.max(0, view[0]), Math.max(0, view[1])]
  const [right, bottom] = [Math.min(width, view[2]), Math.min(height, view[3])]
  return (
    <svg
      data-overlay
      data-testid="minimap"
      role="img"
      aria-label="Whole sheet, with what is in view"
      width={wide}
      height={high}
      viewBox={`0 0 ${width} ${height}`}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId)
        lead(e)
      }}
      onPointerMove={(e) => e.buttons === 1 && lead(e)}
      style={{
        position: 'absolute',
        right: 12,
        bottom: 12,
        background: PAPER,
        border: `1px solid ${LINE}`,
        borderRadius: 4,
        boxShadow: '0 1px 6px rgba(20, 33, 61, 0.18)',
        cursor: 'pointer',
      }}
    >
      <Drawn boxes={boxes} />
      <rect
        x={left}
        y={top}
        width={Math.max(0, right - left)}
        height={Math.max(0, bottom - top)}
        fill="rgba(180,98,45,0.10)"
        stroke={COPPER}
        strokeWidth={width / 110}
      />
    </svg>
  )
}

const Drawn = memo(function Drawn({ boxes }: { boxes: Box[] }) {
  const path = boxes
    .map(([x1, y1, x2, y2]) => `M${x1} ${y1}H${Math.max(x2, x1 + 1)}V${Math.max(y2, y1 + 1)}H${x1}Z`)
    .join('')
  return <path d={path} fill={INK} opacity={0.45} />
})
