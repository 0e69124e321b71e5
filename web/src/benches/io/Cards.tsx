/** A PLC card with its channels, and choosing a new card. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
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
        <TextField
          select
          margin="dense"
          label="Addresses"
          value={card.scheme}
          disabled={!canEdit}
          sx={{ minWidth: 130 }}
          onChange={(e) => address(e.target.value as Card['scheme'], '')}
        >
          <MenuItem value="byte.bit">byte.bit</MenuItem>
          <MenuItem value="word">words</MenuItem>
          <MenuItem value="whole">whole numbers</MenuItem>
        </TextField>
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
          <Box
            key={`${c.io_type}${c.channel}`}
            component={armed && !c.point_id ? 'button' : 'div'}
            type={armed && !c.point_id ? 'button' : undefined}
            aria-label={armed && !c.point_id ? `Put the chosen points on ${c.address} and on` : undefined}
            onClick={armed && !c.point_id ? () => onChannel(c.channel) : undefined}
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
              bgcolor: armed && !c.point_id ? '#FBF1E9' : 'transparent',
              cursor: armed && !c.point_id ? 'pointer' : 'default',
              '&:hover': armed && !c.point_id ? { bgcolor: '#F5DCC7' } : undefined,
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
      <TextField
        select
        fullWidth
        margin="dense"
        label="Location"
        value={inside.some((l) => l.id === where) ? where : ''}
        onChange={(e) => setLocation(e.target.value)}
      >
        {inside.map((l) => (
          <MenuItem key={l.id} value={l.id}>
            {l.name}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        fullWidth
        margin="dense"
        label="Addresses"
        value={scheme}
        onChange={(e) => setScheme(e.target.value as Card['scheme'] | 'usual')}
      >
        <MenuItem value="usual">as usual for the card</MenuItem>
        <MenuItem value="byte.bit">byte.bit</MenuItem>
        <MenuItem value="word">words</MenuItem>
        <MenuItem value="whole">whole numbers</MenuItem>
      </TextField>
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
