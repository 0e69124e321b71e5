/** Putting points on channels, exchanging and taking back; what is dragged over the bench. */
import { useMemo, useState } from 'react'
import { makeEdit } from '../../api/client'
import { usePick } from '../../project/store'
import type { IoType, Spot } from './shapes'
import type { Io } from './useIo'

export function useAllocating(io: Io) {
  const { send } = usePick('send')
  const { choose, setChannel, setAhead, order } = io
  const [from, setFrom] = useState<Spot | null>(null)
  return useMemo(
    () => ({
      /** The channel that is dragged, null while points are. */
      from,
      setFrom,
      put: (ids: string[], { card, row }: Spot) => {
        if (!ids.length) return
        const edit = makeEdit('allocate-points', {
          ...{ ids, device_id: card, channel: row.channel, io_type: row.io_type as IoType, order },
        })
        if (ids.length === 1) setAhead({ id: ids[0]!, spot: { card, row } })
        void send(edit).then((answer) => {
          if (answer) choose(new Set())
          else setAhead(null)
        })
      },
      swap: (a: Spot, b: Spot) => {
        const edit = makeEdit('swap-channels', {
          ...{ io_type: a.row.io_type as IoType, device_id: a.card, channel: a.row.channel },
          ...{ other_id: b.card, other: b.row.channel, other_type: b.row.io_type },
        })
        void send(edit).then((answer) => {
          if (answer) setChannel(`${b.card} ${b.row.io_type} ${b.row.channel}`)
        })
      },
      free: (ids: string[]) => void send({ kind: 'free-points', ids }),
      fix: (ids: string[], fixed: boolean) => void send({ kind: 'fix-points', ids, fixed }),
      suggest: (ids: string[]) => void send({ kind: 'suggest-channels', ids, device_ids: [] }),
    }),
    [from, send, choose, setChannel, setAhead, order],
  )
}

export type Act = ReturnType<typeof useAllocating>
