/** The keyboard on the sheet. */
import { useEffect } from 'react'
import { commandFor, isTyping, useCommands } from '../../project/commands'
import { drawCommands } from './commands'
import { useDraw, now } from './store'
import { putHeld } from './held'
import { cancel, moveCaret, putCopy, putCorner, putStroke } from './tools'

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

/** Commands that take up a tool at once: a second letter gives the tool up again, see `armed`. */
const DRAWS = ['wire', 'bus']
/** How long a letter that is a command waits for a second one, which makes a word of it, in ms. */
const WAIT_MS = 350
const TREMBLE_PX = 3

export function useKeys(canEdit: boolean) {
  useCommands('Draw', drawCommands)
  useEffect(() => {
    // A letter that is a command, until it is known that no word is typed.
    let waiting: { letter: string; run: () => void; timer: number } | null = null
    const flush = () => {
      const held = waiting
      waiting = null
      if (!held) return
      window.clearTimeout(held.timer)
      held.run()
    }
    // The letter that took up the wire tool: when another letter follows at once, a word was meant ("beacon").
    let armed = ''
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event)) return
      if (event.key.length > 1 && event.key !== 'Shift') flush()
      const s = now()
      const arrow = ARROWS[event.key]
      if (arrow && !event.altKey) {
        moveCaret(arrow[0], arrow[1], event.shiftKey)
        event.preventDefault()
        return
      }
      if (event.key === 'Escape') return cancel()
      if (event.key === 'Enter' && s.tool.name === 'wire') return putCorner(true)
      if (event.key === 'Enter' && s.tool.name === 'copy') return putCopy(s.caret)
      if (event.key === 'Enter' && s.tool.name === 'stroke') return putStroke()
      if (event.key === 'Enter' && (s.tool.name === 'paste' || s.tool.name === 'stamp')) return putHeld()
      const letter = /^[a-zA-Z]$/.test(event.key) && !event.ctrlKey && !event.altKey && !event.metaKey
      if (canEdit && waiting && letter && !event.shiftKey && event.key !== waiting.letter) {
        event.preventDefault()
        window.clearTimeout(waiting.timer)
        s.set({ tool: { name: 'place', text: waiting.letter + event.key }, message: null })
        waiting = null
        return
      }
      flush()
      const word = letter && armed && event.key !== armed
      if (canEdit && word && s.tool.name === 'wire' && !s.tool.corners.length) {
        event.preventDefault()
        // The hint of the tool that was not meant goes, too.
        s.set({ tool: { name: 'place', text: armed + event.key }, message: null })
        armed = ''
        return
      }
      armed = ''
      const command = commandFor(event, [drawCommands], true)
      if (command && (canEdit || command.reads)) {
        event.preventDefault()
        if (letter && !event.shiftKey && canEdit && s.tool.name === 'idle' && !DRAWS.includes(command.id)) {
          waiting = { letter: event.key, run: command.run, timer: window.setTimeout(flush, WAIT_MS) }
          return
        }
        command.run()
        if (letter && useDraw.getState().tool.name === 'wire') armed = event.key
      } else if (canEdit && letter && s.tool.name === 'idle') {
        event.preventDefault()
        s.set({ tool: { name: 'place', text: event.key } })
      }
    }
    window.addEventListener('keydown', onKey)
    // A hand that moves the pointer types no word; a tremble is no move.
    const onMove = (event: PointerEvent) => {
      if (waiting && Math.abs(event.movementX) + Math.abs(event.movementY) > TREMBLE_PX) flush()
    }
    window.addEventListener('pointerdown', flush, true)
    window.addEventListener('pointermove', onMove, true)
    return () => {
      if (waiting) window.clearTimeout(waiting.timer)
      window.removeEventListener('keydown', onKey)
      window.removeEventListener('pointerdown', flush, true)
      window.removeEventListener('pointermove', onMove, true)
    }
  }, [canEdit])
}
