/** The cards with their channels, each a place to let points go; a channel dragged onto another one is exchanged. */
import Box from '@mui/material/Box'
import { memo, useCallback, useMemo, useState } from 'react'
import { Empty } from '../../kit/Bench'
import { Windowed } from '../../kit/Windowed'
import { SheetLink } from '../../project/SheetLink'
import { COPPER, LINE, MONO, QUIET, TEAL } from '../../theme/theme'
import { CardHead } from './CardHead'
import { channelKey, type Card, type Channel, type Rack, type Spot } from './shapes'
import type { Act as Doing } from './useAllocating'
import type { Io } from './useIo'

/** Heights of a card's head, of a channel, of what addresses it, and of the gap between cards, px. */
const [HEAD_PX, LINE_PX, OPEN_PX, GAP_PX] = [32, 25, 82, 14]

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
  const [open, setOpen] = useState('')
  const places = useMemo(() => new Map(all.map((c, n) => [c.id, n])), [all])
  const heightOf = useCallback(
    (card: Card) => HEAD_PX + LINE_PX * card.channels.length + GAP_PX + (open === card.id ? OPEN_PX : 0),
    [open],
  )
  return (
    <Box
      component="section"
      aria-label="Channels"
      sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column' }}
    >
      {!all.length && (
        <Empty>No card yet. Take the proposal on the left, or add a card of the library there.</Empty>
      )}
      {all.length > 0 && !cards.length && <Empty>No card is left by this filter.</Empty>}
      <Windowed items={cards} heightOf={heightOf} padding={12}>
        {(card) => (
          <CardBox
            key={card.id}
            card={card}
            inHand={io.channel.startsWith(card.id) ? io.channel : ''}
            canEdit={canEdit}
            place={places.get(card.id) ?? 0}
            {...{ racks, drop }}
            lift={doing.setFrom}
            pick={io.setChannel}
            open={open === card.id}
            onOpen={() => setOpen(open === card.id ? '' : card.id)}
            form={io.open}
          />
        )}
      </Windowed>
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
  open: boolean
  onOpen: () => void
  form: Io['open']
}

const CardBox = memo(function CardBox({
  card,
  inHand,
  canEdit,
  place,
  racks,
  drop,
  lift,
  pick,
  open,
  onOpen,
  form,
}: BoxProps) {
  const [over, setOver] = useState('')
  return (
    <Box
      component="section"
      aria-label={`Card ${card.tag}`}
      sx={{
        border: `1px solid ${LINE}`,
        borderRadius: 1,
        bgcolor: '#fff',
        mb: `${GAP_PX - 2}px`,
        maxWidth: 620,
        boxSizing: 'border-box',
      }}
    >
      <CardHead {...{ card, canEdit, place, racks, open, onOpen }} form={(name) => form(name, card.id)} />
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

// Plain elements: there may be thousands of them.
const LINE_LOOK = {
  display: 'flex',
  gap: 8,
  alignItems: 'center',
  padding: '0 8px',
  height: LINE_PX,
  boxSizing: 'border-box',
  fontSize: 12.5,
  borderTop: `1px solid ${LINE}`,
} as const
const GROUND = { '': undefined, over: '#F5D7BF', chosen: '#F7E4D6' }

function ChannelLine({ row, canEdit, look, onPick, onLift, onOver, onDrop }: LineProps) {
  const over = (e: React.DragEvent) => {
    if (!canEdit) return
    e.preventDefault()
    onOver(true)
  }
  return (
    <div
      role="option"
      aria-selected={look === 'chosen'}
      aria-label={`${row.address} ${row.point || 'spare'}`}
      draggable={canEdit && Boolean(row.point_id) && !row.fixed}
      onDragStart={(e) => {
        e.dataTransfer.setData('text/plain', row.point)
        onLift()
      }}
      onDragOver={over}
      onDragLeave={() => onOver(false)}
      onDrop={(e) => {
        e.preventDefault()
        if (canEdit) onDrop()
      }}
      onClick={onPick}
      style={{ ...LINE_LOOK, background: GROUND[look] }}
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
    </div>
  )
}
