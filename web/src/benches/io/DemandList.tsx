/** What is needed and there, by type and place, the cards that would cover it, and the racks. */
import Box from '@mui/material/Box'
import { Act, Acts } from '../../kit/Act'
import { Heading } from '../../kit/Bench'
import { PanelPick } from '../../kit/Pick'
import { makeEdit } from '../../api/client'
import { usePlaces } from '../../project/PlaceChoice'
import { Setting } from '../../project/Setting'
import { usePick } from '../../project/store'
import { useLengths } from '../../project/useLengths'
import { COPPER, LINE, MONO, QUIET, SNAG, TEAL } from '../../theme/theme'
import { kindOf, type IoView, type Need, type Rack } from './shapes'
import type { By, Io } from './useIo'

const COUNTED: { id: By; name: string }[] = [
  { id: '', name: 'all together' },
  { id: 'location', name: 'by location' },
  { id: 'function', name: 'by function' },
]

export function DemandList({ io, view, canEdit }: { io: Io; view: IoView; canEdit: boolean }) {
  return (
    <>
      <Heading>Demand</Heading>
      <Box sx={{ px: 0.75 }}>
        <PanelPick
          label="Counted"
          value={io.by || 'all'}
          options={COUNTED.map((c) => ({ ...c, id: c.id || 'all' }))}
          onPick={(id) => io.setBy(id === 'all' ? '' : (id as By))}
        />
        {!view.needs.length && (
          <Box sx={{ fontSize: 12.5, color: QUIET }}>No point and no card to count yet.</Box>
        )}
        {view.needs.map((n) => (
          <NeedLine key={`${n.io_type} ${n.sort} ${n.place_id}`} {...{ need: n, by: io.by, canEdit }} />
        ))}
        <Setting name="spare_share_percent" label="Share to keep spare, %" canEdit={canEdit} />
        <Setting name="comment_limit" label="Longest text, letters (0: any)" canEdit={canEdit} />
        {view.makers.length > 1 && (
          <PanelPick
            label="Cards of"
            value={view.maker}
            options={view.makers.map((m) => ({ id: m, name: m }))}
            onPick={io.setMaker}
          />
        )}
      </Box>
      <Heading>Racks</Heading>
      <Box sx={{ px: 0.75 }}>
        {view.racks.map((r) => (
          <RackLine key={r.rack_id} rack={r} canEdit={canEdit} />
        ))}
        {!view.racks.length && <Box sx={{ fontSize: 12.5, color: QUIET }}>none yet</Box>}
        {canEdit && (
          <Acts>
            <Act onClick={() => io.open('card')}>Add a card…</Act>
            <Act onClick={() => io.open('rack')}>Add a rack…</Act>
          </Acts>
        )}
      </Box>
    </>
  )
}

interface NeedProps {
  need: Need
  by: By
  canEdit: boolean
}

/** One type at one place: a bar of how full its channels are, and the cards that would cover what lacks. */
function NeedLine({ need: n, by, canEdit }: NeedProps) {
  const { send } = usePick('send')
  const places = usePlaces().data
  const inside = places?.locations.find((p) => p.side === 'panel')?.id ?? ''
  const name = `${kindOf(n)}${by ? ` ${n.place || 'no place'}` : ''}`
  const add = () =>
    void send(
      makeEdit('add-cards', {
        cards: n.cards.map((c) => ({ part_id: c.part.id, count: c.count })),
        location_id: by === 'location' && n.place_id ? n.place_id : inside,
        function_id: by === 'function' ? n.place_id : (places?.functions[0]?.id ?? ''),
      }),
    )
  return (
    <Box component="section" aria-label={`Demand ${name}`} sx={{ mb: 1 }}>
      <Box sx={{ display: 'flex', fontSize: 12.5 }}>
        <b style={{ fontFamily: MONO, minWidth: 26 }}>{name}</b>
        <span style={{ flex: 1, marginLeft: 6 }}>
          {n.points} point{n.points === 1 ? '' : 's'}
        </span>
        <span style={{ color: n.lacking ? SNAG : QUIET }}>
          {n.channels} of {n.needed}
        </span>
      </Box>
      <Box
        title={`${n.allocated} of ${n.channels} channels are taken; ${n.needed} are needed with the spare share`}
        sx={{ height: 7, border: `1px solid ${LINE}`, borderRadius: 1, bgcolor: '#fff', overflow: 'hidden' }}
      >
        <Box
          sx={{
            height: 1,
            width: `${n.channels ? Math.min(100, (100 * n.allocated) / n.channels) : 0}%`,
            bgcolor: TEAL,
          }}
        />
      </Box>
      {n.lacking > 0 && <Proposal need={n} add={canEdit ? add : null} />}
    </Box>
  )
}

/** The cards that would cover what lacks. */
function Proposal({ need: n, add }: { need: Need; add: (() => void) | null }) {
  return (
    <Box
      sx={{
        mt: 0.5,
        p: 0.75,
        fontSize: 12,
        border: `1px solid ${COPPER}55`,
        borderRadius: 1,
        bgcolor: '#FDF6EE',
      }}
    >
      {n.cards.length ? (
        <>
          <b>{n.cards.map((c) => `${c.count} × ${c.part.number}`).join(' and ')}</b> would leave{' '}
          {n.spare_then} % spare.
          {add && (
            <Acts>
              <Act onClick={add}>Add</Act>
            </Acts>
          )}
        </>
      ) : (
        `${n.lacking} channel${n.lacking === 1 ? '' : 's'} lack; no card of this maker has them${
          n.signals.length ? ` for ${n.signals.join(' and ')}` : ''
        }.`
      )}
    </Box>
  )
}

function RackLine({ rack: r, canEdit }: { rack: Rack; canEdit: boolean }) {
  const { bare, said } = useLengths()
  const { send } = usePick('send')
  const facts = [
    r.slots ? `${r.cards} of ${r.slots} slots` : `${r.cards} cards`,
    r.supply_a ? `${r.load_a} of ${r.supply_a} A` : '',
    r.room_mm ? `${bare(r.width_mm)} of ${said(r.room_mm)}` : '',
  ]
  return (
    <Box component="section" aria-label={`Rack ${r.tag}`} sx={{ mb: 0.75, fontSize: 12.5 }}>
      <b style={{ fontFamily: MONO }}>{r.tag}</b> {r.location}
      <Box sx={{ color: QUIET, fontSize: 11.5 }}>{facts.filter(Boolean).join(' · ')}</Box>
      {r.faults.map((f) => (
        <Box key={f} sx={{ color: SNAG, fontSize: 11.5 }}>
          {f}
        </Box>
      ))}
      {canEdit && r.cards === 0 && (
        <Act onClick={() => void send({ kind: 'delete-rack', rack_id: r.rack_id })}>Delete</Act>
      )}
    </Box>
  )
}
