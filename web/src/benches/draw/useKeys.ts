/** The keyboard on the sheet. */
import { useEffect } from 'react'
import { isTyping, keyName } from '../../app/commands'
import { drawCommands } from './commands'
import { useSheet } from './store'
import { putHeld } from './held'
import { cancel, moveCaret, putCopy, putCorner, putStroke } from './tools'

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

export function useKeys(canEdit: boolean) {
  useEffect(() => {
    // The letter that took up the wire tool: when another letter follows at once, a word was meant ("beacon").
    let armed = ''
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event)) return
      const s = useSheet.getState()
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
      const word = letter && armed && event.key !== armed
      if (canEdit && word && s.tool.name === 'wire' && !s.tool.corners.length) {
        event.preventDefault()
        // The hint of the tool that was not meant goes, too.
        s.set({ tool: { name: 'place', text: armed + event.key }, message: null })
        armed = ''
        return
      }
      armed = ''
      const name = keyName(event)
      const command = drawCommands.find((c) => c.shortcut === name && (c.enabled?.() ?? true))
      if (command && (canEdit || command.reads)) {
        event.preventDefault()
        command.run()
        if (letter && useSheet.getState().tool.name === 'wire') armed = event.key
      } else if (canEdit && letter && s.tool.name === 'idle') {
        event.preventDefault()
        s.set({ tool: { name: 'place', text: event.key } })
      }
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [canEdit])
}
