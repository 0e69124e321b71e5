/** The paper of the symbol maker: graphics and pins are drawn by dragging, moved, and taken away; all on a grid. */
import { useEffect, useRef, useState, type PointerEvent } from 'react'
import type { Prim } from '../../../scene/item'
import { COPPER, INK, MONO, PAPER, TEAL } from '../../../theme/theme'
import { pathsOf } from '../../../scene/artPath'
import {
  drawnBy,
  movedPrim,
  PLACE_NAMES,
  snapTo,
  wordsAt,
  type Pin,
  type PlaceName,
  type Places,
  type Point,
  type ToolName,
} from './art'

export type Chosen = { kind: 'prim' | 'pin' | 'place'; index: number } | null

interface Props {
  art: Prim[]
  pins: Pin[]
  places?: Places
  tool: ToolName
  chosen: Chosen
  /** Left, top, width, height shown, in the drawing's own units. */
  box: [number, number, number, number]
  snap: number
  /** Distance of the dots one sees. */
  dots: number
  pen: number
  /** A rectangle or circle to draw within: what a part takes on plate or door. */
  frame?: { width: number; height: number; round: boolean }
  textSize: number
  choose: (chosen: Chosen) => void
  change: (art: Prim[], pins: Pin[]) => void
  movePlace?: (name: PlaceName, to: Point) => void
}

const KINDS = ['pin', 'place'] as const

interface Drag {
  from: Point
  to: Point
  moving: boolean
}

/** Move the place of a text as it was dragged. */
function movePlace({ places, movePlace: move }: Props, name: PlaceName, { from, to }: Drag) {
  const place = places?.[name]
  if (place) move?.(name, [place[0] + to[0] - from[0], place[1] + to[1] - from[1]])
}

/** What the pointer does on the paper: it draws, puts pins and texts, chooses and moves. */
function usePointer(props: Props, svg: React.RefObject<SVGSVGElement | null>) {
  const { art, pins, tool, chosen, snap } = props
  const [drag, setDrag] = useState<Drag | null>(null)
  const [typing, setTyping] = useState<Point | null>(null)
  const at = (event: PointerEvent, step: number): Point => {
    const matrix = svg.current!.getScreenCTM()!.inverse()
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix)
    return [snapTo(p.x, step), snapTo(p.y, step)]
  }
  const down = (event: PointerEvent) => {
    if (event.button !== 0) return
    const target = (event.target as Element).closest('[data-prim],[data-pin],[data-place]')
    if (tool === 'pin') {
      const [x, y] = at(event, 1)
      if (!pins.some((p) => p[0] === x && p[1] === y)) props.change(art, [...pins, [x, y, '']])
      props.choose({ kind: 'pin', index: pins.length })
    } else if (tool === 'text') {
      setTyping(at(event, snap))
    } else if (tool === 'select') {
      const kind = KINDS.find((k) => target?.hasAttribute(`data-${k}`)) ?? 'prim'
      const index = target ? Number(target.getAttribute(`data-${kind}`)) : -1
      props.choose(target ? { kind, index } : null)
      const step = kind === 'pin' ? 1 : snap
      if (target) setDrag({ from: at(event, step), to: at(event, step), moving: true })
    } else {
      setDrag({ from: at(event, snap), to: at(event, snap), moving: false })
    }
    svg.current?.setPointerCapture(event.pointerId)
  }
  const move = (event: PointerEvent) => {
    if (drag) setDrag({ ...drag, to: at(event, drag.moving && chosen?.kind === 'pin' ? 1 : snap) })
  }
  const shifted = (): [Prim[], Pin[]] => {
    if (!drag?.moving || !chosen || chosen.kind === 'place') return [art, pins]
    const [dx, dy] = [drag.to[0] - drag.from[0], drag.to[1] - drag.from[1]]
    return chosen.kind === 'pin'
      ? [art, pins.map((p, i) => (i === chosen.index ? [p[0] + dx, p[1] + dy, p[2]] : p))]
      : [art.map((p, i) => (i === chosen.index ? movedPrim(p, dx, dy) : p)), pins]
  }
  const up = () => {
    if (!drag) return
    setDrag(null)
    if (drag.moving && chosen?.kind === 'place') return movePlace(props, PLACE_NAMES[chosen.index]!, drag)
    if (drag.moving) {
      if (drag.to[0] !== drag.from[0] || drag.to[1] !== drag.from[1]) props.change(...shifted())
      return
    }
    const made = drawnBy(tool, drag.from, drag.to)
    if (made) {
      props.change([...art, made], pins)
      props.choose({ kind: 'prim', index: art.length })
    }
  }
  return { drag, typing, setTyping, shifted, down, move, up }
}

