/** Paints scene items as SVG, with the pens, tones and faces of the one table. */
import { memo, useContext } from 'react'
import type { Item, Prim, PrimOf } from './item'
import { COPPER, INK, TEAL } from '../theme/theme'
import { PENS, ROLES, TONES, WIRE, wirePaint } from '../theme/paints'
import { pathsOf, runsOf, type Run } from './artPath'
import { SmallestWords, strokesFor } from './legible'
import { PictureBase } from './pictures'

export type Art = Record<string, Prim[]>
export type Look = 'plain' | 'selected' | 'linked' | 'preview' | 'snag'

const NO_ART: Prim[] = []
const PREVIEW_OPACITY = 0.75

const inkOf = (look: Look, plain: string) =>
  look === 'selected' || look === 'preview' ? COPPER : look === 'linked' ? TEAL : plain

/** An offset after mirroring and turning, as the core turns it. */
export function turned(x: number, y: number, rotation: number, mirror: boolean): [number, number] {
  const my = mirror ? -y : y
  if (rotation === 90) return [-my, x]
  if (rotation === 180) return [-x, -my]
  if (rotation === 270) return [my, -x]
  return [x, my]
}

interface PlacedProps {
  prim: PrimOf<'art'>
  art: Art
  own?: Prim[]
  look: Look
}

function Placed({ prim, art, own, look }: PlacedProps) {
  const { x, y, rotation, mirror } = prim
  const ink = inkOf(look, INK)
  const { lines, dashes, solid, texts } = pathsOf(own ?? art[`${prim.key}-${prim.poles}`] ?? NO_ART)
  const transform = `translate(${x} ${y}) rotate(${rotation})${mirror ? ' scale(1 -1)' : ''}`
  return (
    <>
      <g transform={transform} stroke={ink} strokeWidth={PENS.ink!.mm} fill="none">
        {lines && <path d={lines} />}
        {solid && <path d={solid} fill={ink} />}
        {dashes && <path d={dashes} strokeWidth={PENS.dash!.mm} strokeDasharray={PENS.dash!.dash} />}
      </g>
      {texts.map((p, i) => {
        const [dx, dy] = turned(p.x, p.y - p.size / 3, rotation, mirror)
        return <Words key={i} prim={{ ...p, x: x + dx, y: y + dy + p.size / 3 }} look={look} />
      })}
    </>
  )
}

function Strand({ prim, look }: { prim: PrimOf<'wire'>; look: Look }) {
  const { x1, y1, x2, y2 } = prim
  const paint = wirePaint(prim.colour)
  const line = { x1, y1, x2, y2 }
  const marked = look !== 'plain'
  return (
    <>
      {/* Met by the pointer, not painted: a sheet of a thousand wires stays quick. */}
      <line {...line} stroke="none" strokeWidth={2.2} pointerEvents="stroke" />
      {marked && <line {...line} stroke={inkOf(look, COPPER)} strokeWidth={1.5} opacity={0.55} />}
      {paint.edged && <line {...line} stroke={INK} strokeWidth={WIRE.edge} />}
      <line {...line} stroke={paint.first} strokeWidth={paint.mm} />
      {paint.second && (
        <line {...line} stroke={paint.second} strokeWidth={paint.mm} strokeDasharray={WIRE.dash} />
      )}
    </>
  )
}

function Picture({ prim }: { prim: PrimOf<'picture'> }) {
  const base = useContext(PictureBase)
  return (
    <image x={prim.x} y={prim.y} width={prim.width} height={prim.height} href={`${base}${prim.picture}`} />
  )
}

/** What a box is filled with: its tone, or that of the selection. */
const fillOf = (prim: PrimOf<'rect' | 'circle'>, look: Look) =>
  !prim.tone ? 'none' : look === 'selected' ? '#F8E4D5' : look === 'linked' ? '#DDEEEA' : TONES[prim.tone]

function Outline({ prim, look }: { prim: PrimOf<'line' | 'rect' | 'circle' | 'poly' | 'arc'>; look: Look }) {
  const pen = PENS[prim.pen]!
  const stroke = { stroke: inkOf(look, INK), strokeWidth: pen.mm, strokeDasharray: pen.dash, fill: 'none' }
  if (prim.kind === 'line') return <line x1={prim.x1} y1={prim.y1} x2={prim.x2} y2={prim.y2} {...stroke} />
  if (prim.kind === 'circle')
    return <circle cx={prim.cx} cy={prim.cy} r={prim.radius} {...stroke} fill={fillOf(prim, look)} />
  if (prim.kind === 'poly') return <polyline points={prim.points.join(' ')} {...stroke} />
  if (prim.kind === 'arc') return <path d={pathsOf([prim]).lines} {...stroke} />
  const { x, y, width, height, tone } = prim
  const strong = tone && look !== 'plain' ? 2 : 1
  const box = { ...stroke, strokeWidth: pen.mm * strong, fill: fillOf(prim, look) }
  return <rect x={x} y={y} width={width} height={height} {...box} />
}

