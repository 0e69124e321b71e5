/**
 * Letters typed on the sheet: one alone is a command, several at once are a word that opens the list at the caret.
 * A letter that is a command waits for a moment; one that arms a tool arms it at once, and gives it up again when
 * another letter follows before anything was drawn ("beacon" begins with the bus).
 */
import { commandFor, type Command } from '../../project/commands'
import { now } from './store'
import { atRest, moments, take } from './tools'

/** How long a letter that is a command waits for a second one, in ms. */
const WAIT_MS = 350

/** A letter that is a command, until it is known that no word is typed. */
let waiting: { letter: string; run: () => void; timer: number } | null = null
/** The letter that armed the tool in hand, as long as nothing was done with it. */
let armed = ''

export const isWaiting = () => waiting !== null

const isLetter = (event: KeyboardEvent) =>
  /^[a-zA-Z]$/.test(event.key) && !event.ctrlKey && !event.altKey && !event.metaKey

/** The letter waited long enough: it is a command. */
export function flush() {
  const held = waiting
  forget()
  held?.run()
}

/** The letter that waits is forgotten. */
export function forget() {
  window.clearTimeout(waiting?.timer)
  waiting = null
}

function openList(text: string) {
  take({ name: 'place', text })
  // The hint of the tool that was not meant goes, too.
  now().set({ message: null })
}

/** Whether a key makes a word with the letter before it; then the list is open. */
function goesOn(event: KeyboardEvent): boolean {
  const letter = isLetter(event)
  if (waiting && letter && !event.shiftKey && event.key !== waiting.letter) {
    const word = waiting.letter + event.key
    forget()
    openList(word)
    return true
  }
  flush()
  const first = armed
  armed = ''
  if (!first || !letter || event.key === first || moments().begun?.() !== false) return false
  openList(first + event.key)
  return true
}

function runNow(command: Command, event: KeyboardEvent) {
  command.run()
  if (isLetter(event) && moments().begun?.() === false) armed = event.key
}

/** What a key does that is no arrow, Enter or Escape; whether it did something. */
export function typed(event: KeyboardEvent, commands: Command[], canEdit: boolean): boolean {
  if (canEdit && goesOn(event)) return true
  flush()
  const command = commandFor(event, [commands], true)
  const letter = isLetter(event)
  if (command && (canEdit || command.reads)) {
    if (!letter || event.shiftKey || !canEdit || !atRest() || command.arms) runNow(command, event)
    else waiting = { letter: event.key, run: command.run, timer: window.setTimeout(flush, WAIT_MS) }
    return true
  }
  if (!canEdit || !letter || !atRest()) return false
  take({ name: 'place', text: event.key })
  return true
}
