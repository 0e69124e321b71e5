/** The way to the omnibox for whoever is asked for it by a key. */
export const OMNIBOX = 'Find or do'

export const focusOmnibox = () => document.querySelector<HTMLElement>(`[aria-label="${OMNIBOX}"]`)?.focus()
