/** Tags at a size one can read when the plan is small: on the device where they fit, else above it with a leader. */
import { memo } from 'react'
import type { Item } from '../../scene/item'
import type { Placed } from '../../scene/Surface'
import { INK, MONO, PAPER, QUIET } from '../../theme/theme'
import { leaders, LINE, SIZE, widthOf, type Box, type Led } from './labelPlaces'

/** Below this height, px, a tag written on a face is not read easily. */
const READABLE = 6.5
/** A text of which fewer letters could be seen is left out. */
const LEAST_LETTERS = 8
/** So much wider than a round device its text may be. */
const BESIDE_MM = 28

interface Props {
  items: Item[]
  selected: Set<string>
  place: (x: number, y: number) => Placed
}

export const Labels = memo(function Labels({ items, selected, place }: Props) {
  const scale = place(1, 0).left - place(0, 0).left
  const placed = items.filter((i) => i.kind === 'placing' && i.facts.written)
  const small = placed.filter((i) => i.facts.written![2] * scale < READABLE)
  const texts = placed.filter((i) => i.facts.text && !small.includes(i)).map((i) => textOf(i, scale, place))
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
  const devices = placed.map(boxOf)
  const { width, height } = place(0, 0)
  return (
    <svg
      data-testid="labels"
      width={width}
      height={height}
      style={{ position: 'absolute', left: 0, top: 0, pointerEvents: 'none' }}
    >
      {texts.map((t) => t && <Line key={t.id} words={t.words} x={t.x} y={t.y} led={false} quiet />)}
      {leaders(labels, devices).map((led) => (
        <Tag key={led.label.id} led={led} strong={selected.has(led.label.id)} />
      ))}
    </svg>
  )
})

/** A device's text under its tag, as much of it as fits on the device; null where it is too small for any. */
function textOf(item: Item, scale: number, place: Props['place']) {
  const [x, y, tall] = item.facts.written!
  // A round device has its tag below it, and there what tells it apart under the tag.
  const round = y > item.box[3]
  const wide = item.box[2] - item.box[0] + (round ? BESIDE_MM : 0)
  const under = round && item.facts.shown?.[0] ? tall : 0
  const room = Math.floor((wide * scale - 4) / widthOf('m'))
  const text = item.facts.text ?? ''
  if (room < Math.min(text.length, LEAST_LETTERS)) return null
  const words = text.length > room ? `${text.slice(0, room - 1)}…` : text
  const { left, top } = place(x, y + tall * 0.6 + under)
  if (!round && top + LINE > place(0, item.box[3]).top) return null
  return { id: item.id, words, x: left, y: top + LINE / 2 + 1 }
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

interface LineProps {
  words: string
  x: number
  y: number
  led: boolean
  quiet?: boolean
}

function Line({ words, x, y, led, quiet }: LineProps) {
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
        fill={quiet ? QUIET : INK}
        textLength={long}
        lengthAdjust="spacingAndGlyphs"
      >
        {words}
      </text>
    </>
  )
}
