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

export function useMakerKeys(keys: Keys) {
  useEffect(() => {
    const { art, chosen } = keys
    const pins = keys.pins ?? []
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event)) return
      const ctrl = event.ctrlKey || event.metaKey
      const arrow = ARROWS[event.key]
      const tool = ctrl || event.altKey ? null : toolOf(event.key, keys.pins !== null)
      if (ctrl && event.key.toLowerCase() === 'z') keys.undo()
      else if (ctrl && event.key.toLowerCase() === 'y') keys.redo()
      else if (event.key === 'Escape') {
        keys.choose(null)
        keys.setTool('select')
      } else if ((event.key === 'Delete' || event.key === 'Backspace') && chosen) {
        keys.choose(null)
        if (chosen.kind === 'place') keys.dropPlace?.(chosen.index)
        else if (chosen.kind === 'pin')
          keys.change(
            art,
            pins.filter((_, i) => i !== chosen.index),
          )
        else
          keys.change(
            art.filter((_, i) => i !== chosen.index),
            pins,
          )
      } else if (arrow && chosen && chosen.kind !== 'place') {
        const step = chosen.kind === 'pin' ? 1 : keys.snap
        const [dx, dy] = [arrow[0] * step, arrow[1] * step]
        if (chosen.kind === 'pin')
          keys.change(
            art,
            pins.map((p, i) => (i === chosen.index ? [p[0] + dx, p[1] + dy, p[2]] : p)),
          )
        else
          keys.change(
            art.map((p, i) => (i === chosen.index ? movedPrim(p, dx, dy) : p)),
            pins,
          )
      } else if (tool) keys.setTool(tool)
      else return
      event.preventDefault()
      event.stopPropagation()
    }
    window.addEventListener('keydown', onKey, true)
    return () => window.removeEventListener('keydown', onKey, true)
  })
}
