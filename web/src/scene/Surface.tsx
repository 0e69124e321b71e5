/**
 * The work surface: paper, grid, pan and zoom. While a gesture lasts, the whole <svg> is moved as a picture; at
 * rest the view settles into its viewBox, so that lines are sharp. A gesture that leads far settles on its way, so
 * that what it uncovers is painted.
 */
import { useCallback, useEffect, useLayoutEffect, useRef, useState, type ReactNode } from 'react'
import type { Box } from './item'
import { PAPER } from '../theme/theme'
import { smallestAt, SmallestWords } from './legible'
import { Minimap } from './Minimap'
import { leadsView, type Show } from './viewport'

export const GRID = 2.5
const SETTLE_MS = 140
const FAR_PX = 260
const FAR_OUT = 0.75
const FAR_IN = 2.5
const CLOSEST = 14
const FARTHEST = 0.12
/** So much closer than the whole, the whole is shown small beside it. */
const CLOSE = 1.3
const FIT_SCALE = 4.2
const BOX_SCALE = 6
const MARGIN_MM = 8

export interface At {
  /** Sheet millimetres. */
  x: number
  y: number
  /** Nearest grid point. */
  gx: number
  gy: number
  /** Screen pixels within the surface. */
  px: number
  py: number
  target: Element | null
  event: PointerEvent | MouseEvent
}

interface Props {
  width: number
  height: number
  /** What to show at first and whenever `fitKey` changes, mm. */
  fit: Box
  fitKey: string
  onDown: (at: At) => void
  onMove: (at: At) => void
  onUp: (at: At) => void
  onDouble: (at: At) => void
  /** Without the grid of sheets, as layouts at true scale have none. */
  plain?: boolean
  /** Where something is drawn, mm: shown small beside the view when that is close. */
  boxes?: Box[]
  /** Words too small to be read are painted as strokes, as on a large drawing. */
  strokes?: boolean
  children: ReactNode
  /** Things laid over the paper at sheet positions, given the way from mm to pixels. */
  overlay?: (place: (x: number, y: number) => Placed) => ReactNode
}

/** A sheet position on the surface, and how much surface there is. */
export interface Placed {
  left: number
  top: number
  width: number
  height: number
}

interface ViewBox {
  x: number
  y: number
  scale: number
}

interface Size {
  w: number
  h: number
}

/** The view with a point in its middle. */
const centred = (x: number, y: number, scale: number, size: Size): ViewBox => ({
  scale,
  x: x - size.w / scale / 2,
  y: y - size.h / scale / 2,
})

/** The view in which a box is seen as a whole, from its top. */
function fitted([x1, y1, x2, y2]: Box, size: Size): ViewBox {
  const scale = Math.min(size.w / (x2 - x1), size.h / (y2 - y1), FIT_SCALE)
  return {
    scale,
    x: (x1 + x2) / 2 - size.w / scale / 2,
    y: Math.max(y1, 0) - Math.max(0, (size.h / scale - (y2 - y1)) / 2),
  }
}

/** The view that brings a box near. */
function near([x1, y1, x2, y2]: Box, size: Size): ViewBox {
  const across = size.w / (x2 - x1 + 2 * MARGIN_MM)
  const scale = Math.min(across, size.h / (y2 - y1 + 2 * MARGIN_MM), BOX_SCALE)
  return centred((x1 + x2) / 2, (y1 + y2) / 2, scale, size)
}

function useSize(holder: React.RefObject<HTMLDivElement | null>): Size {
  const [size, setSize] = useState<Size>({ w: 0, h: 0 })
  useLayoutEffect(() => {
    const element = holder.current
    if (!element) return
    const watch = new ResizeObserver(() => setSize({ w: element.clientWidth, h: element.clientHeight }))
    watch.observe(element)
    return () => watch.disconnect()
  }, [holder])
  return size
}

/**
 * Move a layer as a picture, or with '' put it back. It moves by an animation that stands still: of such a layer the
 * browser knows that it moves alone, and does not put all that is painted together anew at every step.
 */
function carryLayer(layer: Element, transform: string) {
  const moving = carried.get(layer)
  const still = [{ transform }, { transform }]
  if (!transform) {
    moving?.cancel()
    carried.delete(layer)
  } else if (moving) (moving.effect as KeyframeEffect).setKeyframes(still)
  else carried.set(layer, layer.animate(still, { duration: Infinity }))
}

/** What moves which layer: to ask the layer for it would work out its styles. */
const carried = new WeakMap<Element, Animation>()

