/** The tray: what the project has that is not placed. Choose one or several and click on the plan, or drag them there. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { COPPER, LINE, MONO, QUIET, SNAG } from '../../theme/theme'
import { Heading } from '../../kit/Bench'
import type { SurfaceName, Waiting } from './shapes'

interface Props {
  waiting: Waiting[]
  /** An enclosure is there, so that something can be placed. */
  laidOut: boolean
  surface: SurfaceName
  chosen: string[]
  canEdit: boolean
  gap: string
  onGap: (gap: string) => void
  onChoose: (ids: string[]) => void
}

export function Tray({ waiting, laidOut, surface, chosen, canEdit, gap, onGap, onChoose }: Props) {
  const mine = waiting.filter((w) => w.surface === surface)
  const others = waiting.length - mine.length
  const ready = mine.filter((w) => w.width > 0)
  const toggle = (id: string) =>
    onChoose(chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id])
  return (
    <Box component="section" aria-label="Tray">
      <Heading>{`Tray: ${waiting.length} not placed`}</Heading>
      {mine.map((w) => (
        <Waits
          key={w.id}
          waiting={w}
          chosen={chosen.includes(w.id)}
          canEdit={canEdit}
          ids={() => (chosen.includes(w.id) ? chosen : [w.id])}
          toggle={() => toggle(w.id)}
        />
      ))}
      {ready.length > 1 && canEdit && (
        <Button onClick={() => onChoose(chosen.length === ready.length ? [] : ready.map((w) => w.id))}>
          {chosen.length === ready.length ? 'Choose none' : `Choose all ${ready.length}`}
        </Button>
      )}
      {mine.length > 1 && canEdit && (
        <TextField
          fullWidth
          margin="dense"
          label="Gap between them, mm"
          value={gap}
          onChange={(e) => onGap(e.target.value)}
        />
      )}
      {!mine.length && (
        <Box sx={{ px: 0.75, color: QUIET }}>
          {laidOut
            ? `everything for the ${surface} is placed`
            : `what is drawn for the ${surface} waits here; add an enclosure to place it`}
        </Box>
      )}
      {others > 0 && (
        <Box sx={{ px: 0.75, mt: 1, color: QUIET, fontSize: 12 }}>
          {others} more for the {surface === 'plate' ? 'door' : 'plate'}
        </Box>
      )}
    </Box>
  )
}

interface WaitsProps {
  waiting: Props['waiting'][number]
  chosen: boolean
  canEdit: boolean
  ids: () => string[]
  toggle: () => void
}

function Waits({ waiting: w, chosen, canEdit, ids, toggle }: WaitsProps) {
  const blocked = !w.width
  const part = w.part ? 'its part has no outline' : 'no part chosen yet'
  const words = blocked ? part : `${w.part?.number ?? ''} ${w.width} × ${w.height}`
  return (
    <Box
      component="button"
      type="button"
      data-testid={`tray-${w.tag}`}
      disabled={!canEdit || blocked}
      aria-pressed={chosen}
      draggable={canEdit && !blocked}
      onDragStart={(e: React.DragEvent) => {
        e.dataTransfer.setData('text/plain', ids().join(' '))
      }}
      onClick={toggle}
      sx={{
        display: 'block',
        width: '100%',
        textAlign: 'left',
        font: 'inherit',
        color: 'inherit',
        bgcolor: chosen ? '#F5DCC7' : '#fff',
        border: `1px solid ${chosen ? COPPER : LINE}`,
        borderRadius: 1,
        px: 1,
        py: 0.5,
        mb: 0.5,
        cursor: canEdit && !blocked ? 'grab' : 'default',
      }}
    >
      <b style={{ fontFamily: MONO }}>{w.tag}</b> {w.text}
      <div style={{ fontSize: 11.5, color: blocked ? SNAG : QUIET }}>{words}</div>
    </Box>
  )
}
