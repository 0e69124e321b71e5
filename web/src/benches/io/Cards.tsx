/** A PLC card with its channels, and choosing a new card. */
import { PanelPick, Pick } from '../../kit/Pick'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { COPPER, LINE, MONO, QUIET } from '../../theme/theme'
import { Heading } from '../../kit/Bench'
import { Field } from '../../kit/Field'
import { PartChoice } from '../../project/PartChoice'
import { usePlaces } from '../../project/PlaceChoice'
import { SheetLink } from '../../project/SheetLink'
import { TagChip } from '../../kit/TagChip'
import { useProject, usePick } from '../../project/store'
import type { Card } from './shapes'

interface Props {
  card: Card
  canEdit: boolean
  armed: boolean
  onChannel: (channel: number) => void
}

const SCHEMES = [
  { id: 'byte.bit', name: 'byte.bit' },
  { id: 'word', name: 'words' },
  { id: 'whole', name: 'whole numbers' },
]

export function CardBox({ card, canEdit, armed, onChannel }: Props) {
  const { send } = usePick('send')
  const address = (scheme: Card['scheme'], start: string) =>
    void send({ kind: 'address-card', device_id: card.id, scheme, start })
  return (
    <Box
      component="section"
      aria-label={`Card ${card.tag}`}
      sx={{ border: `1px solid ${LINE}`, bgcolor: '#fff', p: 1 }}
    >
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center', mb: 0.5 }}>
        <TagChip tag={card.tag} />
        <span style={{ flex: 1 }}>{card.part?.number}</span>
        {canEdit && (
          <Button color="inherit" onClick={() => void send({ kind: 'delete-card', device_id: card.id })}>
            Delete
          </Button>
        )}
      </Stack>
      <Stack direction="row" spacing={1}>
        <Pick
          margin="dense"
          label="Addresses"
          value={card.scheme}
          options={SCHEMES}
          disabled={!canEdit}
          sx={{ minWidth: 130 }}
          onPick={(scheme) => address(scheme as Card['scheme'], '')}
        />
        <Field
          label="From"
          mono
          value={card.start}
          disabled={!canEdit}
          onSave={(start) => address(card.scheme, start)}
        />
      </Stack>
      <Box sx={{ mt: 0.5 }}>
        {card.channels.map((c) => (
          <ChannelLine
            key={`${c.io_type}${c.channel}`}
            channel={c}
            armed={armed}
            put={() => onChannel(c.channel)}
          />
        ))}
      </Box>
      {canEdit && card.channels.some((c) => !c.symbol_id) && (
        <Box sx={{ fontSize: 11.5, color: QUIET, mt: 0.5 }}>
          To draw a channel, type “input” or “output” at the caret on a sheet and choose {card.tag}.
        </Box>
      )}
    </Box>
  )
}

export function NewCard({ cards }: { cards: number }) {
  const places = usePlaces()
  const [scheme, setScheme] = useState<Card['scheme'] | 'usual'>('usual')
  const [start, setStart] = useState('')
  const [part, setPart] = useState('')
  const [location, setLocation] = useState('')
  const inside = places.data?.locations.filter((l) => l.side === 'panel') ?? []
  const where = location || inside[0]?.id || ''
  const add = () =>
    void useProject.getState().send({
      kind: 'add-card',
      part_id: part,
      function_id: places.data?.functions[0]?.id ?? '',
      location_id: where,
      scheme: scheme === 'usual' ? null : scheme,
      start,
      text: '',
    })
  return (
    <Box component="section" aria-label="New card" sx={{ mt: 2 }}>
      <Heading>{cards ? 'Another card' : 'First card'}</Heading>
      <PartChoice label="Card part" partClass="plc-card" value={part} onChoose={(p) => setPart(p.id)} />
      <PanelPick label="Location" value={where} options={inside} onPick={setLocation} />
      <PanelPick
        label="Addresses"
        value={scheme}
        options={[{ id: 'usual', name: 'as usual for the card' }, ...SCHEMES]}
        onPick={(id) => setScheme(id as Card['scheme'] | 'usual')}
      />
      <TextField
        fullWidth
        margin="dense"
        label="First address (empty: goes on)"
        value={start}
        onChange={(e) => setStart(e.target.value)}
      />
      <Button variant="contained" disabled={!part} onClick={add} sx={{ mt: 0.5 }}>
        Add the card
      </Button>
    </Box>
  )
}

interface ChannelLineProps {
  channel: Card['channels'][number]
  armed: boolean
  put: () => void
}

function ChannelLine({ channel: c, armed, put }: ChannelLineProps) {
  const free = armed && !c.point_id
  return (
    <Box
      component={free ? 'button' : 'div'}
      type={free ? 'button' : undefined}
      aria-label={free ? `Put the chosen points on ${c.address} and on` : undefined}
      onClick={free ? put : undefined}
      sx={{
        display: 'flex',
        gap: 1,
        width: '100%',
        textAlign: 'left',
        font: 'inherit',
        fontSize: 12.5,
        color: 'inherit',
        px: 0.5,
        py: 0.3,
        border: 0,
        borderBottom: `1px solid ${LINE}`,
        bgcolor: free ? '#FBF1E9' : 'transparent',
        cursor: free ? 'pointer' : 'default',
        '&:hover': free ? { bgcolor: '#F5DCC7' } : undefined,
      }}
    >
      <span style={{ fontFamily: MONO, fontWeight: 600, width: 52 }}>{c.address}</span>
      <span style={{ flex: 1, color: c.point ? undefined : armed ? COPPER : QUIET }}>
        {c.point || (armed ? 'put here' : 'spare')}
      </span>
      <span style={{ fontFamily: MONO, color: QUIET }}>:{c.pins}</span>
      <SheetLink sheetId={c.sheet_id} select={c.symbol_id}>
        {c.place}
      </SheetLink>
    </Box>
  )
}
