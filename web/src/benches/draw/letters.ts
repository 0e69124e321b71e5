/**
 * Letters typed on the sheet: one alone is a command, several at once are a word that opens the list at the caret.
 * A letter that is a command waits for a moment; one that arms a tool arms it at once, and gives it up again when
 * another letter follows before anything was drawn ("beacon" begins with the bus). Figures begin words, too ("24V");
 * 0 fits the sheet at once, and is a word all the same with a letter right behind it that is no command ("0V").
 */
import { commandFor, type Command } from '../../project/commands'
import { now } from './store'
import { atRest, moments, take } from './tools'

/** How long a letter that is a command waits for a second one, in ms. */
const WAIT_MS = 350

/** A letter that is a command, until it is known that no word is typed. */
let waiting: { letter: string; run: () => void; timer: number } | null = null
/** A figure that did something else a moment ago. */
let figure = ''
/** The letter that armed the tool in hand, as long as nothing was done with it. */
let armed = ''

export const isWaiting = () => waiting !== null

const isLetter = (event: KeyboardEvent) =>
  /^[a-zA-Z]$/.test(event.key) && !event.ctrlKey && !event.altKey && !event.metaKey

const isFigure = (event: KeyboardEvent) =>
  /^[0-9]$/.test(event.key) && !event.ctrlKey && !event.altKey && !event.metaKey && !event.shiftKey

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

/** 0 fits the sheet into the view, for whom it is asked elsewhere: a letter behind it may make a word of it. */
function noted(event: KeyboardEvent): boolean {
  figure = event.key === '0' ? event.key : ''
  if (figure) window.setTimeout(() => (figure = ''), WAIT_MS)
  return figure !== ''
}

/** Whether a letter that is no command makes a word with the figure before it; then the list is open. */
function follows(event: KeyboardEvent, commands: Command[]): boolean {
  const bare = figure && isLetter(event) && atRest() && !commandFor(event, [commands], true)
  const word = bare ? figure + event.key : ''
  figure = ''
  if (word) openList(word)
  return word !== ''
}

/** What a key does that is no arrow, Enter or Escape; whether it did something. */
export function typed(event: KeyboardEvent, commands: Command[], canEdit: boolean): boolean {
  if (canEdit && (follows(event, commands) || goesOn(event))) return true
  flush()
  const command = commandFor(event, [commands], true)
  const letter = isLetter(event)
  if (command && (canEdit || command.reads)) {
    if (!letter || event.shiftKey || !canEdit || !atRest() || command.arms) runNow(command, event)
    else waiting = { letter: event.key, run: command.run, timer: window.setTimeout(flush, WAIT_MS) }
    return true
  }
  if (!canEdit || !(letter || isFigure(event)) || !atRest() || noted(event)) return false
  take({ name: 'place', text: event.key })
  return true
}
