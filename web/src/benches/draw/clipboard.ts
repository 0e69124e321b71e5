/** The clipboard of this browser: a piece of circuit, for this project or another. */
import { client, got, wordsOf } from '../../api/client'
import { movables } from './acts'
import { now, type Piece } from './store'
import { counted } from '../../kit/counted'

const CLIPBOARD = 'spool-piece'

export async function copySelected(cut: boolean) {
  const s = now()
  const ids = movables()
  if (!ids.length) return
  try {
    const piece = await got(
      client.POST('/api/projects/{project_id}/piece', {
        params: { path: { project_id: s.projectId } },
        body: { ids },
      }),
    )
    localStorage.setItem(CLIPBOARD, JSON.stringify({ piece, cut }))
    if (cut) await now().send({ kind: 'delete-selection', ids })
    now().say(
      `${counted(ids.length, 'thing')} ${cut ? 'cut' : 'copied'}. Ctrl+V puts them down, in any project.`,
    )
  } catch (error) {
    s.say(wordsOf(error), 'error')
  }
}

/** What was copied last, null for nothing. */
export function copied(): { piece: Piece; cut: boolean } | null {
  const kept = localStorage.getItem(CLIPBOARD)
  return kept ? (JSON.parse(kept) as { piece: Piece; cut: boolean }) : null
}
