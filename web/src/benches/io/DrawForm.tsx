/** Drawing the channels of cards that are on no sheet yet: which, in what pattern, from which feed and to which return. */
import LinearProgress from '@mui/material/LinearProgress'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { makeEdit } from '../../api/client'
import { FormDialog } from '../../kit/FormDialog'
import { PanelPick } from '../../kit/Pick'
import { PreviewLines } from '../../kit/PreviewLines'
import { usePick } from '../../project/store'
import { useOutline } from '../../project/useOutline'
import { usePreview } from '../../project/usePreview'
import type { IoView } from './shapes'
import { cardByCard, useDrawing } from './useDrawing'
import type { Io } from './useIo'

interface Props {
  io: Io
  view: IoView
  close: () => void
}

/** What is chosen in the form; null is as the project has it. */
interface Wishes {
  perSheet: string | null
  way: 'level' | 'upright' | null
  side: '' | 'right' | 'left' | null
  feed: string | null
  back: string | null
}

const NONE: Wishes = { perSheet: null, way: null, side: null, feed: null, back: null }
const WAYS = [
  { id: 'level', name: 'level, one below the other' },
  { id: 'upright', name: 'upright, one beside the other' },
]
const SIDES = [
  { id: 'usual', name: 'inputs right or below, outputs left or above' },
  { id: 'right', name: 'right, or below' },
  { id: 'left', name: 'left, or above' },
]

/** The edit that draws what is wanted; what is not typed is the project's. */
function drawing(which: string, chosen: Set<string>, wishes: Wishes) {
  const typed = Math.floor(Number(wishes.perSheet))
  return makeEdit('draw-channels', {
    ...{ feed: wishes.feed ?? '', back: wishes.back ?? '', way: wishes.way, side: wishes.side },
    per_sheet: wishes.perSheet === null ? null : Math.min(8, Math.max(1, typed || 8)),
    device_ids: which === 'all' || which === 'chosen' ? [] : [which],
    ids: which === 'chosen' ? [...chosen] : [],
  })
}

export function DrawForm({ io, view, close }: Props) {
  const { send } = usePick('send')
  const [which, setWhich] = useState(io.about || (io.chosen.size ? 'chosen' : 'all'))
  const [wishes, setWishes] = useState(NONE)
  const edit = drawing(which, io.chosen, wishes)
  const cards = which === 'all' ? cardByCard(view) : []
  const preview = usePreview(edit, cards.length === 0)
  const many = useDrawing()
  const problem = preview.error instanceof Error ? preview.error.message : ''
  const draw = () => {
    const work = cards.length
      ? many.run(cards, (card) => drawing(card, io.chosen, wishes))
      : send(edit).then((answer) => answer !== null)
    void work.then((done) => done && close())
  }
  return (
    <FormDialog
      title="Draw channels"
      act={many.at ? 'Drawing…' : 'Draw'}
      enabled={!many.at && (cards.length > 0 || (!problem && preview.data !== undefined))}
      close={many.at ? many.stop : close}
      onAct={draw}
    >
      <PanelPick
        label="Which channels"
        value={which}
        options={[
          { id: 'all', name: 'all that have a point and are not drawn' },
          ...(io.chosen.size ? [{ id: 'chosen', name: `those of the ${io.chosen.size} points chosen` }] : []),
          ...view.cards.map((c) => ({ id: c.id, name: `those of ${c.tag}` })),
        ]}
        onPick={setWhich}
      />
      <Wished {...{ io, wishes }} wish={(more) => setWishes({ ...wishes, ...more })} />
      {cards.length > 0 ? (
        <Progress {...{ cards: cards.length, at: many.at }} />
      ) : (
        <PreviewLines
          name="What would be drawn"
          problem={problem}
          lines={(preview.data?.table ?? []).map(
            ([sheet, count, points]) => `${sheet}: ${count} (${points})`,
          )}
          remarks={preview.data?.remarks ?? []}
          before="Drawn by themselves:"
        />
      )}
    </FormDialog>
  )
}

/** The pattern of the sheets and the names of the commons: as the project has them until they are chosen here. */
function Wished({ io, wishes, wish }: { io: Io; wishes: Wishes; wish: (more: Partial<Wishes>) => void }) {
  const settings = useOutline(io.projectId).data?.settings
  const side = wishes.side ?? settings?.channel_side ?? ''
  const typed = (label: string, value: string, onType: (value: string) => void) => (
    <TextField
      {...{ label, value, fullWidth: true, margin: 'dense' }}
      onChange={(e) => onType(e.target.value)}
    />
  )
  return (
    <>
      {typed(
        'Channels a sheet, up to 8',
        wishes.perSheet ?? String(settings?.channels_per_sheet ?? 8),
        (perSheet) => wish({ perSheet }),
      )}
      <PanelPick
        label="Rows"
        value={wishes.way ?? settings?.channel_way ?? 'level'}
        options={WAYS}
        onPick={(id) => wish({ way: id === 'upright' ? 'upright' : 'level' })}
      />
      <PanelPick
        label="Channels stand"
        value={side || 'usual'}
        options={SIDES}
        onPick={(id) => wish({ side: id === 'right' || id === 'left' ? id : '' })}
      />
      {typed('Fed from', wishes.feed ?? settings?.channel_feed ?? '', (feed) => wish({ feed }))}
      {typed('Returning to', wishes.back ?? settings?.channel_return ?? '', (back) => wish({ back }))}
    </>
  )
}

/** How far the drawing of many cards is; "Cancel" of the form stops it, and what is drawn can be undone. */
function Progress({ cards, at }: { cards: number; at: number }) {
  return (
    <div role="status" style={{ fontSize: 12.5, marginTop: 8 }}>
      {at
        ? `Card ${at} of ${cards}. Cancel stops behind it; what is drawn by then can be undone.`
        : `The channels of ${cards} cards are drawn card by card.`}
      {at > 0 && <LinearProgress variant="determinate" value={(100 * (at - 1)) / cards} sx={{ mt: 0.75 }} />}
    </div>
  )
}
