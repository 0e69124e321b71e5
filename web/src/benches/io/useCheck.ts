/** What the wiring check holds: the walk, the point in hand, and the PLC. */
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { client, got, makeEdit } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { usePick, useProject } from '../../project/store'
import { useBench } from '../../project/useBench'

export type CheckView = Schemas['CheckView']
export type CheckRow = Schemas['CheckValue']

const today = () => new Date().toLocaleDateString('sv-SE')

/** Giving the PLC the list and setting a point; what it answers is shown, and said when it does not. */
function usePlc(projectId: string, pointId: string) {
  const { say } = usePick('say')
  const store = useQueryClient()
  const path = { project_id: projectId }
  const asked = (answer: Promise<CheckView>) =>
    void answer
      .then((fresh) => {
        if (fresh.plc.away) say(fresh.plc.away, 'error')
        else if (fresh.plc.refused.length) say(`The PLC refused ${fresh.plc.refused.join('; ')}`, 'error')
        return store.invalidateQueries({ queryKey: ['bench', 'io-check'] })
      })
      .catch((error: unknown) => say(error instanceof Error ? error.message : String(error), 'error'))
  return {
    give: () => asked(got(client.POST('/api/projects/{project_id}/io/check/list', { params: { path } }))),
    set: (value: number) => {
      const params = { path: { ...path, point_id: pointId } }
      const url = '/api/projects/{project_id}/io/check/points/{point_id}'
      if (pointId) asked(got(client.POST(url, { params, body: { value } })))
    },
  }
}

export function useCheck(shown: boolean) {
  const projectId = useProject((s) => s.projectId)
  const { send } = usePick('send')
  const me = useQuery({ queryKey: ['me'], queryFn: () => got(client.GET('/api/me')) }).data
  const [inHand, take] = useState('')
  const [remark, setRemark] = useState('')
  const path = { project_id: projectId }
  const view = useBench<CheckView | null>(
    'io-check',
    () =>
      shown
        ? got(client.GET('/api/projects/{project_id}/io/check', { params: { path } }))
        : Promise.resolve(null),
    [shown],
  ).data
  const rows = view?.rows ?? []
  const at = Math.max(
    0,
    rows.findIndex((r) => r.point_id === inHand),
  )
  const row = rows[at]
  const plc = usePlc(projectId, row?.point_id ?? '')
  const go = (by: number) => {
    const next = rows[Math.min(rows.length - 1, Math.max(0, at + by))]
    if (next) take(next.point_id)
    setRemark('')
  }
  return {
    projectId,
    view,
    rows,
    row,
    take: (id: string) => {
      take(id)
      setRemark('')
    },
    go,
    remark,
    setRemark,
    name: me?.full_name || me?.name || '',
    ...plc,
    see: (result: '' | 'good' | 'fault') => {
      if (!row) return
      const by = result ? (me?.full_name ?? me?.name ?? '') : ''
      const edit = makeEdit('check-points', {
        ...{ ids: [row.point_id], result, by, remark: result ? remark : '' },
        on: result ? today() : '',
      })
      void send(edit).then((answer) => answer && result && go(1))
    },
    sign: (by: string, words: string) => send(makeEdit('sign-check', { by, remark: words, on: today() })),
    unsign: (id: string) => void send({ kind: 'remove-signature', id }),
  }
}

export type Checking = ReturnType<typeof useCheck>

/** What was seen of a point, in a word. */
export function resultOf(row: CheckRow): string {
  if (row.anew) return 'see anew'
  return row.result === 'good' ? 'good' : row.result === 'fault' ? 'fault' : ''
}
