/** The I/O bench: the point list, cards with their channels, allocation in blocks, what is spare. */
import { useCommands } from '../../project/commands'
import { ioCommands } from './commands'
import type { BenchProps } from '../../project/bench'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import { useState } from 'react'
import { client, got } from '../../api/client'
import { MONO, QUIET, SNAG, TEAL } from '../../theme/theme'
import { Bench, Empty, Heading } from '../../kit/Bench'
import { Rows } from '../../kit/Rows'
import { Setting } from '../../project/Setting'
import { useBench } from '../../project/useBench'
import { useProject, usePick } from '../../project/store'
import { CardBox, NewCard } from './Cards'
import { PointFile } from './PointFile'
import type { IoView, Spare } from './shapes'

/** The points that are chosen when one more is clicked; with `range`, all from the last one on. */
function toggled(chosen: Set<string>, points: IoView['points'], id: string, range: boolean): Set<string> {
  const next = new Set(chosen)
  const last = [...chosen].at(-1)
  const [a, b] = [points.findIndex((p) => p.id === last), points.findIndex((p) => p.id === id)]
  if (range && a >= 0) for (const p of points.slice(Math.min(a, b), Math.max(a, b) + 1)) next.add(p.id)
  else if (!next.delete(id)) next.add(id)
  return next
}

export function IoBench({ canEdit }: BenchProps) {
  const projectId = useProject((s) => s.projectId)
  const { send } = usePick('send')
  const [chosen, setChosen] = useState<Set<string>>(new Set())
  const [reading, setReading] = useState(false)
  const view = useBench<IoView>('io', () =>
    got(client.GET('/api/projects/{project_id}/io', { params: { path: { project_id: projectId } } })),
  )
  const held = (view.data?.points ?? []).map((p) => p.id).filter((id) => chosen.has(id))
  useCommands(
    'I/O',
    ioCommands({
      read: () => setReading(true),
      free: () => void send({ kind: 'free-points', ids: held }),
      drop: () => setChosen(new Set()),
      some: held.length > 0,
    }),
  )
  if (!view.data) return <Empty>Reading the points…</Empty>
  const { points, cards, spare } = view.data
  const ids = held
  const toggle = (id: string, range: boolean) => setChosen(toggled(chosen, points, id, range))
  const allocate = (deviceId: string, channel: number) => {
    if (ids.length)
      void send({ kind: 'allocate-points', ids, device_id: deviceId, channel }).then(
        (answer) => answer && setChosen(new Set()),
      )
  }
  return (
    <Bench
      name="I/O"
      inspector={
        <>
          <Heading>Spare</Heading>
          <SpareTable spare={spare} wanted={view.data.spare_wanted} />
          <Setting name="spare_share_percent" label="Share to keep spare, %" canEdit={canEdit} />
          {canEdit && <NewCard cards={cards.length} />}
        </>
      }
    >
      <Box sx={{ flex: 1, overflow: 'auto', p: 1.5 }}>
        <PointsHead ids={ids} canEdit={canEdit} read={() => setReading(!reading)} />
        {reading && <PointFile close={() => setReading(false)} />}
        {points.length === 0 && !reading && (
          <Empty>
            No points yet. Take in a list from a spreadsheet (CSV or XLSX) with the headings Tag, Text, Type
            and Connected to.
          </Empty>
        )}
        {points.length > 0 && <Points {...{ points, chosen, toggle }} />}
        <CardList {...{ cards, canEdit, allocate }} armed={ids.length > 0} />
      </Box>
    </Bench>
  )
}