/** Outlines that look alike, painted at once. */
function Outlines({ run, look }: { run: Run; look: Look }) {
  const { first, d } = run
  const pen = PENS[first.pen]!
  const strong = first.kind === 'rect' && first.tone && look !== 'plain' ? 2 : 1
  return (
    <path
      d={d}
      stroke={inkOf(look, INK)}
      strokeWidth={pen.mm * strong}
      strokeDasharray={pen.dash}
      fill={first.kind === 'line' ? 'none' : fillOf(first, look)}
    />
  )
}

function Words({ prim, look }: { prim: PrimOf<'text'>; look: Look }) {
  const { family, weight, ink } = ROLES[prim.role]!
  // A tag that leads to another view does so on paper; on the screen it is part of what it names.
  const link = prim.link && !prim.link.includes(':') ? prim.link : undefined
  return (
    <text
      x={prim.x}
      y={prim.y}
      fontSize={prim.size}
      textAnchor={prim.anchor}
      fontFamily={family}
      fontWeight={weight}
      fill={prim.role === 'reference' ? ink : inkOf(look, ink)}
      transform={prim.upward ? `rotate(-90 ${prim.x} ${prim.y})` : undefined}
      data-link={link}
      data-role={prim.role}
      style={link ? { cursor: 'pointer' } : undefined}
    >
      {prim.words}
    </text>
  )
}

interface PrimProps {
  prim: Prim
  art: Art
  own?: Prim[]
  look: Look
}

function PrimView({ prim, art, own, look }: PrimProps) {
  switch (prim.kind) {
    case 'wire':
      return <Strand prim={prim} look={look} />
    case 'art':
      return <Placed prim={prim} art={art} own={own} look={look} />
    case 'dot':
      return <circle cx={prim.cx} cy={prim.cy} r={prim.radius} fill={inkOf(look, INK)} />
    case 'picture':
      return <Picture prim={prim} />
    case 'text':
      return <Words prim={prim} look={look} />
    case 'line':
    case 'poly':
    case 'rect':
    case 'circle':
    case 'arc':
      return <Outline prim={prim} look={look} />
  }
}

interface ItemViewProps {
  item: Item
  art: Art
  look: Look
}

/** One item; repainted only when it, or how it looks, changes. */
export const ItemView = memo(function ItemView({ item, art, look }: ItemViewProps) {
  const body = item.facts.body
  return (
    <g
      data-id={item.kind === 'frame' ? undefined : item.id}
      pointerEvents={item.kind === 'frame' ? 'none' : undefined}
      data-kind={item.kind}
      data-look={look}
      opacity={look === 'preview' ? PREVIEW_OPACITY : undefined}
      strokeLinecap="round"
      strokeLinejoin="round"
    >
      {body && (
        <rect
          x={body[0] - 0.5}
          y={body[1] - 0.5}
          width={body[2] - body[0] + 1}
          height={body[3] - body[1] + 1}
          fill={look === 'selected' ? 'rgba(180,98,45,0.10)' : 'none'}
          pointerEvents="all"
          rx={1}
        />
      )}
      {item.at ? (
        <g transform={`translate(${item.at[0]} ${item.at[1]})`}>
          <Prims prims={item.prims} art={art} own={item.facts.art} look={look} />
        </g>
      ) : (
        <Prims prims={item.prims} art={art} own={item.facts.art} look={look} />
      )}
    </g>
  )
})

interface PrimsProps {
  prims: Prim[]
  art: Art
  own: Prim[] | undefined
  look: Look
}

/** What an item is drawn of; where only its place is another one, this stays. */
const Prims = memo(function Prims({ prims, art, own, look }: PrimsProps) {
  const smallest = useContext(SmallestWords)
  const { kept, strokes } = strokesFor(prims, smallest)
  return (
    <>
      {runsOf(kept).map((prim, i) =>
        'first' in prim ? (
          <Outlines key={i} run={prim} look={look} />
        ) : (
          <PrimView key={i} prim={prim} art={art} own={own} look={look} />
        ),
      )}
      {strokes && (
        <path d={strokes} stroke={inkOf(look, INK)} strokeWidth={Math.min(smallest, 20) / 2} opacity={0.3} />
      )}
    </>
  )
})
