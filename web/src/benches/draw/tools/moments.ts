/** What a tool does at each moment. One tool a file; each tells here what it is called and what it does. */
import type { ReactNode } from 'react'
import { held } from '../../../kit/held'
import type { At, Placed } from '../../../scene/Surface'
import { now, useDraw, type Point, type Tool, type ToolName, type ToolOf } from '../store'

export interface Moments {
  /** It is taken up: what is shown and said at first. */
  enter?: () => void
  /** The pointer moves; without this, a grid point is steered to. */
  move?: (at: At) => void
  /** Led to a grid point, by the pointer or by arrow keys. */
  steer?: (to: Point) => void
  /** The arrow keys lead it on from where the caret stands. */
  begin?: (from: Point) => void
  /** The pointer goes down; it is led there first. */
  click?: (at: At) => void
  /** The pointer goes up. */
  release?: (at: At) => void
  /** Enter, or a double click: it is done. */
  finish?: () => void
  /** Escape; without this, it is put down. */
  escape?: () => void
  /** It is put down. */
  leave?: () => void
  /** Whether something was done with it; of one that was not, the letter that took it up may begin a word. */
  begun?: () => boolean
  /** What is painted over the sheet. */
  ghost?: () => ReactNode
  /** What stands at the caret, at a place of the screen. */
  box?: (at: Placed) => ReactNode
}

const tools = new Map<ToolName, Moments>()

/** Say what a tool does. */
export function defineTool(name: ToolName, what: Moments) {
  tools.set(name, what)
}

/** What the tool in hand does. */
export const moments = (): Moments => tools.get(useDraw.getState().tool.name) ?? {}

/** Whether nothing is in hand. */
export const atRest = () => held(useDraw.getState().tool, 'idle') !== null

/** The tool in hand, which is the one that is named. */
export function inHand<N extends ToolName>(name: N): ToolOf<N> {
  const { tool } = useDraw.getState()
  const found = held(tool, name)
  if (!found) throw new Error(`The tool in hand is ${tool.name}, not ${name}.`)
  return found as ToolOf<N>
}

/** Change what the tool in hand holds. */
export function hold<N extends ToolName>(name: N, part: Partial<ToolOf<N>>) {
  now().set({ tool: { ...inHand(name), ...part } })
}

/** Put down the tool in hand and take up another one. */
export function take(tool: Tool) {
  moments().leave?.()
  now().set({ tool })
  moments().enter?.()
}

/** Put the tool down, and what it showed. */
export function drop() {
  take({ name: 'idle' })
  now().set({ preview: null })
}

/** Give up what is being done. */
export function cancel() {
  now().ask(null)
  if (now().panel === 'trace') now().set({ panel: '' })
  const { escape } = moments()
  if (escape) escape()
  else drop()
}

export const pointerDown = (at: At) => {
  const { steer, click } = moments()
  steer?.([at.gx, at.gy])
  click?.(at)
}

export const pointerMove = (at: At) => {
  const { move, steer } = moments()
  if (move) move(at)
  else steer?.([at.gx, at.gy])
}

export const pointerUp = (at: At) => moments().release?.(at)
