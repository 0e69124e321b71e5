/** What pointer and tools do on the sheet, one function for each moment; the server decides what comes of it. */
import { makeEdit, type AnyEdit } from '../../api/client'
import type { Item } from '../../scene/item'
import { GRID, type At } from '../../scene/Surface'
import { remembered } from '../../kit/remember'
import { MOVABLE, putHeld, steerHeld } from './held'
import { now, NEW_STRIP, type Stroke, type TextName } from './store'

const get = () => now()
const FAR_ENOUGH_PX = 4
/** Where the pointer went down: screen pixels, sheet mm, grid point, and what was under it. */
let pressed: {
  px: number
  py: number
  mm: [number, number]
  id: string
  at: [number, number]
  text: TextName | null
} | null = null

const TEXTS = new Set(['tag', 'text', 'reference', 'pin'])

export function idUnder(at: At): string {
  const element = at.target?.closest('[data-id]')
  const kind = element?.getAttribute('data-kind') ?? ''
  return element && MOVABLE.has(kind) ? element.getAttribute('data-id')! : ''
}

/** The corners of a wire from its last corner to a point: the longer leg first. */
export function legs(from: [number, number], to: [number, number]): [number, number][] {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]]
  if (!dx || !dy) return [to]
  return Math.abs(dx) >= Math.abs(dy) ? [[to[0], from[1]], to] : [[from[0], to[1]], to]
}

export function wireEdit(corners: [number, number][], end: [number, number]): AnyEdit | null {
  const s = get()
  const last = corners[corners.length - 1]!
  const points = [...corners, ...legs(last, end)]
  if (points.every(([x, y]) => x === points[0]![0] && y === points[0]![1])) return null
  const bus = s.tool.name === 'wire' && s.tool.bus
  return bus
    ? makeEdit('draw-bus', {
        sheet_id: s.sheetId,
        points,
        wire_type_ids: s.busTypes,
        spacing: s.busSpacing || null,
      })
    : { kind: 'draw-wire', sheet_id: s.sheetId, points, wire_type_id: s.wireType }
}

/** Whether something a wire may end on lies at a grid point. */
function endsOnSomething(gx: number, gy: number): boolean {
  return Object.values(get().view.items).some((i) => {
    if (i.facts.pins?.some(([x, y]) => x === gx && y === gy)) return true
    const ends = i.facts.ends
    if (!ends) return false
    const [[x1, y1], [x2, y2]] = ends as [[number, number], [number, number]]
    return gx >= x1 && gx <= x2 && gy >= y1 && gy <= y2
  })
}

/** Arm the wire tool: the first click, or the caret at the first arrow key, is where the wire starts. */
export function startWire() {
  const s = get()
  s.set({ tool: { name: 'wire', bus: false, corners: [], end: s.caret }, preview: null })
}

/** Arm the bus tool: the same way as a wire's, for several conductors of the types in the bar. */
export function startBus() {
  const s = get()
  s.set({
    tool: { name: 'wire', bus: true, corners: [], end: s.caret },
    busTypes: remembered(
      `bus-${s.projectId}`,
      s.usualBus.length ? s.usualBus : [s.wireType, s.wireType, s.wireType],
    ),
    preview: null,
  })
  s.say('Click where the bus begins and its corners; Enter ends it. On another bus it ties by type.')
}

export function steerWire(end: [number, number]) {
  const s = get()
  if (s.tool.name !== 'wire') return
  s.set({ tool: { ...s.tool, end }, caret: end })
  if (s.tool.corners.length) s.ask(wireEdit(s.tool.corners, end))
}

/** Put a corner, or end the wire where it meets something or `finish` is asked for. */
export function putCorner(finish: boolean) {
  const s = get()
  if (s.tool.name !== 'wire') return
  const { corners, end } = s.tool
  if (!corners.length) {
    s.set({ tool: { ...s.tool, corners: [end], end } })
    return
  }
  const edit = wireEdit(corners, end)
  if (edit && (finish || endsOnSomething(end[0], end[1]))) {
    s.set({ tool: { name: 'idle' }, preview: null })
    void s.send(edit).then((answer) => answer && get().set({ subject: answer.placed[0] ?? '' }))
  } else if (edit) {
    const last = corners[corners.length - 1]!
    s.set({ tool: { ...s.tool, corners: [...corners, ...legs(last, end)], end } })
  } else if (finish) {
    cancel()
  }
}

const STROKE_WORDS: Record<Stroke, string> = {
  terminals: 'Click both ends of the row, across the wires.',
  band: 'Click both ends of the band, across the wires.',
  marks: 'Type the names above, then click both ends of a stroke over the ends of the wires.',
  boundary: 'Click two corners of the boundary.',
  line: 'Click both ends of the line.',
  picture: 'Choose the picture above, then click two corners.',
}

