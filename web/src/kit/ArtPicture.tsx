/** A small picture of graphics: symbols in grid millimetres, outlines in their own. */
import type { Prim } from '../scene/item'
import { INK } from '../theme/theme'
import { ROLES } from '../theme/paints'
import { boundsOf, pathsOf } from '../scene/artPath'

interface Props {
  art: Prim[]
  width: number
  height: number
}

export function ArtPicture({ art, width, height }: Props) {
  const bounds = boundsOf(art)
  if (!bounds) return null
  const [l, t, r, b] = bounds
  const margin = Math.max(r - l, b - t, 1) * 0.08
  const pen = Math.max((r - l) / width, (b - t) / height, 0.02) * 1.4
  const { lines, dashes, solid, texts } = pathsOf(art)
  return (
    <svg
      width={width}
      height={height}
      viewBox={`${l - margin} ${t - margin} ${r - l + 2 * margin} ${b - t + 2 * margin}`}
      aria-hidden
    >
      <g stroke={INK} strokeWidth={pen} fill="none" strokeLinecap="round">
        <path d={lines} />
        <path d={dashes} strokeDasharray={`${pen * 3} ${pen * 2}`} />
        <path d={solid} fill={INK} />
      </g>
      {texts.map((p, i) => (
        <text
          key={i}
          x={p.x}
          y={p.y}
          fontSize={p.size}
          textAnchor={p.anchor}
          fontFamily={ROLES[p.role]!.family}
        >
          {p.words}
        </text>
      ))}
    </svg>
  )
}
