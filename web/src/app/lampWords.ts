/** What the lamp in the top bar says. */
import type { Line } from '../api/line'

interface Shown {
  words: string
  hint: string
  colour: string
}

export function lampOf({ state, waiting }: Pick<Line, 'state' | 'waiting'>): Shown {
  const edits = waiting === 1 ? '1 edit' : `${waiting} edits`
  const kept = waiting ? `${edits} waiting: kept, and sent in order` : 'What you do now is kept, and sent'
  if (state === 'away')
    return {
      words: waiting ? `Server away, ${edits} waiting` : 'Server away',
      hint: `The server does not answer. ${kept} when it is back.`,
      colour: '#FF8A73',
    }
  if (state === 'signed out')
    return { words: 'Signed out', hint: `${kept} when you have signed in.`, colour: '#F2C14E' }
  if (waiting) return { words: `${edits} waiting`, hint: 'Sent, and not answered yet.', colour: '#F2C14E' }
  return { words: 'In step', hint: 'All that you did is with the server.', colour: '#7BD1A8' }
}