/** The view at rest, and moving it: by a transform while a gesture lasts, settled when it rests or leads far. */
function useView(svg: React.RefObject<SVGSVGElement | null>, over: React.RefObject<HTMLDivElement | null>) {
  const [view, setView] = useState<ViewBox>({ x: 0, y: 0, scale: 3 })
  const live = useRef(view)
  const timer = useRef(0)
  /** What is laid over the paper goes along with it. */
  const carry = useCallback(
    (transform: string) => {
      for (const layer of [svg.current, over.current]) if (layer) carryLayer(layer, transform)
    },
    [svg, over],
  )
  const settle = useCallback(
    (next: ViewBox) => {
      live.current = next
      setView(next)
      carry('')
    },
    [carry],
  )
  const shift = useCallback(
    (next: ViewBox, now: ViewBox) => {
      live.current = next
      const factor = next.scale / now.scale
      const dx = (now.x - next.x) * next.scale
      const dy = (now.y - next.y) * next.scale
      window.clearTimeout(timer.current)
      if (Math.hypot(dx, dy) > FAR_PX || factor < FAR_OUT || factor > FAR_IN) return settle(next)
      carry(`translate(${dx}px, ${dy}px) scale(${factor})`)
      timer.current = window.setTimeout(() => settle(live.current), SETTLE_MS)
    },
    [settle, carry],
  )
  return { view, live, settle, shift }
}

type Viewing = ReturnType<typeof useView>

/** Bring what is drawn into view at first, when another sheet is shown, and when it is asked for; the scale of that. */
function useFit({ fit, fitKey }: Props, size: Size, { settle }: Viewing) {
  const [fitScale, setFitScale] = useState(Infinity)
  const fitNow = useRef(() => {})
  const show = useRef<Show>(() => {})
  useEffect(() => {
    fitNow.current = () => {
      if (!size.w || !size.h) return
      const next = fitted(fit, size)
      setFitScale(next.scale)
      settle(next)
    }
    show.current = (box) => (box ? settle(near(box, size)) : fitNow.current())
  })
  useEffect(() => leadsView((box) => show.current(box)), [])
  const ready = size.w > 0
  useEffect(() => {
    fitNow.current()
  }, [fitKey, ready])
  return { fitScale }
}

/** The wheel zooms about the pointer. */
function useWheel(holder: React.RefObject<HTMLDivElement | null>, { view, live, shift }: Viewing) {
  useEffect(() => {
    const element = holder.current
    if (!element) return
    const wheel = (event: WheelEvent) => {
      event.preventDefault()
      const rect = element.getBoundingClientRect()
      const [px, py] = [event.clientX - rect.left, event.clientY - rect.top]
      const from = live.current
      const scale = Math.min(CLOSEST, Math.max(FARTHEST, from.scale * Math.exp(-event.deltaY * 0.0015)))
      const [x, y] = [from.x + px / from.scale, from.y + py / from.scale]
      shift({ scale, x: x - px / scale, y: y - py / scale }, view)
    }
    element.addEventListener('wheel', wheel, { passive: false })
    return () => element.removeEventListener('wheel', wheel)
  }, [holder, live, shift, view])
}

/** Space held down pans. */
function useSpaceKey() {
  const space = useRef(false)
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      const typing = /INPUT|TEXTAREA|SELECT/.test((event.target as Element | null)?.tagName ?? '')
      if (event.code === 'Space' && !typing) {
        space.current = event.type === 'keydown'
        event.preventDefault()
      }
    }
    window.addEventListener('keydown', key)
    window.addEventListener('keyup', key)
    return () => {
      window.removeEventListener('keydown', key)
      window.removeEventListener('keyup', key)
    }
  }, [])
  return space
}

/** Where an event is on the sheet. */
function whereIs(event: React.PointerEvent | React.MouseEvent, holder: HTMLElement, now: ViewBox): At {
  const rect = holder.getBoundingClientRect()
  const [px, py] = [event.clientX - rect.left, event.clientY - rect.top]
  const [x, y] = [now.x + px / now.scale, now.y + py / now.scale]
  const target = document.elementFromPoint(event.clientX, event.clientY)
  const [gx, gy] = [Math.round(x / GRID), Math.round(y / GRID)]
  return { x, y, gx, gy, px, py, target, event: event.nativeEvent }
}

const onOverlay = (event: React.PointerEvent) => (event.target as Element).closest('[data-overlay]') !== null

