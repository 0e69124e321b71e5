/** Points on the left, channels on the right: one point or a block is dragged onto a channel, or put there by Enter. */
import Box from '@mui/material/Box'
import { useMemo, useState } from 'react'
import type { Act as Doing } from './useAllocating'
import { CardColumn } from './CardColumn'
import { PointColumn } from './PointColumn'
import { TYPES, type Card, type IoView } from './shapes'
import type { Io } from './useIo'

interface Props {
  io: Io
  view: IoView
  filter: string
  canEdit: boolean
  doing: Doing
}

export function Allocate({ io, view, filter, canEdit, doing }: Props) {
  const [all, showAll] = useState(false)
  const points = useMemo(() => view.points.filter((p) => all || !p.card), [view.points, all])
  const cards = useMemo(() => filteredCards(view.cards, filter), [view.cards, filter])
  return (
    <Box sx={{ flex: 1, minHeight: 0, display: 'flex' }}>
      <PointColumn {...{ io, points, filter, all, showAll, canEdit, doing }} />
      <CardColumn {...{ io, cards, all: view.cards, racks: view.racks, canEdit, doing }} />
    </Box>
  )
}

/** The cards that the words of a filter leave that say a place or a type; a machine's points may go to any. */
function filteredCards(cards: Card[], filter: string): Card[] {
  const words = filter.toLowerCase().split(/\s+/)
  const places = words.filter((w) => w.startsWith('+'))
  const types = TYPES.filter((t) => words.includes(t.toLowerCase()))
  return cards.filter(
    (c) =>
      places.every((place) => c.location.toLowerCase().includes(place)) &&
      types.every((type) => c.channels.some((ch) => ch.io_type === type)),
  )
}
