/** Keys of the maker: tools by letter, Delete, arrows, undo. */
import { useEffect } from 'react'
import { isTyping } from '../../../project/commands'
import type { Prim } from '../../../scene/item'
import { movedPrim, type Pin, type ToolName } from './art'
import type { Chosen } from './Canvas'
import { toolOf } from './Tools'

interface Keys {
  art: Prim[]
  pins: Pin[] | null
  chosen: Chosen
  snap: number
  choose: (chosen: Chosen) => void
  change: (art: Prim[], pins: Pin[]) => void
  setTool: (tool: ToolName) => void
  undo: () => void
  redo: () => void
  dropPlace?: (index: number) => void
}

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

/** Take away what is chosen. */
function remove({ art, pins, choose, change, dropPlace }: Keys, { kind, index }: NonNullable<Chosen>) {
  const others = <T>(list: T[]) => list.filter((_, i) => i !== index)
  choose(null)
  if (kind === 'place') dropPlace?.(index)
  else if (kind === 'pin') change(art, others(pins ?? []))
  else change(others(art), pins ?? [])
}

/** Move the chosen pin by whole grid steps, or the chosen line by the snap. */
function nudge({ art, pins, snap, change }: Keys, { kind, index }: NonNullable<Chosen>, [x, y]: number[]) {
  const step = kind === 'pin' ? 1 : snap
  const [dx, dy] = [x! * step, y! * step]
  const shifted = (p: Pin): Pin => [p[0] + dx, p[1] + dy, p[2]]
  const own = pins ?? []
  if (kind === 'pin')
    change(
      art,
      own.map((p, i) => (i === index ? shifted(p) : p)),
    )
  else
    change(
      art.map((p, i) => (i === index ? movedPrim(p, dx, dy) : p)),
      own,
    )
}

function withCtrl(keys: Keys, letter: string): (() => void) | null {
  return letter === 'z' ? keys.undo : letter === 'y' ? keys.redo : null
}

/** What a key does, null when it is none of the maker's. */
function actOf(keys: Keys, event: KeyboardEvent): (() => void) | null {
  const { chosen } = keys
  const arrow = ARROWS[event.key]
  if (event.ctrlKey || event.metaKey) return withCtrl(keys, event.key.toLowerCase())
  if (event.key === 'Escape')
    return () => {
      keys.choose(null)
      keys.setTool('select')
    }
  if (chosen && (event.key === 'Delete' || event.key === 'Backspace')) return () => remove(keys, chosen)
  if (chosen && chosen.kind !== 'place' && arrow) return () => nudge(keys, chosen, arrow)
  const tool = event.altKey ? null : toolOf(event.key, keys.pins !== null)
  return tool ? () => keys.setTool(tool) : null
}

export function useMakerKeys(keys: Keys) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const act = isTyping(event) ? null : actOf(keys, event)
      if (!act) return
      act()
      event.preventDefault()
      event.stopPropagation()
    }
    window.addEventListener('keydown', onKey, true)
    return () => window.removeEventListener('keydown', onKey, true)
  })
}