/** Arm a stroke: a row of terminals, a cable band, marks at wire ends, a boundary, a line. */
export function startStroke(what: Stroke) {
  const s = get()
  s.set({ tool: { name: 'stroke', what, start: null, end: s.caret }, preview: null, strokeTarget: '' })
  s.say(STROKE_WORDS[what])
}

/** The end of a stroke: level or upright, whichever is nearer. */
function squared(from: [number, number], to: [number, number]): [number, number] {
  return Math.abs(to[0] - from[0]) >= Math.abs(to[1] - from[1]) ? [to[0], from[1]] : [from[0], to[1]]
}

function strokeEdit(): AnyEdit | null {
  const s = get()
  if (s.tool.name !== 'stroke' || !s.tool.start) return null
  const [x1, y1] = s.tool.start
  const [x2, y2] = s.tool.end
  if (x1 === x2 && y1 === y2) return null
  const { what } = s.tool
  const ends = { sheet_id: s.sheetId, x1, y1, x2, y2 }
  if (what === 'marks') {
    const names = s.markNames
      .split(',')
      .map((n) => n.trim())
      .filter(Boolean)
    return { kind: 'place-continuations', ...ends, names: names.length ? names : ['?'] }
  }
  if (what === 'boundary' || what === 'line' || what === 'picture')
    return makeEdit('draw-figure', {
      ...ends,
      figure: what,
      text: '',
      location_id: '',
      picture_id: what === 'picture' ? s.pictureId : '',
    })
  // A chosen band is extended; otherwise what was picked in the bar counts.
  const chosen = [...s.selection].map((id) => s.view.items[id]).find((i) => i?.kind === 'band')
  const target = s.strokeTarget
  return what === 'band'
    ? { kind: 'draw-band', ...ends, device_id: chosen?.facts.device ?? target, part_id: '' }
    : {
        kind: 'place-terminals',
        ...ends,
        device_id: target === NEW_STRIP ? '' : target,
        new_strip: target === NEW_STRIP,
        definition: s.terminalKind as '',
      }
}

export function steerStroke(to: [number, number]) {
  const s = get()
  if (s.tool.name !== 'stroke') return
  const free = ['boundary', 'line', 'picture'].includes(s.tool.what)
  const end = s.tool.start && !free ? squared(s.tool.start, to) : to
  if (end[0] === s.tool.end[0] && end[1] === s.tool.end[1]) return
  s.set({ tool: { ...s.tool, end }, caret: end })
  if (s.tool.start) s.ask(strokeEdit())
}

export function putStroke() {
  const s = get()
  if (s.tool.name !== 'stroke') return
  if (!s.tool.start) {
    s.set({ tool: { ...s.tool, start: s.tool.end } })
    return
  }
  const edit = strokeEdit()
  if (!edit) return
  s.set({ tool: { name: 'idle' }, preview: null })
  void s.send(edit).then((answer) => {
    if (!answer) return
    if (edit.kind === 'draw-band' || edit.kind === 'draw-figure') get().select(answer.placed)
    else get().set({ subject: answer.placed[0] ?? '' })
  })
}

export function cancel() {
  const s = get()
  s.ask(null)
  if (s.tool.name === 'idle') s.set({ selection: new Set(), subject: '' })
  else s.set({ tool: { name: 'idle' }, preview: null })
}

export function deleteSelected() {
  const s = get()
  const ids = [...s.selection].filter((id) => s.view.items[id] && MOVABLE.has(s.view.items[id].kind))
  if (ids.length) void s.send({ kind: 'delete-selection', ids })
}

export function turnSelected(how: 'turn' | 'flip') {
  const s = get()
  const ids = symbolsOf(s.selection)
  if (ids.length) void s.send({ kind: 'turn-selection', ids, how })
}

export function swapSelected() {
  const [id] = symbolsOf(get().selection)
  if (id) void get().send({ kind: 'swap-contact', symbol_id: id })
}

export function symbolsOf(ids: Iterable<string>): string[] {
  const { items } = get().view
  return [...ids].filter((id) => items[id]?.kind === 'symbol')
}

export function startCopy() {
  const s = get()
  if (!s.selection.size) return
  s.set({ tool: { name: 'copy', ids: [...s.selection], from: s.caret } })
  s.say('Click where the copy goes, or move the caret and press Enter.', 'info')
}

function copyEdit(to: [number, number]): AnyEdit | null {
  const s = get()
  if (s.tool.name !== 'copy') return null
  const [dx, dy] = [to[0] - s.tool.from[0], to[1] - s.tool.from[1]]
  return dx || dy ? { kind: 'duplicate-selection', ids: s.tool.ids, dx, dy } : null
}

