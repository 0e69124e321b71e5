/** Where what is held or dragged would land, as the core says; asked as the pointer moves, one question at a time. */
import { useCallback, useEffect, useRef, useState } from 'react'
import { client, got, wordsOf, type AnyEdit } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { useProject } from '../../project/store'
import type { EnclosureValue } from './shapes'
import type { State } from './useCabinet'

export type LandingValue = Schemas['Landing']

export function useLanding(enclosure: EnclosureValue, state: State) {
  const [landing, setLanding] = useState<LandingValue | null>(null)
  const asked = useRef({ wanted: null as AnyEdit | null, last: '', turn: 0, busy: false })
  const where = useRef({ enclosure: enclosure.id, surface: state.surface })
  where.current = { enclosure: enclosure.id, surface: state.surface }

  const answerAll = useCallback(async () => {
    const now = asked.current
    now.busy = true
    while (now.wanted) {
      const [edit, turn] = [now.wanted, now.turn]
      now.wanted = null
      const { projectId } = useProject.getState()
      const { enclosure: enclosure_id, surface } = where.current
      const params = { path: { project_id: projectId, enclosure_id }, query: { surface } }
      const answer = await got(
        client.POST('/api/projects/{project_id}/cabinet/{enclosure_id}/landing', { params, body: { edit } }),
      ).catch((error: unknown) => ({ problem: wordsOf(error), things: [] }))
      if (now.turn === turn) setLanding(answer)
    }
    now.busy = false
  }, [])

  const ask = useCallback(
    (edit: AnyEdit | null) => {
      const now = asked.current
      const words = edit ? JSON.stringify(edit) : ''
      if (words === now.last) return
      now.last = words
      now.wanted = edit
      if (!edit) {
        now.turn += 1
        setLanding(null)
      } else if (!now.busy) void answerAll()
    },
    [answerAll],
  )
  // Another tool, side or enclosure: what was shown for the one before is gone.
  useEffect(() => ask(null), [ask, state.tool, state.look, enclosure.id])
  return { landing, ask }
}
