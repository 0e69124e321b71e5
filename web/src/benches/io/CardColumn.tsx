/** The cards with their channels, each a place to let points go; a channel dragged onto another one is exchanged. */
import Box from '@mui/material/Box'
import { memo, useState } from 'react'
import { Empty } from '../../kit/Bench'
import { SheetLink } from '../../project/SheetLink'
import { COPPER, LINE, MONO, QUIET, TEAL } from '../../theme/theme'
import { CardHead } from './CardHead'
import { channelKey, type Card, type Channel, type Rack } from './shapes'
import type { Act as Doing, Spot } from './useAllocating'
import type { Io } from './useIo'

interface Props {
  io: Io
  cards: Card[]
  /** All cards, in their order. */
  all: Card[]
  racks: Rack[]
  canEdit: boolean
  doing: Doing
}

export function CardColumn({ io, cards, all, racks, canEdit, doing }: Props) {
  const drop = (spot: Spot) => {
    if (doing.from) {
      const { from } = doing
      if (channelKey(from.card, from.row) !== channelKey(spot.card, spot.row)) doing.swap(from, spot)
    } else doing.put([...io.chosen], spot)
  }
  return (
    <Box component="section" aria-label="Channels" sx={{ flex: 1, minWidth: 0, overflow: 'auto', p: 1.5 }}>
      {!all.length && (
        <Empty>No card yet. Take the proposal on the left, or add a card of the library there.</Empty>
      )}
      {all.length > 0 && !cards.length && <Empty>No card is left by this filter.</Empty>}
      {cards.map((card) => (
        <CardBox
          key={card.id}
          card={card}
          inHand={io.channel.startsWith(card.id) ? io.channel : ''}
          canEdit={canEdit}
          place={all.findIndex((c) => c.id === card.id)}
          {...{ racks, drop }}
          lift={doing.setFrom}
          pick={io.setChannel}
        />
      ))}
    </Box>
  )
}

interface BoxProps {
  card: Card
  inHand: string
  canEdit: boolean
  place: number
  racks: Rack[]
  drop: (spot: Spot) => void
  lift: (spot: Spot | null) => void
  pick: (key: string) => void
}

const CardBox = memo(function CardBox({ card, inHand, canEdit, place, racks, drop, lift, pick }: BoxProps) {
  const [over, setOver] = useState('')
  return (
    <Box
      component="section"
      aria-label={`Card ${card.tag}`}
      sx={{
        border: `1px solid ${LINE}`,
        borderRadius: 1,
        bgcolor: '#fff',
        mb: 1.5,
        maxWidth: 620,
        contentVisibility: 'auto',
        containIntrinsicSize: `auto ${60 + 25 * card.channels.length}px`,
      }}
    >
      <CardHead {...{ card, canEdit, place, racks }} />
      <Box role="listbox" aria-label={`Channels of ${card.tag}`}>
        {card.channels.map((row) => {
          const key = channelKey(card.id, row)
          const spot = { card: card.id, row }
          return (
            <ChannelLine
              key={key}
              row={row}
              canEdit={canEdit}
              look={over === key ? 'over' : inHand === key ? 'chosen' : ''}
              onPick={() => pick(key)}
              onLift={() => lift(spot)}
              onOver={(is) => setOver(is ? key : '')}
              onDrop={() => {
                setOver('')
                drop(spot)
              }}
            />
          )
        })}
      </Box>
    </Box>
  )
})

interface LineProps {
  row: Channel
  canEdit: boolean
  look: '' | 'over' | 'chosen'
  onPick: () => void
  onLift: () => void
  onOver: (is: boolean) => void
  onDrop: () => void
}

const GROUND = { '': undefined, over: '#F5D7BF', chosen: '#F7E4D6' }

function ChannelLine({ row, canEdit, look, onPick, onLift, onOver, onDrop }: LineProps) {
  const over = (e: React.DragEvent) => {
    if (!canEdit) return
    e.preventDefault()
    onOver(true)
  }
  return (
    <Box
      role="option"
      aria-selected={look === 'chosen'}
      aria-label={`${row.address} ${row.point || 'spare'}`}
      draggable={canEdit && Boolean(row.point_id) && !row.fixed}
      onDragStart={(e: React.DragEvent) => {
        e.dataTransfer.setData('text/plain', row.point)
        onLift()
      }}
      onDragOver={over}
      onDragLeave={() => onOver(false)}
      onDrop={(e: React.DragEvent) => {
        e.preventDefault()
        if (canEdit) onDrop()
      }}
      onClick={onPick}
      sx={{
        display: 'flex',
        gap: 1,
        alignItems: 'center',
        px: 1,
        height: 25,
        fontSize: 12.5,
        borderTop: `1px solid ${LINE}`,
        bgcolor: GROUND[look],
      }}
    >
      <b style={{ fontFamily: MONO, color: TEAL, width: 64 }}>{row.address}</b>
      <span style={{ fontFamily: MONO, fontSize: 11, color: QUIET, width: 44 }}>:{row.pins}</span>
      <span style={{ flex: 1, overflow: 'hidden', whiteSpace: 'nowrap', textOverflow: 'ellipsis' }}>
        {row.point ? (
          <>
            <b>{row.point}</b> {row.text}
          </>
        ) : (
          <span style={{ color: QUIET }}>spare</span>
        )}
      </span>
      {row.sort && <span style={{ fontSize: 11, color: QUIET }}>{row.sort}</span>}
      {row.fixed && <span style={{ fontSize: 11, color: COPPER }}>fixed</span>}
      <SheetLink sheetId={row.sheet_id} select={row.symbol_id}>
        {row.place}
      </SheetLink>
    </Box>
  )
}