export function Canvas(props: Props) {
  const { art, pins, tool, chosen, box, dots, pen, frame } = props
  const svg = useRef<SVGSVGElement>(null)
  const { drag, typing, setTyping, shifted, down, move, up } = usePointer(props, svg)
  const [shownArt, shownPins] = shifted()
  const ghost = drag && !drag.moving ? drawnBy(tool, drag.from, drag.to) : null
  return (
    <div style={{ position: 'relative', flex: 1, minHeight: 0, background: '#EAE4D6' }}>
      <svg
        ref={svg}
        viewBox={box.join(' ')}
        width="100%"
        height="100%"
        role="img"
        aria-label="Drawing"
        data-testid="maker"
        style={{
          position: 'absolute',
          touchAction: 'none',
          userSelect: 'none',
          cursor: tool === 'select' ? 'default' : 'crosshair',
        }}
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
      >
        <Dots {...{ box, dots, pen }} />
        {frame && <Frame frame={frame} pen={pen} />}
        {shownArt.map((prim, i) => (
          <PrimShape
            key={i}
            prim={prim}
            index={i}
            pen={pen}
            ink={chosen?.kind === 'prim' && chosen.index === i ? COPPER : INK}
          />
        ))}
        {ghost && <PrimShape prim={ghost} index={-1} pen={pen} ink={COPPER} />}
        <PlaceMarks places={props.places} chosen={chosen} drag={drag} pen={pen} />
        <PinMarks pins={shownPins} chosen={chosen} pen={pen} />
      </svg>
      {typing && (
        <TextBox
          done={(words) => {
            setTyping(null)
            if (words) props.change([...art, wordsAt(typing, words, props.textSize)], pins)
          }}
        />
      )}
    </div>
  )
}

interface ShapeProps {
  prim: Prim
  index: number
  pen: number
  ink: string
}

function PrimShape({ prim, index, pen, ink }: ShapeProps) {
  if (prim.kind === 'text') {
    const { x, y, size } = prim
    return (
      <text data-prim={index} x={x} y={y} fontSize={size} textAnchor="middle" fill={ink} fontFamily={MONO}>
        {prim.words}
      </text>
    )
  }
  const { lines, dashes, solid } = pathsOf([prim])
  return (
    <g data-prim={index}>
      <path
        d={lines + dashes + solid}
        stroke="none"
        fill="none"
        strokeWidth={pen * 5}
        pointerEvents="stroke"
      />
      <path
        d={lines + dashes + solid}
        stroke={ink}
        strokeWidth={pen}
        fill={solid ? ink : 'none'}
        strokeDasharray={dashes ? `${pen * 3} ${pen * 2}` : undefined}
        strokeLinecap="round"
      />
    </g>
  )
}

