/** The I/O bench's commands. */
import type { Command } from '../../project/commands'
import { useProject } from '../../project/store'
import { channelKey, type IoView, type Spot } from './shapes'
import type { Act as Doing } from './useAllocating'
import type { Io } from './useIo'

/** The channel of a name, null when there is none any more. */
export function spotNamed(view: IoView | undefined, key: string): Spot | null {
  for (const card of view?.cards ?? [])
    if (key.startsWith(card.id))
      for (const row of card.channels) if (channelKey(card.id, row) === key) return { card: card.id, row }
  return null
}

/** The channel before or after one on its card, of its type. */
function beside(view: IoView | undefined, spot: Spot | null, by: number): Spot | null {
  const card = view?.cards.find((c) => c.id === spot?.card)
  const row = card?.channels.find(
    (c) => c.io_type === spot?.row.io_type && c.channel === spot.row.channel + by,
  )
  return card && row ? { card: card.id, row } : null
}

/** What opens a form or another page. */
export function goingCommands(io: Io, canEdit: boolean): Command[] {
  const change = () => canEdit
  return [
    { id: 'read', label: 'Bring in a point list', shortcut: 'L', run: () => io.go('bring'), enabled: change },
    { id: 'point', label: 'Add a point…', shortcut: 'Insert', run: () => io.open('point'), enabled: change },
    {
      id: 'collect',
      label: 'Points from the drawings',
      shortcut: 'G',
      run: () => void useProject.getState().send({ kind: 'collect-points', symbol_ids: [] }),
      enabled: () => canEdit && Boolean(io.view?.drawn.length),
    },
    { id: 'card', label: 'Add a card…', shortcut: 'K', run: () => io.open('card'), enabled: change },
    { id: 'draw', label: 'Draw channels…', shortcut: 'D', run: () => io.open('draw'), enabled: change },
    {
      id: 'again',
      label: 'Draw channels again…',
      shortcut: 'Shift+D',
      run: () => io.open('again'),
      enabled: () => canEdit && Boolean(io.view?.cards.some((c) => c.changes > 0)),
    },
    { id: 'address', label: 'Address cards…', shortcut: 'A', run: () => io.open('address'), enabled: change },
    { id: 'list', label: 'Show the list', shortcut: '1', run: () => io.go('list'), reads: true },
    {
      id: 'allocate',
      label: 'Show points and channels',
      shortcut: '2',
      run: () => io.go('allocate'),
      reads: true,
    },
    { id: 'map', label: 'Show the address map', shortcut: '3', run: () => io.go('map'), reads: true },
    { id: 'check', label: 'Show the wiring check', shortcut: '4', run: () => io.go('check'), reads: true },
    {
      id: 'drop',
      label: 'Choose nothing',
      shortcut: 'Escape',
      run: () => {
        io.choose(new Set())
        io.setChannel('')
      },
      enabled: () => io.chosen.size > 0 || io.channel !== '',
      reads: true,
    },
  ]
}

export function ioCommands(io: Io, doing: Doing, canEdit: boolean): Command[] {
  const { view } = io
  const spot = spotNamed(view, io.channel)
  const ids = [...io.chosen]
  const some = () => ids.length > 0
  const step = (by: number) => () => {
    const next = beside(view, spot, by)
    if (!spot || !next) return
    if (spot.row.point_id || next.row.point_id) doing.swap(spot, next)
  }
  const held = () => (ids.length ? ids : spot?.row.point_id ? [spot.row.point_id] : [])
  return [
    ...goingCommands(io, canEdit),
    {
      id: 'put',
      label: 'Put the chosen points on the channel in hand and on',
      shortcut: 'Enter',
      run: () => spot && doing.put(ids, spot),
      enabled: () => canEdit && some() && spot !== null && io.page === 'allocate',
    },
    {
      id: 'suggest',
      label: 'Suggest channels for what waits',
      shortcut: 'S',
      run: () => doing.suggest(ids),
      enabled: () => canEdit && (view?.points ?? []).some((p) => !p.card),
    },
    {
      id: 'free',
      label: 'Take points off their channels',
      shortcut: 'F',
      run: () => doing.free(held()),
      enabled: () => canEdit && held().length > 0,
    },
    {
      id: 'up',
      label: 'Exchange with the channel above',
      shortcut: 'Alt+ArrowUp',
      run: step(-1),
      enabled: () => canEdit && spot !== null,
    },
    {
      id: 'down',
      label: 'Exchange with the channel below',
      shortcut: 'Alt+ArrowDown',
      run: step(1),
      enabled: () => canEdit && spot !== null,
    },
  ]
}
