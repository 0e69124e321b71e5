/** Drawing the channels of many cards, card by card, so that one sees how far it is and can stop. */
import { useRef, useState } from 'react'
import type { AnyEdit } from '../../api/client'
import { usePick } from '../../project/store'
import type { IoView } from './shapes'

/** From how many channels on cards are drawn one by one, each an edit of its own. */
const MANY = 200

/** The cards that wait to be drawn, where there are so many channels that it takes a while; none where it does not. */
export function cardByCard(view: IoView): string[] {
  const waiting = view.cards.map((c) => ({
    id: c.id,
    count: c.channels.filter((r) => r.point_id && !r.symbol_id).length,
  }))
  const all = waiting.reduce((sum, c) => sum + c.count, 0)
  return all < MANY ? [] : waiting.filter((c) => c.count > 0).map((c) => c.id)
}

export function useDrawing() {
  const { send, say } = usePick('send', 'say')
  const [at, setAt] = useState(0)
  const stopped = useRef(false)
  const run = async (cards: string[], editOf: (card: string) => AnyEdit) => {
    stopped.current = false
    let done = 0
    for (const card of cards) {
      if (stopped.current) break
      setAt(done + 1)
      if (!(await send(editOf(card)))) break
      done += 1
    }
    setAt(0)
    if (done < cards.length)
      say(`${done} of ${cards.length} cards are drawn. Undo takes them back one by one.`)
    return true
  }
  return {
    /** The card that is being drawn, from 1; 0 while none is. */
    at,
    run,
    stop: () => {
      stopped.current = true
    },
  }
}
