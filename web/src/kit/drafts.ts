/** Texts that are typed and not saved yet, kept in this window so that they outlive a reload. */
import { createContext, useContext } from 'react'

export interface Draft {
  /** What was stored when it was begun. */
  base: string
  text: string
}

/** What the fields below are about: the address, and what is chosen there. Without one nothing is kept. */
export const DraftHome = createContext('')

const PLACE = 'spool.drafts'

function all(): Record<string, Draft> {
  try {
    return JSON.parse(sessionStorage.getItem(PLACE) ?? '{}') as Record<string, Draft>
  } catch {
    return {}
  }
}

function write(drafts: Record<string, Draft>) {
  try {
    sessionStorage.setItem(PLACE, JSON.stringify(drafts))
  } catch {
    // Without room to keep it, it is in the field all the same.
  }
}

export const draftOf = (key: string): Draft | undefined => (key ? all()[key] : undefined)

export function keepDraft(key: string, draft: Draft | null) {
  if (!key) return
  const drafts = all()
  if (!draft && !(key in drafts)) return
  if (draft) drafts[key] = draft
  else delete drafts[key]
  write(drafts)
}

/** The name of a field's draft, "" where none is kept. */
export function useDraftKey(label: string): string {
  const home = useContext(DraftHome)
  return home && `${home}|${label}`
}
