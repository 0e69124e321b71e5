/** Where labels of small devices stand on the screen, px: none upon another. */

export const SIZE = 10
export const LINE = SIZE + 1
const LETTER = 5.9
const PITCH = SIZE + 2
const LIFT = 8

export type Box = [number, number, number, number]

export interface Label {
  id: string
  /** What tells it from others of the same tag, "" where nothing must; and the product's tag. */
  aspects: string
  product: string
  /** Left, top, right, bottom of the device on the screen. */
  box: Box
  /** The middle of the tag that is written too small. */
  written: [number, number]
}

/** A label: level or upright on or below its device, or upright above it with a leader. */
export interface Led {
  label: Label
  how: 'level' | 'upright' | 'led'
  lines: string[]
  /** The middle of one at its device, the lower end of one that is led. */
  at: [number, number]
}

export const widthOf = (words: string) => words.length * LETTER
const longest = (lines: string[]) => Math.max(...lines.map(widthOf))
const meet = (a: Box, b: Box) => a[0] < b[2] && b[0] < a[2] && a[1] < b[3] && b[1] < a[3]

/** Labels on their devices where they fit, else below where nothing is; the others above, along their row. */
export function leaders(labels: Label[], devices: Box[]): Led[] {
  const found: Led[] = []
  const taken: Box[] = []
  const rows = new Map<number, Label[]>()
  for (const label of labels) {
    const led = onDevice(label) ?? below(label, [...devices, ...taken])
    if (led) {
      found.push(led)
      taken.push(roomOf(led))
    } else {
      // What stands on one rail has one middle; a few pixels more or less are one row, too.
      const row = Math.round((label.box[1] + label.box[3]) / 12)
      rows.set(row, [...(rows.get(row) ?? []), label])
    }
  }
  // One that would lie on another label is left to be read closer up.
  for (const row of rows.values())
    for (const led of along(row)) if (!taken.some((b) => meet(b, roomOf(led)))) found.push(led)
  return found
}

/** One line, two, or one upright, whichever fits on the device first. */
function onDevice(label: Label): Led | null {
  const [x1, y1, x2, y2] = label.box
  const [wide, tall] = [x2 - x1, y2 - y1]
  // Over the small tag, as far as the label stays on the device.
  const onFace = (half: number): [number, number] => [
    (x1 + x2) / 2,
    Math.min(Math.max(label.written[1], y1 + half), y2 - half),
  ]
  const whole = [label.aspects + label.product]
  const ways = label.aspects ? [whole, [label.aspects, label.product]] : [whole]
  for (const lines of ways)
    if (longest(lines) + 3 <= wide && lines.length * LINE + 1 <= tall)
      return { label, lines, at: onFace((lines.length * LINE) / 2), how: 'level' }
  if (longest(whole) + 3 <= tall && SIZE - 1 <= wide)
    return { label, lines: whole, at: [(x1 + x2) / 2, (y1 + y2) / 2], how: 'upright' }
  return null
}

function below(label: Label, taken: Box[]): Led | null {
  const { box, aspects, product } = label
  const lines = aspects ? [product, aspects] : [product]
  const at: [number, number] = [(box[0] + box[2]) / 2, box[3] + 2 + (lines.length * LINE) / 2]
  const led: Led = { label, lines, at, how: 'level' }
  return taken.some((b) => meet(b, roomOf(led))) ? null : led
}

function roomOf({ lines, at: [x, y], how }: Led): Box {
  const [long, tall] = [longest(lines) + 2, lines.length * LINE]
  if (how === 'led') return [x - tall / 2, y - long, x + tall / 2, y]
  const [w, h] = how === 'level' ? [long / 2, tall / 2] : [tall / 2, long / 2]
  return [x - w, y - h, x + w, y + h]
}

/** One row from left to right: each at its device, pushed right past the one before, then back where that is free. */
function along(row: Label[]): Led[] {
  const middle = (l: Label) => (l.box[0] + l.box[2]) / 2
  const ordered = [...row].sort((a, b) => middle(a) - middle(b))
  const xs = ordered.map(middle)
  for (let n = 1; n < xs.length; n++) xs[n] = Math.max(xs[n]!, xs[n - 1]! + PITCH)
  // A run that was pushed along is centred over its devices, as far as the run before it allows.
  for (let first = 0; first < xs.length;) {
    let last = first
    while (last + 1 < xs.length && xs[last + 1]! - xs[last]! <= PITCH + 0.01) last++
    const over = ordered.slice(first, last + 1).reduce((sum, l, n) => sum + xs[first + n]! - middle(l), 0)
    const room = first ? xs[first]! - xs[first - 1]! - PITCH : Infinity
    const back = Math.min(over / (last - first + 1), room)
    for (let n = first; n <= last; n++) xs[n]! -= back
    first = last + 1
  }
  const top = Math.min(...ordered.map((l) => l.box[1]))
  return ordered.map((label, n) => ({
    ...{ label, lines: [label.aspects + label.product] },
    ...{ at: [xs[n]!, top - LIFT], how: 'led' },
  }))
}