export function steerCopy(to: [number, number]) {
  const s = get()
  s.set({ caret: to })
  s.ask(copyEdit(to))
}

export function putCopy(to: [number, number]) {
  const s = get()
  const edit = copyEdit(to)
  if (!edit) return
  s.set({ tool: { name: 'idle' }, preview: null })
  void s.send(edit).then((answer) => answer && get().select(answer.placed))
}

/** The ladder line at the caret, 0 where there is none. */
export function lineAtCaret(): number {
  const { view, caret } = get()
  const line = view.sheet.sheet?.lines.filter(([, , y, x]) => y <= caret[1] && x <= caret[0]).at(-1)
  return line?.[0] ?? 0
}

export function changeRungs(kind: 'insert-rung' | 'remove-rung') {
  const s = get()
  const line = lineAtCaret()
  if (line) void s.send({ kind, sheet_id: s.sheetId, line })
  else s.say('This sheet has no ladder lines.')
}

/** The role and symbol of a text under the pointer, when its symbol alone is selected: then the text is dragged. */
function textUnder(at: At, id: string): TextName | null {
  const s = get()
  const role = at.target?.getAttribute('data-role') ?? ''
  const alone = s.selection.size === 1 && s.selection.has(id) && s.view.items[id]?.kind === 'symbol'
  return alone && TEXTS.has(role) ? (role as TextName) : null
}

function textEdit(): AnyEdit | null {
  const s = get()
  if (s.tool.name !== 'text') return null
  const { id, role, by } = s.tool
  const [ox, oy] = (s.view.items[id]?.facts.texts?.[role] || s.view.items[id]?.facts.settled?.[role] || '0,0')
    .split(',')
    .map(Number)
  const at = (v: number) => Math.round(v * 4) / 4
  return {
    kind: 'move-text',
    ids: [id],
    text: role,
    dx_mm: at((ox ?? 0) + by[0]),
    dy_mm: at((oy ?? 0) + by[1]),
  }
}

export function pointerDown(at: At) {
  const s = get()
  const here: [number, number] = [at.gx, at.gy]
  if (s.tool.name === 'wire') {
    steerWire(here)
    putCorner(false)
    return
  }
  if (s.tool.name === 'copy') return putCopy(here)
  if (s.tool.name === 'paste' || s.tool.name === 'stamp') {
    steerHeld(here)
    return putHeld()
  }
  if (s.tool.name === 'stroke') {
    steerStroke(here)
    return putStroke()
  }
  if (s.tool.name === 'place' || s.tool.name === 'quick') cancel()
  const id = idUnder(at)
  pressed = { px: at.px, py: at.py, mm: [at.x, at.y], id, at: here, text: textUnder(at, id) }
  if (!id) return
  if (at.event.shiftKey || at.event.ctrlKey) {
    const next = new Set(s.selection)
    if (next.has(id)) next.delete(id)
    else next.add(id)
    s.set({ selection: next, subject: '' })
  } else if (!s.selection.has(id)) {
    s.set({ selection: new Set([id]), subject: '' })
  }
}

export function pointerMove(at: At) {
  const s = get()
  const here: [number, number] = [at.gx, at.gy]
  if (s.tool.name === 'wire') {
    if (s.tool.end[0] !== here[0] || s.tool.end[1] !== here[1]) steerWire(here)
    return
  }
  if (s.tool.name === 'copy') return steerCopy(here)
  if (s.tool.name === 'stroke') return steerStroke(here)
  if (s.tool.name === 'paste' || s.tool.name === 'stamp') return steerHeld(here)
  if (!pressed) return
  const far = Math.hypot(at.px - pressed.px, at.py - pressed.py) > FAR_ENOUGH_PX
  if (s.tool.name === 'idle' && far) {
    if (pressed.text) {
      s.set({ tool: { name: 'text', id: pressed.id, role: pressed.text, from: pressed.mm, by: [0, 0] } })
    } else if (pressed.id) {
      s.set({
        tool: {
          name: 'drag',
          ids: [...s.selection],
          from: pressed.at,
          dx: 0,
          dy: 0,
          join: at.event.shiftKey,
        },
      })
    } else {
      s.set({ tool: { name: 'marquee', from: pressed.mm, to: [at.x, at.y] } })
    }
    return pointerMove(at)
  }
  if (s.tool.name === 'drag') {
    const [dx, dy] = [at.gx - s.tool.from[0], at.gy - s.tool.from[1]]
    if (dx === s.tool.dx && dy === s.tool.dy && at.event.shiftKey === s.tool.join) return
    const tool = { ...s.tool, dx, dy, join: at.event.shiftKey }
    s.set({ tool })
    s.ask(moveEdit(tool))
  } else if (s.tool.name === 'text') {
    s.set({ tool: { ...s.tool, by: [at.x - s.tool.from[0], at.y - s.tool.from[1]] } })
    s.ask(textEdit())
  } else if (s.tool.name === 'marquee') {
    s.set({ tool: { ...s.tool, to: [at.x, at.y] } })
  }
}

