/** What a person arranged, kept in this browser; without storage, nothing is kept and nothing breaks. */

const PREFIX = 'spool-'

export function remembered<T>(name: string, otherwise: T): T {
  try {
    const text = window.localStorage.getItem(PREFIX + name)
    return text === null ? otherwise : (JSON.parse(text) as T)
  } catch {
    return otherwise
  }
}

export function remember(name: string, value: unknown): void {
  try {
    window.localStorage.setItem(PREFIX + name, JSON.stringify(value))
  } catch {
    // Storage is full or not allowed: the arrangement lasts for this page only.
  }
}
