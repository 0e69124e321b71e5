/** Commands: one record each; keyboard, omnibox and the list of shortcuts read the same lists. */
import { useEffect } from 'react'
import { create } from 'zustand'

export interface Command {
  id: string
  label: string
  /** As it is shown: "Ctrl+Z", "W", "Delete". */
  shortcut: string
  run: () => void
  /** Changes nothing: viewers have it too. */
  reads?: boolean
  /** Takes up a tool at once: its letter does not wait for a word, but gives the tool up again for one. */
  arms?: boolean
  /** Left out while it returns false. */
  enabled?: () => boolean
}

/** The name of a pressed key as commands write it. */
export function keyName(event: KeyboardEvent): string {
  const parts = []
  if (event.ctrlKey || event.metaKey) parts.push('Ctrl')
  if (event.altKey) parts.push('Alt')
  if (event.shiftKey && (event.key.length > 1 || event.ctrlKey || event.metaKey || /[a-z]/i.test(event.key)))
    parts.push('Shift')
  parts.push(event.key.length === 1 ? event.key.toUpperCase() : event.key)
  return parts.join('+')
}

/** Refuse a list in which two commands claim one shortcut. */
export function checked(commands: Command[]): Command[] {
  const claimed = new Map<string, string>()
  for (const c of commands) {
    const other = c.shortcut && claimed.get(c.shortcut)
    if (other) throw new Error(`${c.id} and ${other} both claim ${c.shortcut}`)
    if (c.shortcut) claimed.set(c.shortcut, c.id)
  }
  return commands
}

/** Whether the key is for a table: a table keeps arrows and letters, but what is selected in it is the sheet's. */
const forTable = (event: KeyboardEvent) =>
  (event.target as Element | null)?.closest?.('[role="grid"]') != null &&
  !(event.ctrlKey || event.metaKey || event.altKey || event.key === 'Delete' || event.key === 'Escape')

/** Whether something is typed into: a box that is ticked is not. */
const takesText = (element: Element | null) =>
  /INPUT|TEXTAREA|SELECT/.test(element?.tagName ?? '') &&
  !/checkbox|radio/.test(element?.getAttribute('type') ?? '')

export const isTyping = (event: KeyboardEvent) =>
  takesText(event.target as Element | null) ||
  (event.target as Element | null)?.closest?.('[role="dialog"],[role="menu"],[role="listbox"]') != null ||
  forTable(event)

/** The commands there are just now, by where they hold: everywhere, and on the bench that is open. */
export const useCommandLists = create<Record<string, Command[]>>(() => ({}))

const EVERYWHERE = 'Everywhere'

/** Offer commands while the caller is shown. Two that claim one shortcut are refused, also with those of everywhere. */
export function useCommands(where: string, commands: Command[]) {
  useEffect(() => {
    if (useCommandLists.getState()[where] === commands) return
    const everywhere = useCommandLists.getState()[EVERYWHERE] ?? []
    checked(where === EVERYWHERE ? commands : [...everywhere, ...commands])
    useCommandLists.setState({ [where]: commands })
  })
  useEffect(() => () => useCommandLists.setState({ [where]: [] }), [where])
}

/** Offer commands that hold on every bench. */
export const useCommandsEverywhere = (commands: Command[]) => useCommands(EVERYWHERE, commands)

/** The command a key means, of those that may be done now. */
export function commandFor(event: KeyboardEvent, lists: Command[][], canEdit: boolean): Command | undefined {
  const name = keyName(event)
  return lists.flat().find((c) => c.shortcut === name && (canEdit || c.reads) && (c.enabled?.() ?? true))
}

/** To the next in a bench's list, and to the one before; `shown` says which is shown when the key is pressed. */
export function paging(
  what: string,
  ids: string[],
  shown: string | (() => string),
  go: (id: string) => void,
): Command[] {
  const step = (by: number) => () => {
    const chosen = typeof shown === 'string' ? shown : shown()
    const next = ids[Math.min(ids.length - 1, Math.max(0, ids.indexOf(chosen) + by))]
    if (next !== undefined && next !== chosen) go(next)
  }
  const enabled = () => ids.length > 1
  return [
    { id: 'next', label: `Next ${what}`, shortcut: 'PageDown', run: step(1), enabled, reads: true },
    {
      id: 'before',
      label: `${what[0]!.toUpperCase()}${what.slice(1)} before`,
      shortcut: 'PageUp',
      run: step(-1),
      enabled,
      reads: true,
    },
  ]
}
