/** Edits that are under way, kept in this window: what a reload finds here is sent again, under the same name. */
import type { AnyEdit } from '../api/client'

export interface Unsent {
  key: string
  edit: AnyEdit
  /** The revision that was shown when it was typed. */
  seen?: number
}

const place = (projectId: string) => `spool.unsent.${projectId}`

export function unsentOf(projectId: string): Unsent[] {
  try {
    return JSON.parse(sessionStorage.getItem(place(projectId)) ?? '[]') as Unsent[]
  } catch {
    return []
  }
}

function write(projectId: string, edits: Unsent[]) {
  try {
    if (edits.length) sessionStorage.setItem(place(projectId), JSON.stringify(edits))
    else sessionStorage.removeItem(place(projectId))
  } catch {
    // Without room to keep it, it is sent all the same.
  }
}

export const keepUnsent = (projectId: string, one: Unsent) =>
  write(projectId, [...unsentOf(projectId).filter((u) => u.key !== one.key), one])

export const sentNow = (projectId: string, key: string) =>
  write(
    projectId,
    unsentOf(projectId).filter((u) => u.key !== key),
  )