/** Asks for the words of a text, beside the paper. */
function TextBox({ done }: { done: (words: string) => void }) {
  const field = useRef<HTMLInputElement>(null)
  useEffect(() => field.current?.focus(), [])
  return (
    <input
      ref={field}
      aria-label="Words"
      placeholder="words, then Enter"
      onBlur={(e) => done(e.target.value.trim())}
      onKeyDown={(e) => {
        if (e.key === 'Enter') done(e.currentTarget.value.trim())
        if (e.key === 'Escape') done('')
        e.stopPropagation()
      }}
      style={{ position: 'absolute', left: 10, top: 10, font: `13px ${MONO}`, padding: '3px 6px' }}
    />
  )
}

interface FrameProps {
  frame: NonNullable<Props['frame']>
  pen: number
}

/** The outline to draw within. */
function Frame({ frame, pen }: FrameProps) {
  return (
    <>
      {frame.round ? (
        <circle
          cx={frame.width / 2}
          cy={frame.width / 2}
          r={frame.width / 2}
          fill="#fff"
          stroke={TEAL}
          strokeWidth={pen / 2}
          strokeDasharray={`${pen * 4} ${pen * 2}`}
        />
      ) : (
        <rect
          width={frame.width}
          height={frame.height}
          fill="#fff"
          stroke={TEAL}
          strokeWidth={pen / 2}
          strokeDasharray={`${pen * 4} ${pen * 2}`}
        />
      )}
    </>
  )
}

interface PlaceMarksProps {
  places: Places | undefined
  chosen: Chosen
  drag: Drag | null
  pen: number
}

function PlaceMarks({ places, chosen, drag, pen }: PlaceMarksProps) {
  return (
    <>
      {PLACE_NAMES.map((name, i) => {
        const place = places?.[name]
        if (!place) return null
        const held = chosen?.kind === 'place' && chosen.index === i
        const [dx, dy] =
          held && drag?.moving ? [drag.to[0] - drag.from[0], drag.to[1] - drag.from[1]] : [0, 0]
        return (
          <text
            key={name}
            data-place={i}
            x={place[0] + dx}
            y={place[1] + dy + pen * 3}
            fontSize={pen * 9}
            textAnchor="middle"
            fontFamily={MONO}
            fill={held ? COPPER : TEAL}
            style={{ cursor: 'pointer' }}
          >
            {name}
          </text>
        )
      })}
    </>
  )
}

interface PinMarksProps {
  pins: Pin[]
  chosen: Chosen
  pen: number
}

function PinMarks({ pins, chosen, pen }: PinMarksProps) {
  return (
    <>
      {pins.map(([x, y, name], i) => (
        <g key={i} data-pin={i} style={{ cursor: 'pointer' }}>
          <circle
            cx={x}
            cy={y}
            r={pen * 2.4}
            fill={chosen?.kind === 'pin' && chosen.index === i ? COPPER : '#fff'}
            stroke={COPPER}
            strokeWidth={pen * 0.8}
          />
          <text
            x={x}
            y={y - pen * 3.4}
            fontSize={pen * 5}
            textAnchor="middle"
            fill={COPPER}
            fontFamily={MONO}
          >
            {name || i + 1}
          </text>
        </g>
      ))}
    </>
  )
}

interface DotsProps {
  box: Props['box']
  dots: number
  pen: number
}

function Dots({ box, dots, pen }: DotsProps) {
  return (
    <>
      <defs>
        <pattern id="maker-dots" width={dots} height={dots} patternUnits="userSpaceOnUse" x={0} y={0}>
          <circle cx={0} cy={0} r={pen * 0.45} fill="#CFC6B2" />
          <circle cx={dots} cy={0} r={pen * 0.45} fill="#CFC6B2" />
          <circle cx={0} cy={dots} r={pen * 0.45} fill="#CFC6B2" />
          <circle cx={dots} cy={dots} r={pen * 0.45} fill="#CFC6B2" />
        </pattern>
      </defs>
      <rect x={box[0]} y={box[1]} width={box[2]} height={box[3]} fill={PAPER} />
      <rect x={box[0]} y={box[1]} width={box[2]} height={box[3]} fill="url(#maker-dots)" />
    </>
  )
}