/** What the pointer does: it pans with the middle button or Space, else it is handed up. */
function usePointer(
  props: Props,
  holder: React.RefObject<HTMLDivElement | null>,
  viewing: Viewing,
  space: React.RefObject<boolean>,
) {
  const { view, live, shift } = viewing
  const panning = useRef<{ px: number; py: number; from: ViewBox } | null>(null)
  const at = (event: React.PointerEvent | React.MouseEvent) => whereIs(event, holder.current!, live.current)
  const onPointerDown = (event: React.PointerEvent) => {
    if (onOverlay(event)) return
    if (event.button === 1 || space.current)
      panning.current = { px: event.clientX, py: event.clientY, from: live.current }
    else if (event.button === 0) props.onDown(at(event))
    holder.current?.setPointerCapture(event.pointerId)
  }
  const onPointerMove = (event: React.PointerEvent) => {
    const pan = panning.current
    if (!pan) return onOverlay(event) ? undefined : props.onMove(at(event))
    const { from } = pan
    const [dx, dy] = [event.clientX - pan.px, event.clientY - pan.py]
    shift({ ...from, x: from.x - dx / from.scale, y: from.y - dy / from.scale }, view)
  }
  const onPointerUp = (event: React.PointerEvent) => {
    if (panning.current) panning.current = null
    else if (!onOverlay(event)) props.onUp(at(event))
  }
  const onDoubleClick = (event: React.MouseEvent) => props.onDouble(at(event))
  return { onPointerDown, onPointerMove, onPointerUp, onDoubleClick }
}

const HOLDER = {
  position: 'relative',
  overflow: 'hidden',
  width: '100%',
  height: '100%',
  touchAction: 'none',
} as const
const PAPER_LOOK = {
  display: 'block',
  transformOrigin: '0 0',
  userSelect: 'none',
  // A layer of its own is moved as a picture; texts laid out without regard to the scale are not laid out anew.
  willChange: 'transform',
  textRendering: 'geometricPrecision',
} as const

/** The pointer meets the paper beside what is in it; what takes the pointer says so itself. */
const OVER = {
  position: 'absolute',
  inset: 0,
  pointerEvents: 'none',
  transformOrigin: '0 0',
  willChange: 'transform',
} as const

export function Surface(props: Props) {
  const { width, height } = props
  const holder = useRef<HTMLDivElement>(null)
  const svg = useRef<SVGSVGElement>(null)
  const size = useSize(holder)
  const over = useRef<HTMLDivElement>(null)
  const viewing = useView(svg, over)
  const { view, live, settle } = viewing
  const { fitScale } = useFit(props, size, viewing)
  useWheel(holder, viewing)
  const pointer = usePointer(props, holder, viewing, useSpaceKey())
  const [across, down] = [size.w / view.scale, size.h / view.scale]
  // Before it is known how much is shown, no word is: most would be painted only to become strokes.
  const smallest = !props.strokes ? 0 : fitScale === Infinity ? Infinity : smallestAt(view.scale)
  const place = useCallback(
    (x: number, y: number): Placed => ({
      left: (x - view.x) * view.scale,
      top: (y - view.y) * view.scale,
      width: size.w,
      height: size.h,
    }),
    [view, size],
  )
  return (
    <div ref={holder} {...pointer} style={HOLDER}>
      <svg
        ref={svg}
        width={size.w}
        height={size.h}
        viewBox={`${view.x} ${view.y} ${across || 1} ${down || 1}`}
        style={PAPER_LOOK}
        role="img"
        aria-label="Sheet"
        data-testid="sheet"
        data-view={`${view.x},${view.y},${view.scale}`}
      >
        <Paper width={width} height={height} grid={!props.plain} />
        <SmallestWords.Provider value={smallest}>{props.children}</SmallestWords.Provider>
      </svg>
      {props.boxes && view.scale > fitScale * CLOSE && (
        <Minimap
          width={width}
          height={height}
          boxes={props.boxes}
          view={[view.x, view.y, view.x + across, view.y + down]}
          onMove={(x, y) => settle(centred(x, y, live.current.scale, size))}
        />
      )}
      <div ref={over} style={OVER}>
        {props.overlay?.(place)}
      </div>
    </div>
  )
}

function Paper({ width, height, grid }: { width: number; height: number; grid: boolean }) {
  const step = GRID * 2
  return (
    <>
      <defs>
        <pattern id="grid" width={step} height={step} patternUnits="userSpaceOnUse">
          {[0, step].map((x) =>
            [0, step].map((y) => <circle key={`${x},${y}`} cx={x} cy={y} r={0.16} fill="#D9D1BF" />),
          )}
        </pattern>
      </defs>
      <rect x={1} y={1.2} width={width} height={height} fill="#D8D0BF" />
      <rect width={width} height={height} fill={PAPER} />
      {grid && <rect width={width} height={height} fill="url(#grid)" />}
    </>
  )
}
