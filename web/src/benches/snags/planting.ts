/** Faults planted kind after kind: what was planted so far, and what of it nothing tells. */
import { useEffect, useRef, useState } from 'react'
import { client, got, wordsOf } from '../../api/client'
import type { Schemas } from '../../api/shapes'

export type UnseenRow = Schemas['UnseenLine'] & { id: string }

export interface Planting {
  kinds: number
  done: number
  count: number
  unseen: UnseenRow[]
  running: boolean
  problem: string
}

export const NOTHING: Planting = { kinds: 0, done: 0, count: 0, unseen: [], running: false, problem: '' }

/** Return what was planted with the answer for one kind more. */
export function withKind(before: Planting, key: string, found: Schemas['Planted']): Planting {
  const rows = found.unseen.map((u, n) => ({ ...u, id: `${key} ${n}` }))
  return {
    ...before,
    done: before.done + 1,
    count: before.count + found.count,
    unseen: [...before.unseen, ...rows],
  }
}

export function usePlanting(projectId: string) {
  const [state, setState] = useState(NOTHING)
  const asked = useRef<AbortController | null>(null)
  useEffect(() => () => asked.current?.abort(), [])
  const stop = () => {
    asked.current?.abort()
    setState((s) => ({ ...s, running: false }))
  }
  const start = async () => {
    const mine = new AbortController()
    asked.current = mine
    const path = { project_id: projectId }
    try {
      const kinds = await got(
        client.GET('/api/projects/{project_id}/faults', { params: { path }, signal: mine.signal }),
      )
      setState({ ...NOTHING, kinds: kinds.length, running: true })
      for (const { key } of kinds) {
        const found = await got(
          client.GET('/api/projects/{project_id}/faults/{fault_key}', {
            params: { path: { ...path, fault_key: key } },
            signal: mine.signal,
          }),
        )
        setState((s) => withKind(s, key, found))
      }
      setState((s) => ({ ...s, running: false }))
    } catch (error) {
      if (!mine.signal.aborted) setState((s) => ({ ...s, running: false, problem: wordsOf(error) }))
    }
  }
  return { state, start, stop }
}