function SpareTable({ spare, wanted }: { spare: Spare[]; wanted: number }) {
  if (!spare.length) return <Box sx={{ color: QUIET, px: 0.75 }}>nothing to count yet</Box>
  return (
    <>
      <Rows label="Spare" columns={['Type', 'Points', 'Channels', 'Free']}>
        {spare.map((s) => (
          <tr key={s.io_type} title={`${s.points} points and ${wanted} % to spare need ${s.needed} channels`}>
            <td style={{ fontFamily: MONO }}>{s.io_type}</td>
            <td>{s.points}</td>
            <td style={{ color: s.channels < s.needed ? SNAG : undefined }}>
              {s.channels} of {s.needed}
            </td>
            <td style={{ fontWeight: 600 }}>{s.channels ? `${s.spare_percent} %` : '-'}</td>
          </tr>
        ))}
      </Rows>
      <Box sx={{ fontSize: 12, color: QUIET, mt: 0.5, px: 0.75 }}>
        “of” counts the points and {wanted} % to spare, rounded up.
      </Box>
    </>
  )
}

interface PointsHeadProps {
  ids: string[]
  canEdit: boolean
  read: () => void
}

function PointsHead({ ids, canEdit, read }: PointsHeadProps) {
  const { send } = usePick('send')
  return (
    <Stack direction="row" spacing={1} sx={{ mb: 1, alignItems: 'center' }}>
      <Box component="h1" sx={{ fontSize: 16, m: 0, flex: 1 }}>
        Points
      </Box>
      {canEdit && ids.length > 0 && (
        <>
          <span style={{ color: QUIET }}>
            {ids.length} chosen: click a free channel below to put them there
          </span>
          <Button onClick={() => void send({ kind: 'free-points', ids })}>Take off their channels</Button>
          <Button color="error" onClick={() => void send({ kind: 'delete-points', ids })}>
            Delete
          </Button>
        </>
      )}
      {canEdit && (
        <Button variant="outlined" onClick={read}>
          Take in a list…
        </Button>
      )}
    </Stack>
  )
}

interface PointsProps {
  points: IoView['points']
  chosen: Set<string>
  toggle: (id: string, range: boolean) => void
}

function Points({ points, chosen, toggle }: PointsProps) {
  return (
    <Rows
      label="Points"
      columns={[
        { name: '', width: 24 },
        { name: 'Tag', width: 80 },
        'Text',
        { name: 'Type', width: 44 },
        'Connected',
        { name: 'Address', width: 70 },
        { name: 'Card', width: 130 },
      ]}
    >
      {points.map((p) => (
        <tr key={p.id} onClick={(e) => toggle(p.id, e.shiftKey)} style={{ cursor: 'pointer' }}>
          <td>
            <input
              type="checkbox"
              checked={chosen.has(p.id)}
              aria-label={`Choose ${p.tag}`}
              onClick={(e) => e.stopPropagation()}
              onChange={() => toggle(p.id, false)}
            />
          </td>
          <td style={{ fontFamily: MONO, fontWeight: 600 }}>{p.tag}</td>
          <td>{p.text}</td>
          <td style={{ fontFamily: MONO }}>{p.io_type}</td>
          <td>{p.connected}</td>
          <td style={{ fontFamily: MONO, color: TEAL }}>{p.address}</td>
          <td style={{ fontFamily: MONO, color: p.card ? undefined : SNAG }}>
            {p.card ? `${p.card} · ${p.channel}` : 'waits'}
          </td>
        </tr>
      ))}
    </Rows>
  )
}

interface CardListProps {
  cards: IoView['cards']
  canEdit: boolean
  armed: boolean
  allocate: (deviceId: string, channel: number) => void
}

function CardList({ cards, canEdit, armed, allocate }: CardListProps) {
  return (
    <>
      <Box component="h2" sx={{ fontSize: 16, mt: 2.5, mb: 1 }}>
        Cards
      </Box>
      {cards.length === 0 && <Empty>No card yet. Choose one from the library on the right.</Empty>}
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(330px, 1fr))', gap: 1.5 }}>
        {cards.map((card) => (
          <CardBox
            key={card.id}
            card={card}
            canEdit={canEdit}
            armed={armed}
            onChannel={(channel) => allocate(card.id, channel)}
          />
        ))}
      </Box>
    </>
  )
}
