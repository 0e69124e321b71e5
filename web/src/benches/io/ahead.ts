/** A point shown on the channel it was put on before the server has said so; a refusal or the next answer takes it back. */
import { useEffect, useMemo, useState } from 'react'
import { channelKey, type IoView } from './shapes'
import type { Spot } from './shapes'

interface Ahead {
  id: string
  spot: Spot
}

/** The bench with one point on a channel; without it where the two are no plain case. */
function withPoint(view: IoView, { id, spot }: Ahead): IoView {
  const point = view.points.find((p) => p.id === id)
  if (!point || point.fixed || spot.row.point_id || point.io_type !== spot.row.io_type) return view
  const key = channelKey(spot.card, spot.row)
  const tag = view.cards.find((c) => c.id === spot.card)?.tag ?? ''
  return {
    ...view,
    points: view.points.map((p) =>
      p.id === id
        ? { ...p, card: tag, device_id: spot.card, channel: spot.row.channel, address: spot.row.address }
        : p,
    ),
    cards: view.cards.map((card) =>
      card.id !== spot.card && card.id !== point.device_id
        ? card
        : {
            ...card,
            channels: card.channels.map((row) =>
              channelKey(card.id, row) === key
                ? { ...row, point_id: id, point: point.tag, text: point.text }
                : row.point_id === id
                  ? { ...row, point_id: '', point: '', text: '' }
                  : row,
            ),
          },
    ),
  }
}

export function useAhead(view: IoView | undefined) {
  const [ahead, setAhead] = useState<Ahead | null>(null)
  useEffect(() => setAhead(null), [view])
  const shown = useMemo(() => (view && ahead ? withPoint(view, ahead) : view), [view, ahead])
  return { shown, setAhead }
}