function moveEdit(tool: { ids: string[]; dx: number; dy: number; join: boolean }): AnyEdit | null {
  if (!tool.dx && !tool.dy) return null
  return { kind: 'move-selection', ids: tool.ids, dx: tool.dx, dy: tool.dy, allow_join: tool.join }
}

export function pointerUp(at: At) {
  const s = get()
  const tool = s.tool
  const was = pressed
  pressed = null
  if (tool.name === 'drag') {
    const edit = moveEdit(tool)
    s.set({ tool: { name: 'idle' } })
    if (edit) void s.send(edit)
    else s.ask(null)
  } else if (tool.name === 'text') {
    const edit = textEdit()
    s.set({ tool: { name: 'idle' } })
    if (edit) void s.send(edit)
  } else if (tool.name === 'marquee') {
    const [x1, x2] = [Math.min(tool.from[0], tool.to[0]), Math.max(tool.from[0], tool.to[0])]
    const [y1, y2] = [Math.min(tool.from[1], tool.to[1]), Math.max(tool.from[1], tool.to[1])]
    const within = (i: Item) => {
      const [left, top, right, bottom] = i.facts.body ?? i.box
      return left >= x1 && right <= x2 && top >= y1 && bottom <= y2
    }
    // To the left it takes what it touches, to the right what lies wholly inside.
    const touched = (i: Item) => {
      const [left, top, right, bottom] = i.facts.body ?? i.box
      const apart = right < x1 || left > x2 || bottom < y1 || top > y2
      const around = i.kind === 'figure' && left < x1 && right > x2 && top < y1 && bottom > y2
      return !apart && !around
    }
    const crossing = tool.to[0] < tool.from[0]
    const ids = Object.values(s.view.items)
      .filter((i) => MOVABLE.has(i.kind) && (crossing ? touched(i) : within(i)))
      .map((i) => i.id)
    s.set({ tool: { name: 'idle' }, selection: new Set(ids), subject: '' })
  } else if (tool.name === 'idle' && was) {
    s.set({ caret: [at.gx, at.gy] })
    if (!was.id && !at.event.shiftKey) s.set({ selection: new Set(), subject: '' })
  }
}

/** Move the caret; with `far`, to the next thing in that direction. */
export function moveCaret(dx: number, dy: number, far: boolean) {
  const s = get()
  const facts = s.view.sheet.sheet
  if (!facts) return
  const next: [number, number] = far ? nextStop(s.caret, dx, dy) : [s.caret[0] + dx, s.caret[1] + dy]
  const caret: [number, number] = [
    Math.min(Math.max(1, next[0]), Math.floor(facts.width / GRID) - 1),
    Math.min(Math.max(1, next[1]), Math.floor(facts.height / GRID) - 1),
  ]
  if (s.tool.name === 'wire') {
    if (!s.tool.corners.length) s.set({ tool: { ...s.tool, corners: [s.caret], end: s.caret } })
    steerWire(caret)
  } else if (s.tool.name === 'copy') steerCopy(caret)
  else if (s.tool.name === 'stroke') steerStroke(caret)
  else if (s.tool.name === 'paste' || s.tool.name === 'stamp') steerHeld(caret)
  else s.set({ caret })
}

function nextStop(from: [number, number], dx: number, dy: number): [number, number] {
  const s = get()
  const facts = s.view.sheet.sheet!
  const stops: [number, number][] = []
  for (const item of Object.values(s.view.items)) {
    stops.push(...(item.facts.pins ?? []), ...(item.facts.ends ?? []))
  }
  for (const [, y] of facts.lines) stops.push([from[0], y])
  const ahead = stops.filter(([x, y]) =>
    dx ? y === from[1] && (x - from[0]) * dx > 0 : Math.abs(x - from[0]) <= 1 && (y - from[1]) * dy > 0,
  )
  const distance = ([x, y]: [number, number]) => Math.abs(x - from[0]) + Math.abs(y - from[1])
  ahead.sort((a, b) => distance(a) - distance(b))
  const found = ahead[0]
  if (!found) return [from[0] + dx * 10, from[1] + dy * 9]
  return dx ? [found[0], from[1]] : [from[0], found[1]]
}
