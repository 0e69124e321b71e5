/** Commands: one record each; keyboard, omnibox and the shortcut map read the same list. */
export interface Command {
  id: string
  label: string
  /** As it is shown: "Ctrl+Z", "W", "Delete". */
  shortcut: string
  run: () => void
  /** Changes nothing: viewers have it too. */
  reads?: boolean
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
  !(event.ctrlKey || event.metaKey || event.key === 'Delete' || event.key === 'Escape')

export const isTyping = (event: KeyboardEvent) =>
  /INPUT|TEXTAREA|SELECT/.test((event.target as Element | null)?.tagName ?? '') ||
  (event.target as Element | null)?.closest?.('[role="dialog"],[role="menu"],[role="listbox"]') != null ||
  forTable(event)
