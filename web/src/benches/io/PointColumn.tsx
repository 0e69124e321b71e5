/** The points that wait for a channel, or all: chosen one by one or in a block, and dragged together. */
import Box from '@mui/material/Box'
import { useMemo } from 'react'
import { Act } from '../../kit/Act'
import { Windowed } from '../../kit/Windowed'
import { COPPER, LINE, MONO, QUIET } from '../../theme/theme'
import { kindOf, matches, type Point } from './shapes'
import type { Act as Doing } from './useAllocating'
import type { Io } from './useIo'

interface Props {
  io: Io
  points: Point[]
  filter: string
  all: boolean
  showAll: (all: boolean) => void
  canEdit: boolean
  doing: Doing
}

/** The points chosen when one is clicked: it alone, more with Ctrl, all from the last one on with Shift. */
function picked(chosen: Set<string>, points: Point[], id: string, e: React.MouseEvent): Set<string> {
  if (e.shiftKey && chosen.size) {
    const ends = [[...chosen].at(-1)!, id].map((x) => points.findIndex((p) => p.id === x)) as [number, number]
    const [a, b] = [Math.min(...ends), Math.max(...ends)]
    if (a >= 0) return new Set([...chosen, ...points.slice(a, b + 1).map((p) => p.id)])
  }
  if (!e.ctrlKey && !e.metaKey) return new Set([id])
  const next = new Set(chosen)
  if (!next.delete(id)) next.add(id)
  return next
}

export function PointColumn({ io, points, filter, all, showAll, canEdit, doing }: Props) {
  const shown = useMemo(() => (filter ? points.filter((p) => matches(p, filter)) : points), [points, filter])
  const waiting = shown.filter((p) => !p.card)
  return (
    <Box
      component="section"
      aria-label="Points"
      sx={{ width: 330, flexShrink: 0, display: 'flex', flexDirection: 'column', bgcolor: '#fff' }}
      style={{ borderRight: `1px solid ${LINE}` }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.75, p: 1, fontSize: 12.5 }}>
        <b style={{ flex: 1 }}>
          {all ? `Points · ${shown.length}` : `Points without a channel · ${shown.length}`}
        </b>
        <Act onClick={() => showAll(!all)}>{all ? 'Those that wait' : 'All'}</Act>
        {canEdit && (
          <Act
            disabled={!waiting.length}
            hint="A machine's points together, with spares left at the end of each card"
            onClick={() => doing.suggest(io.chosen.size ? [...io.chosen] : waiting.map((p) => p.id))}
          >
            Suggest
          </Act>
        )}
      </Box>
      <Windowed items={shown} heightOf={pointHeight} role="listbox" name="Points to allocate">
        {(p) => (
          <PointLine
            key={p.id}
            point={p}
            chosen={io.chosen.has(p.id)}
            canEdit={canEdit}
            onPick={(e) => io.choose(picked(io.chosen, shown, p.id, e))}
            onLift={() => {
              if (!io.chosen.has(p.id)) io.choose(new Set([p.id]))
              doing.setFrom(null)
            }}
          />
        )}
      </Windowed>
      {!shown.length && (
        <Box sx={{ p: 2, color: QUIET, fontSize: 12.5, flex: 1000 }}>
          {points.length ? 'Nothing in the list is called so.' : 'Every point has a channel.'}
        </Box>
      )}
      {io.chosen.size > 0 && canEdit && (
        <Box sx={{ p: 1, fontSize: 12, color: COPPER, borderTop: `1px solid ${LINE}` }}>
          {io.chosen.size} chosen · drag onto a channel, or choose one and press Enter
        </Box>
      )}
    </Box>
  )
}

interface LineProps {
  point: Point
  chosen: boolean
  canEdit: boolean
  onPick: (e: React.MouseEvent) => void
  onLift: () => void
}

const POINT_PX = 42
const pointHeight = () => POINT_PX

const LOOK = {
  display: 'flex',
  gap: 8,
  padding: '4px 8px',
  fontSize: 12.5,
  borderBottom: `1px solid ${LINE}`,
  height: POINT_PX,
  boxSizing: 'border-box',
  overflow: 'hidden',
  lineHeight: 1.25,
} as const
const SORT_LOOK = { fontFamily: MONO, fontSize: 11, border: `1px solid ${LINE}`, padding: '0 4px' }

const CUT = { overflow: 'hidden', whiteSpace: 'nowrap', textOverflow: 'ellipsis' } as const

/** Plain elements: there may be thousands of them. */
function PointLine({ point: p, chosen, canEdit, onPick, onLift }: LineProps) {
  const second = [p.device, p.connected, p.location].filter(Boolean).join(' · ')
  return (
    <div
      role="option"
      aria-selected={chosen}
      aria-label={`${p.tag} ${p.text}`}
      draggable={canEdit}
      onDragStart={(e) => {
        e.dataTransfer.setData('text/plain', p.tag)
        onLift()
      }}
      onClick={onPick}
      style={{ ...LOOK, background: chosen ? '#F7E4D6' : undefined, cursor: canEdit ? 'grab' : 'default' }}
    >
      <b style={{ fontFamily: MONO, width: 62, overflow: 'hidden', textOverflow: 'ellipsis' }}>{p.tag}</b>
      <div style={{ flex: 1, minWidth: 0 }}>
        <div style={CUT}>{p.text}</div>
        {second && <div style={{ ...CUT, fontSize: 11, color: QUIET }}>{second}</div>}
      </div>
      <div style={{ textAlign: 'right' }}>
        <span style={SORT_LOOK}>{kindOf(p)}</span>
        {p.address && (
          <div style={{ fontFamily: MONO, fontSize: 11, color: QUIET, marginTop: 2 }}>{p.address}</div>
        )}
      </div>
    </div>
  )
}
