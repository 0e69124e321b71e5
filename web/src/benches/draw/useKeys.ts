/** The keyboard on the sheet. */
import { useEffect, useMemo } from 'react'
import { isTyping, useCommands, type Command } from '../../project/commands'
import { moveCaret } from './caret'
import { drawCommands } from './commands'
import { flush, forget, isWaiting, typed } from './letters'
import { cancel, moments } from './tools'

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}
const TREMBLE_PX = 3

/** Arrows, Escape and Enter, which mean the same whatever is in hand; whether the key was one of them. */
function leads(event: KeyboardEvent): boolean {
  const arrow = ARROWS[event.key]
  if (arrow && !event.altKey) {
    moveCaret(arrow[0], arrow[1], event.shiftKey)
    event.preventDefault()
    return true
  }
  const { finish } = moments()
  if (event.key === 'Escape') cancel()
  else if (event.key === 'Enter' && finish) finish()
  else return false
  return true
}

/** The keys of the bench; `further` are commands beside those that are always there. */
export function useKeys(canEdit: boolean, further: Command[]) {
  const commands = useMemo(() => [...drawCommands, ...further], [further])
  useCommands('Draw', commands)
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event)) return
      if (event.key.length > 1 && event.key !== 'Shift') flush()
      if (leads(event)) return
      if (typed(event, commands, canEdit)) event.preventDefault()
    }
    window.addEventListener('keydown', onKey)
    // A hand that moves the pointer types no word; a tremble is no move.
    const onMove = (event: PointerEvent) => {
      if (isWaiting() && Math.abs(event.movementX) + Math.abs(event.movementY) > TREMBLE_PX) flush()
    }
    window.addEventListener('pointerdown', flush, true)
    window.addEventListener('pointermove', onMove, true)
    return () => {
      forget()
      window.removeEventListener('keydown', onKey)
      window.removeEventListener('pointerdown', flush, true)
      window.removeEventListener('pointermove', onMove, true)
    }
  }, [canEdit, commands])
}
