/** Tags at a size one can read when the plan is small: on the device where they fit, else above it with a leader. */
import type { Item } from '../../scene/item'
import type { Placed } from '../../scene/Surface'
import { INK, MONO, PAPER } from '../../theme/theme'
import { leaders, LINE, SIZE, widthOf, type Box, type Led } from './labelPlaces'

/** Below this height, px, a tag written on a face is not read easily. */
const READABLE = 6.5

interface Props {
  items: Item[]
  selected: Set<string>
  place: (x: number, y: number) => Placed
}

export function Labels({ items, selected, place }: Props) {
  const scale = place(1, 0).left - place(0, 0).left
  const small = items.filter((i) => i.kind === 'placing' && (i.facts.written?.[2] ?? 0) * scale < READABLE)
  if (!small.length) return null
  const boxOf = (i: Item): Box => {
    const [one, other] = [place(i.box[0], i.box[1]), place(i.box[2], i.box[3])]
    return [one.left, one.top, other.left, other.top]
  }
  const labels = small.map((i) => {
    const [aspects, product] = i.facts.shown ?? ['', '']
    const [x, y] = i.facts.written ?? [0, 0]
    const { left, top } = place(x, y)
    return { id: i.id, aspects, product, box: boxOf(i), written: [left, top] as [number, number] }
  })
  const devices = items.filter((i) => i.kind === 'placing').map(boxOf)
  const { width, height } = place(0, 0)
  return (
    <svg
      data-testid="labels"
      width={width}
      height={height}
      style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}
    >
      {leaders(labels, devices).map((led) => (
        <Tag key={led.label.id} led={led} strong={selected.has(led.label.id)} />
      ))}
    </svg>
  )
}

function Tag({ led, strong }: { led: Led; strong: boolean }) {
  const { label, lines, at, how } = led
  const [x, y] = at
  return (
    <g fontWeight={strong ? 700 : 500}>
      {how === 'led' && (
        <path
          data-testid="leader"
          d={`M${x} ${y + 2} L${(label.box[0] + label.box[2]) / 2} ${label.box[1] + 3}`}
          stroke={INK}
          strokeWidth={0.8}
          fill="none"
        />
      )}
      <g transform={how === 'level' ? undefined : `rotate(-90 ${x} ${y})`}>
        {lines.map((words, n) => (
          <Line key={n} words={words} x={x} y={y + (n - (lines.length - 1) / 2) * LINE} led={how === 'led'} />
        ))}
      </g>
    </g>
  )
}

function Line({ words, x, y, led }: { words: string; x: number; y: number; led: boolean }) {
  const long = widthOf(words)
  return (
    <>
      <rect
        x={led ? x : x - long / 2 - 1}
        y={y - SIZE * 0.55}
        width={long + 2}
        height={SIZE * 1.1}
        fill={PAPER}
      />
      <text
        x={x}
        y={y + SIZE * 0.35}
        textAnchor={led ? 'start' : 'middle'}
        fontFamily={MONO}
        fontSize={SIZE}
        fill={INK}
        textLength={long}
        lengthAdjust="spacingAndGlyphs"
      >
        {words}
      </text>
    </>
  )
}
