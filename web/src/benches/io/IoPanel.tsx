/** What is said of the points or the channel in hand: what they would get, and the acts for them. */
import Box from '@mui/material/Box'
import { makeEdit } from '../../api/client'
import { Act, Acts } from '../../kit/Act'
import { PanelPick } from '../../kit/Pick'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'
import { TagChip } from '../../kit/TagChip'
import { usePreview } from '../../project/usePreview'
import { MONO, QUIET, SNAG, TEAL } from '../../theme/theme'
import { kindOf, type IoType, type IoView, type Point } from './shapes'
import { spotNamed } from './commands'
import type { Act as Doing } from './useAllocating'
import type { Io, Order } from './useIo'

interface Props {
  io: Io
  view: IoView
  canEdit: boolean
  doing: Doing
}

export function IoPanel({ io, view, canEdit, doing }: Props) {
  const points = view.points.filter((p) => io.chosen.has(p.id))
  const spot = spotNamed(view, io.channel)
  return (
    <>
      {points.length > 0 && <Chosen points={points} />}
      {spot && io.page === 'allocate' && (
        <Section title="Channel in hand">
          <Box sx={{ fontSize: 12.5 }}>
            <b style={{ fontFamily: MONO, color: TEAL }}>{spot.row.address}</b> {spot.row.point || 'spare'}{' '}
            {spot.row.text}
          </Box>
        </Section>
      )}
      {points.length > 1 && io.page === 'allocate' && (
        <PanelPick
          label="One after another"
          value={io.order}
          options={ORDERS}
          onPick={(id) => io.setOrder(id as Order)}
        />
      )}
      {points.length > 0 && spot && !spot.row.point_id && <WillBe {...{ points, spot }} order={io.order} />}
      {canEdit && points.length > 0 && <PointActs {...{ io, view, doing, points, spot }} />}
      {!points.length && !spot && (
        <Box sx={{ fontSize: 12.5, color: QUIET }}>
          Choose points and drag them onto a channel; several go one after another from there on. A channel
          dragged onto another one exchanges what they serve.
        </Box>
      )}
    </>
  )
}

function Chosen({ points }: { points: Point[] }) {
  const first = points[0]!
  const kinds = [...new Set(points.map(kindOf))].join(', ')
  const name = points.length > 1 ? `${first.tag}…${points.at(-1)!.tag}` : first.tag
  return (
    <Box sx={{ mb: 1 }}>
      <TagChip tag={name} />{' '}
      <span style={{ fontSize: 12.5 }}>
        {points.length > 1 ? `${points.length} points, ` : ''}
        {kinds}
      </span>
      {points.length === 1 && (
        <Box sx={{ fontSize: 12.5, mt: 0.5 }}>
          {first.text}
          <Box sx={{ color: QUIET }}>
            {[first.device, first.connected, first.signal, first.location].filter(Boolean).join(' · ')}
          </Box>
        </Box>
      )}
    </Box>
  )
}

interface WillBeProps {
  points: Point[]
  spot: NonNullable<ReturnType<typeof spotNamed>>
  order: Order
}

const ORDERS = [
  { id: 'list', name: 'as in the list' },
  { id: 'drawn', name: 'as they are drawn' },
  { id: 'named', name: 'as they were chosen' },
]

/** What the points would be addressed by from a channel on, or why they cannot be put there. */
function WillBe({ points, spot, order }: WillBeProps) {
  const edit = makeEdit('allocate-points', {
    ...{ ids: points.map((p) => p.id), device_id: spot.card, channel: spot.row.channel },
    io_type: spot.row.io_type as IoType,
    order,
  })
  const preview = usePreview(edit)
  const problem = preview.error instanceof Error ? preview.error.message : ''
  const rows = preview.data?.table ?? []
  return (
    <Section title="They will be">
      {problem && <Box sx={{ color: SNAG, fontSize: 12.5 }}>{problem}</Box>}
      {!problem &&
        rows.slice(0, 40).map(([tag, , address]) => (
          <Box key={tag} sx={{ display: 'flex', fontFamily: MONO, fontSize: 12.5 }}>
            <b style={{ flex: 1 }}>{tag}</b>
            <span style={{ color: TEAL }}>{address}</span>
          </Box>
        ))}
    </Section>
  )
}

interface ActsProps extends Omit<Props, 'canEdit'> {
  points: IoView['points']
  spot: ReturnType<typeof spotNamed>
}

/** What can be done with the points that are chosen. */
function PointActs({ io, view, doing, points, spot }: ActsProps) {
  const { send } = usePick('send')
  const onChannels = points.filter((p) => p.card)
  return (
    <Acts>
      {spot && (
        <Act hint="Enter" onClick={() => doing.put([...io.chosen], spot)}>
          Put them there
        </Act>
      )}
      <Act hint="F" disabled={!onChannels.length} onClick={() => doing.free(onChannels.map((p) => p.id))}>
        Take off their channels
      </Act>
      <Act
        disabled={!onChannels.length}
        onClick={() =>
          doing.fix(
            onChannels.map((p) => p.id),
            onChannels.some((p) => !p.fixed),
          )
        }
      >
        {onChannels.length && onChannels.every((p) => p.fixed) ? 'Release' : 'Fix on their channels'}
      </Act>
      {points.length === 1 && view.drawn.some((d) => d.io_type === points[0]!.io_type) && (
        <Act onClick={() => io.open('tie')}>Say where it is drawn…</Act>
      )}
      <Act hint="Delete" onClick={() => void send({ kind: 'delete-points', ids: [...io.chosen] })}>
        {points.length > 1 ? `Delete ${points.length} points` : 'Delete the point'}
      </Act>
    </Acts>
  )
}
