/** The head of a card: its tag and part, how and from where it is addressed, its rack and slot, its place among all. */
import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import { makeEdit } from '../../api/client'
import { Act } from '../../kit/Act'
import { Field } from '../../kit/Field'
import { Pick } from '../../kit/Pick'
import { SheetLink } from '../../project/SheetLink'
import { usePick } from '../../project/store'
import { COPPER, INK, MONO, QUIET } from '../../theme/theme'
import { SCHEMES, type Card, type Rack, type Scheme } from './shapes'
import type { Form } from './useIo'

interface Props {
  card: Card
  canEdit: boolean
  /** Its place among all cards, from 0. */
  place: number
  racks: Rack[]
  /** How it is addressed and put in is shown. */
  open: boolean
  onOpen: () => void
  /** Opens a form about the card. */
  form: (name: Form) => void
}

const CUT = { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' } as const

export function CardHead({ card, canEdit, place, racks, open, onOpen, form }: Props) {
  const { send } = usePick('send')
  const set = (values: { fixed?: boolean; rack_id?: string; slot?: number }) =>
    send(makeEdit('set-card', { device_id: card.id, ...values }))
  const move = (to: number) =>
    void send(makeEdit('move-cards', { device_ids: [card.id], to, address: false }))
  const button = (label: string, mark: string, act: () => void, disabled = false) => (
    <IconButton
      size="small"
      aria-label={`${label} ${card.tag}`}
      title={label}
      disabled={disabled}
      onClick={act}
      sx={{ color: 'inherit', fontSize: 13, p: 0.3, minWidth: 22, '&.Mui-disabled': { color: '#ffffff55' } }}
    >
      {mark}
    </IconButton>
  )
  return (
    <>
      <Box
        sx={{ display: 'flex', gap: 1, alignItems: 'center', bgcolor: INK, color: '#fff', px: 1, height: 32 }}
      >
        <b style={{ fontFamily: MONO, fontSize: 13, whiteSpace: 'nowrap' }}>{card.tag}</b>
        <span style={{ flex: 1, minWidth: 0, fontSize: 12, opacity: 0.85, ...CUT }}>
          {[card.part?.number, card.part?.text].filter(Boolean).join(' · ')}
        </span>
        <span style={{ fontFamily: MONO, fontSize: 12, whiteSpace: 'nowrap' }}>
          from {card.start}
          {card.fixed ? ', fixed' : ''}
        </span>
        {canEdit && card.changes > 0 && (
          <button
            onClick={() => form('again')}
            title="The list has changed since these channels were drawn"
            style={{ background: COPPER, color: '#fff', border: 0, borderRadius: 3, cursor: 'pointer' }}
          >
            {card.changes} changed
          </button>
        )}
        {canEdit && (
          <>
            {button(open ? 'Close addresses of' : 'Addresses, rack and slot of', open ? '▴' : '▾', onOpen)}
            {button('Earlier among the cards', '↑', () => move(place - 1), place === 0)}
            {button('Later among the cards', '↓', () => move(place + 1))}
            {button('Delete', '×', () => void send({ kind: 'delete-card', device_id: card.id }))}
          </>
        )}
      </Box>
      {canEdit && open && <Addressing {...{ card, racks, set }} />}
      {canEdit && open && (
        <Box sx={{ px: 1, height: 32, display: 'flex', gap: 0.75, alignItems: 'center' }}>
          <Act onClick={() => form('move')}>Move it…</Act>
          <Act onClick={() => form('draw')}>Draw its channels…</Act>
          <SheetLink sheetId={card.plan_id}>Card plan</SheetLink>
        </Box>
      )}
    </>
  )
}

interface AddressingProps {
  card: Card
  racks: Rack[]
  set: (values: { fixed?: boolean; rack_id?: string; slot?: number }) => void
}

/** How a card is addressed and from where, and where it is put in. */
function Addressing({ card, racks, set }: AddressingProps) {
  const { send } = usePick('send')
  const address = (scheme: Scheme, start: string) =>
    void send({ kind: 'address-card', device_id: card.id, scheme, start })
  return (
    <Box sx={{ display: 'flex', gap: 0.75, px: 1, height: 50, alignItems: 'center', color: QUIET }}>
      <Pick
        {...{ label: 'Addresses', margin: 'dense', value: card.scheme, options: SCHEMES }}
        sx={{ width: 150 }}
        onPick={(scheme) => address(scheme as Scheme, '')}
      />
      <Box sx={{ width: 86 }}>
        <Field label="From" mono value={card.start} onSave={(start) => address(card.scheme, start)} />
      </Box>
      <Pick
        {...{ label: 'Kept', margin: 'dense', value: card.fixed ? 'fixed' : 'free' }}
        options={[
          { id: 'free', name: 'addressed with others' },
          { id: 'fixed', name: 'fixed' },
        ]}
        sx={{ width: 130 }}
        onPick={(id) => set({ fixed: id === 'fixed' })}
      />
      {racks.length > 0 && (
        <>
          <Pick
            {...{ label: 'Rack', margin: 'dense', value: card.rack_id || 'none' }}
            options={[{ id: 'none', name: 'none' }, ...racks.map((r) => ({ id: r.rack_id, name: r.tag }))]}
            sx={{ width: 120 }}
            onPick={(id) => set({ rack_id: id === 'none' ? '' : id })}
          />
          <Box sx={{ width: 56 }}>
            <Field
              label="Slot"
              value={card.slot ? String(card.slot) : ''}
              onSave={(slot) => set({ slot: Math.max(0, Math.floor(Number(slot)) || 0) })}
            />
          </Box>
        </>
      )}
    </Box>
  )
}
