/** Paints scene items as SVG. The primitives are documented in jolly_core/scenes/primitives.py. */
import { memo, useContext } from 'react'
import type { Item, Prim } from './item'
import { COPPER, INK, MONO, QUIET, TEAL } from '../theme/theme'
import { pathsOf } from './artPath'
import { wirePaint } from './colours'
import { PictureBase } from './pictures'

export type Art = Record<string, Prim[]>
export type Look = 'plain' | 'selected' | 'linked' | 'preview' | 'snag'

const PENS: Record<string, number> = { ink: 0.35, thin: 0.18, dash: 0.25, frame: 0.5, edge: 1.0, fine: 0.5 }
/** Fills of boxes by tone, the same as in jolly_core/exchange/sheetpdf.py. */
const FILLS: Record<string, string> = {
  plate: '#F4F1EA',
  rail: '#D5D9DE',
  duct: '#E6E1D3',
  device: '#FFFFFF',
  paper: '#FCFAF5',
}
const SANS = 'Inter, sans-serif'
const FACES: Record<string, string> = { text: SANS, title: SANS, heading: SANS }
const INKS: Record<string, string> = { reference: TEAL, line: QUIET, number: '#2F5D50' }
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

function Placed({ prim, art, own, ink }: { prim: Prim; art: Art; own?: Prim[]; ink: string }) {
  const [, key, x, y, rotation, mirror, poles] = prim as [
    string,
    string,
    number,
    number,
    number,
    boolean,
    number,
  ]
  const { lines, dashes, solid, texts } = pathsOf(own ?? art[`${key}-${poles}`] ?? NO_ART)
  const transform = `translate(${x} ${y}) rotate(${rotation})${mirror ? ' scale(1 -1)' : ''}`
  return (
    <>
      {lines && <path d={lines} transform={transform} stroke={ink} strokeWidth={0.4} fill="none" />}
      {solid && <path d={solid} transform={transform} stroke={ink} strokeWidth={0.4} fill={ink} />}
      {dashes && (
        <path
          d={dashes}
          transform={transform}
          stroke={ink}
          strokeWidth={0.25}
          strokeDasharray="1.2 0.9"
          fill="none"
        />
      )}
      {texts.map((p, i) => {
        const [, tx, ty, words, size] = p as [string, number, number, string, number]
        const [dx, dy] = turned(tx, ty - size / 3, rotation, mirror)
        return (
          <text key={i} x={x + dx} y={y + dy + size / 3} fontSize={size} textAnchor="middle" fill={ink}>
            {words}
          </text>
        )
      })}
    </>
  )
}

function Wire({ prim, look }: { prim: Prim; look: Look }) {
  const [, x1, y1, x2, y2, colour] = prim as [string, number, number, number, number, string]
  const paint = wirePaint(colour)
  const line = { x1, y1, x2, y2 }
  const marked = look !== 'plain'
  return (
    <>
      {/* Met by the pointer, not painted: a sheet of a thousand wires stays quick. */}
      <line {...line} stroke="none" strokeWidth={2.2} pointerEvents="stroke" />
      {marked && (
        <line {...line} stroke={inkOf(look, COPPER)} strokeWidth={1.5} opacity={0.55} strokeLinecap="round" />
      )}
      {paint.edged && <line {...line} stroke={INK} strokeWidth={0.8} />}
      <line {...line} stroke={paint.first} strokeWidth={0.6} strokeLinecap="round" />
      {paint.second && <line {...line} stroke={paint.second} strokeWidth={0.6} strokeDasharray="2 2" />}
    </>
  )
}

function Picture({ place, id }: { place: number[]; id: string }) {
  const base = useContext(PictureBase)
  return <image x={place[0]} y={place[1]} width={place[2]} height={place[3]} href={`${base}${id}`} />
}

interface PrimProps {
  prim: Prim
  art: Art
  own?: Prim[]
  look: Look
}

function PrimView({ prim, art, own, look }: PrimProps) {
  const [kind, ...v] = prim
  const n = v as number[]
  const ink = inkOf(look, INK)
  switch (kind) {
    case 'wire':
      return <Wire prim={prim} look={look} />
    case 'art':
      return <Placed prim={prim} art={art} own={own} ink={ink} />
    case 'dot':
      return <circle cx={n[0]} cy={n[1]} r={n[2]} fill={ink} />
    case 'line':
      return (
        <line
          x1={n[0]}
          y1={n[1]}
          x2={n[2]}
          y2={n[3]}
          stroke={ink}
          strokeWidth={PENS[v[4] as string]}
          strokeDasharray={v[4] === 'dash' ? '1.2 0.9' : undefined}
        />
      )
    case 'rect':
      return (
        <rect
          x={n[0]}
          y={n[1]}
          width={n[2]}
          height={n[3]}
          fill="none"
          stroke={ink}
          strokeWidth={PENS[v[4] as string]}
        />
      )
    case 'box':
      return (
        <rect
          x={n[0]}
          y={n[1]}
          width={n[2]}
          height={n[3]}
          fill={look === 'selected' ? '#F8E4D5' : look === 'linked' ? '#DDEEEA' : FILLS[v[5] as string]}
          stroke={ink}
          strokeWidth={PENS[v[4] as string]! * (look === 'plain' ? 1 : 2)}
        />
      )
    case 'picture':
      return <Picture place={n} id={v[4] as string} />
    case 'circle':
      return (
        <circle cx={n[0]} cy={n[1]} r={n[2]} fill="none" stroke={ink} strokeWidth={PENS[v[3] as string]} />
      )
    case 'poly':
      return (
        <polyline
          points={(v[0] as number[]).join(' ')}
          fill="none"
          stroke={ink}
          strokeWidth={PENS[v[1] as string]}
        />
      )
    case 'text': {
      const [x, y, size, anchor, role, words, link] = v as [
        number,
        number,
        number,
        'start',
        string,
        string,
        string,
      ]
      return (
        <text
          x={x}
          y={y}
          fontSize={size}
          textAnchor={anchor}
          fontFamily={FACES[role] ?? MONO}
          fontWeight={role === 'tag' ? 600 : 400}
          fill={role === 'reference' ? TEAL : inkOf(look, INKS[role] ?? INK)}
          data-link={link || undefined}
          data-role={role}
          style={link ? { cursor: 'pointer' } : undefined}
        >
          {words}
        </text>
      )
    }
    default:
      return null
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
      {item.prims.map((prim, i) => (
        <PrimView key={i} prim={prim} art={art} own={item.facts.art} look={look} />
      ))}
    </g>
  )
})
