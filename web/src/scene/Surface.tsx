/**
 * The work surface: paper, grid, pan and zoom. While a gesture lasts, the whole <svg> is moved by a CSS transform; at
 * rest the view settles into its viewBox, so that lines are sharp. A gesture that leads far settles on its way, so
 * that what it uncovers is painted.
 */
import { useCallback, useEffect, useLayoutEffect, useRef, useState, type ReactNode } from 'react'
import type { Box } from './item'
import { PAPER } from '../theme/theme'
import { Minimap } from './Minimap'
import { leadsView } from './viewport'

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

export function Surface(props: Props) {
  const holder = useRef<HTMLDivElement>(null)
  const svg = useRef<SVGSVGElement>(null)
  const [size, setSize] = useState({ w: 0, h: 0 })
  const [view, setView] = useState<ViewBox>({ x: 0, y: 0, scale: 3 })
  const live = useRef(view)
  const timer = useRef(0)
  const panning = useRef<{ px: number; py: number; from: ViewBox } | null>(null)
  const space = useRef(false)
  const { fit, fitKey, width, height } = props

  useLayoutEffect(() => {
    const element = holder.current
    if (!element) return
    const watch = new ResizeObserver(() => setSize({ w: element.clientWidth, h: element.clientHeight }))
    watch.observe(element)
    return () => watch.disconnect()
  }, [])

  const settle = useCallback((next: ViewBox) => {
    live.current = next
    setView(next)
    if (svg.current) svg.current.style.transform = ''
  }, [])

  const [fitScale, setFitScale] = useState(Infinity)
  const fitNow = useRef(() => {})
  useEffect(() => {
    fitNow.current = () => {
      if (!size.w || !size.h) return
      const [x1, y1, x2, y2] = fit
      const scale = Math.min(size.w / (x2 - x1), size.h / (y2 - y1), FIT_SCALE)
      setFitScale(scale)
      settle({
        scale,
        x: (x1 + x2) / 2 - size.w / scale / 2,
        y: Math.max(y1, 0) - Math.max(0, (size.h / scale - (y2 - y1)) / 2),
      })
    }
    leadsView((box) => {
      if (!box) return fitNow.current()
      const [x1, y1, x2, y2] = box
      const across = size.w / (x2 - x1 + 2 * MARGIN_MM)
      const scale = Math.min(across, size.h / (y2 - y1 + 2 * MARGIN_MM), BOX_SCALE)
      settle(around((x1 + x2) / 2, (y1 + y2) / 2, scale))
    })
  })
  /** The view with a point in its middle. */
  const around = (x: number, y: number, scale: number): ViewBox => ({
    scale,
    x: x - size.w / scale / 2,
    y: y - size.h / scale / 2,
  })
  const ready = size.w > 0
  useEffect(() => {
    fitNow.current()
  }, [fitKey, ready])

  const shift = useCallback(
    (next: ViewBox, now: ViewBox) => {
      live.current = next
      const factor = next.scale / now.scale
      const dx = (now.x - next.x) * next.scale
      const dy = (now.y - next.y) * next.scale
      if (Math.hypot(dx, dy) > FAR_PX || factor < FAR_OUT || factor > FAR_IN) {
        window.clearTimeout(timer.current)
        settle(next)
        return
      }
      if (svg.current) svg.current.style.transform = `translate(${dx}px, ${dy}px) scale(${factor})`
      window.clearTimeout(timer.current)
      timer.current = window.setTimeout(() => settle(live.current), SETTLE_MS)
    },
    [settle],
  )

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
    const key = (event: KeyboardEvent) => {
      const typing = /INPUT|TEXTAREA|SELECT/.test((event.target as Element | null)?.tagName ?? '')
      if (event.code === 'Space' && !typing) {
        space.current = event.type === 'keydown'
        event.preventDefault()
      }
      const plainKey = event.type === 'keydown' && !typing && !event.ctrlKey
      if (event.key === '0' && plainKey) fitNow.current()
    }
    element.addEventListener('wheel', wheel, { passive: false })
    window.addEventListener('keydown', key)
    window.addEventListener('keyup', key)
    return () => {
      element.removeEventListener('wheel', wheel)
      window.removeEventListener('keydown', key)
      window.removeEventListener('keyup', key)
    }
  }, [shift, view])

  const at = (event: React.PointerEvent | React.MouseEvent): At => {
    const rect = holder.current!.getBoundingClientRect()
    const [px, py] = [event.clientX - rect.left, event.clientY - rect.top]
    const now = live.current
    const [x, y] = [now.x + px / now.scale, now.y + py / now.scale]
    const over = document.elementFromPoint(event.clientX, event.clientY)
    return {
      x,
      y,
      gx: Math.round(x / GRID),
      gy: Math.round(y / GRID),
      px,
      py,
      target: over,
      event: event.nativeEvent,
    }
  }

  const down = (event: React.PointerEvent) => {
    if ((event.target as Element).closest('[data-overlay]')) return
    if (event.button === 1 || space.current) {
      panning.current = { px: event.clientX, py: event.clientY, from: live.current }
    } else if (event.button === 0) {
      props.onDown(at(event))
    }
    holder.current?.setPointerCapture(event.pointerId)
  }
  const move = (event: React.PointerEvent) => {
    const pan = panning.current
    if (!pan && (event.target as Element).closest('[data-overlay]')) return
    if (!pan) return props.onMove(at(event))
    const { from } = pan
    const next = {
      ...from,
      x: from.x - (event.clientX - pan.px) / from.scale,
      y: from.y - (event.clientY - pan.py) / from.scale,
    }
    shift(next, view)
  }
  const up = (event: React.PointerEvent) => {
    if (panning.current) panning.current = null
    else if (!(event.target as Element).closest('[data-overlay]')) props.onUp(at(event))
  }
  const place = (x: number, y: number): Placed => ({
    left: (x - view.x) * view.scale,
    top: (y - view.y) * view.scale,
    width: size.w,
    height: size.h,
  })
  return (
    <div
      ref={holder}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onDoubleClick={(e) => props.onDouble(at(e))}
      style={{ position: 'relative', overflow: 'hidden', width: '100%', height: '100%', touchAction: 'none' }}
    >
      <svg
        ref={svg}
        width={size.w}
        height={size.h}
        viewBox={`${view.x} ${view.y} ${size.w / view.scale || 1} ${size.h / view.scale || 1}`}
        style={{
          display: 'block',
          transformOrigin: '0 0',
          userSelect: 'none',
          // A layer of its own is moved as a picture; texts laid out without regard to the scale are not laid out anew.
          willChange: 'transform',
          textRendering: 'geometricPrecision',
        }}
        role="img"
        aria-label="Sheet"
        data-testid="sheet"
        data-view={`${view.x},${view.y},${view.scale}`}
      >
        <defs>
          <pattern id="grid" width={GRID * 2} height={GRID * 2} patternUnits="userSpaceOnUse">
            <circle cx={0} cy={0} r={0.16} fill="#D9D1BF" />
            <circle cx={GRID * 2} cy={0} r={0.16} fill="#D9D1BF" />
            <circle cx={0} cy={GRID * 2} r={0.16} fill="#D9D1BF" />
            <circle cx={GRID * 2} cy={GRID * 2} r={0.16} fill="#D9D1BF" />
          </pattern>
        </defs>
        <rect x={1} y={1.2} width={width} height={height} fill="#D8D0BF" />
        <rect width={width} height={height} fill={PAPER} />
        {!props.plain && <rect width={width} height={height} fill="url(#grid)" />}
        {props.children}
      </svg>
      {props.boxes && view.scale > fitScale * CLOSE && (
        <Minimap
          width={width}
          height={height}
          boxes={props.boxes}
          view={[view.x, view.y, view.x + size.w / view.scale, view.y + size.h / view.scale]}
          onMove={(x, y) => settle(around(x, y, live.current.scale))}
        />
      )}
      {props.overlay?.(place)}
    </div>
  )
}
