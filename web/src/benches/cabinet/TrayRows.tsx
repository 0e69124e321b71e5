/** Rows of the tray: what waits, and the order in which what is chosen lands. */
import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import ArrowDownwardIcon from '@mui/icons-material/ArrowDownward'
import ArrowUpwardIcon from '@mui/icons-material/ArrowUpward'
import { PartChoice } from '../../project/PartChoice'
import { useProject } from '../../project/store'
import { useLengths } from '../../project/useLengths'
import { COPPER, LINE, MONO, QUIET, SNAG } from '../../theme/theme'
import type { Waiting } from './shapes'

interface WaitsProps {
  waiting: Waiting
  /** Its place among what is chosen, 0 when it is not. */
  place: number
  canEdit: boolean
  ids: () => string[]
  toggle: () => void
  /** What is being dragged, [] when nothing is any more. */
  onCarry: (ids: string[]) => void
}

export function Waits({ waiting: w, place, canEdit, ids, toggle, onCarry }: WaitsProps) {
  const { bare } = useLengths()
  const blocked = !w.width
  const part = w.part ? 'its part has no outline' : 'no part chosen yet'
  const words = blocked ? part : `${w.part?.number ?? ''} ${bare(w.width)} × ${bare(w.height)}`
  return (
    <>
      <Box
        component="button"
        type="button"
        data-testid={`tray-${w.tag}`}
        disabled={!canEdit || blocked}
        aria-pressed={place > 0}
        draggable={canEdit && !blocked}
        onDragStart={(e: React.DragEvent) => {
          e.dataTransfer.setData('text/plain', ids().join(' '))
          onCarry(ids())
        }}
        onDragEnd={() => onCarry([])}
        onClick={toggle}
        sx={{
          display: 'block',
          width: '100%',
          textAlign: 'left',
          font: 'inherit',
          color: 'inherit',
          overflowWrap: 'anywhere',
          bgcolor: place ? '#F5DCC7' : '#fff',
          border: `1px solid ${place ? COPPER : LINE}`,
          borderRadius: 1,
          px: 1,
          py: 0.5,
          mb: 0.5,
          cursor: canEdit && !blocked ? 'grab' : 'default',
        }}
      >
        {place > 0 && <span style={{ color: COPPER, fontWeight: 700 }}>{place} </span>}
        <b style={{ fontFamily: MONO }}>{w.tag}</b> {w.text}
        <div style={{ fontSize: 11.5, color: blocked ? SNAG : QUIET }}>
          {words}
          {!w.sheet && ', planned'}
        </div>
      </Box>
      {canEdit && !w.part && w.class_key && (
        <PartChoice
          label={`Part of ${w.tag}`}
          partClass={w.class_key}
          onChoose={(p) =>
            void useProject.getState().send({ kind: 'assign-part', device_id: w.id, part_id: p.id })
          }
        />
      )}
    </>
  )
}

interface OrderProps {
  chosen: string[]
  waiting: Waiting[]
  onChoose: (ids: string[]) => void
}

/** What is chosen, in the order it lands from left to right; rows are dragged or moved by their arrows. */
export function Order({ chosen, waiting, onChoose }: OrderProps) {
  const move = (from: number, to: number) => {
    const next = [...chosen]
    next.splice(to, 0, ...next.splice(from, 1))
    onChoose(next)
  }
  return (
    <Box component="ol" aria-label="Order" sx={{ m: 0, mt: 0.5, pl: 2.5, fontSize: 12 }}>
      {chosen.map((id, n) => (
        <li
          key={id}
          draggable
          onDragStart={(e) => e.dataTransfer.setData('application/x-place', String(n))}
          onDragOver={(e) => e.preventDefault()}
          onDrop={(e) => {
            const from = e.dataTransfer.getData('application/x-place')
            if (from) move(Number(from), n)
          }}
        >
          <Box sx={{ display: 'flex', alignItems: 'center' }}>
            <span style={{ flex: 1, fontFamily: MONO }}>{waiting.find((w) => w.id === id)?.tag ?? ''}</span>
            <IconButton
              size="small"
              aria-label={`Earlier: ${n + 1}`}
              disabled={n === 0}
              onClick={() => move(n, n - 1)}
            >
              <ArrowUpwardIcon sx={{ fontSize: 14 }} />
            </IconButton>
            <IconButton
              size="small"
              aria-label={`Later: ${n + 1}`}
              disabled={n === chosen.length - 1}
              onClick={() => move(n, n + 1)}
            >
              <ArrowDownwardIcon sx={{ fontSize: 14 }} />
            </IconButton>
          </Box>
        </li>
      ))}
    </Box>
  )
}
