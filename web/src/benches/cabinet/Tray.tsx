/** The tray: what the project has that is not placed, in groups; what is chosen is put down in an order one can change. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import FormControlLabel from '@mui/material/FormControlLabel'
import Switch from '@mui/material/Switch'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { Heading } from '../../kit/Bench'
import { PanelPick, plain } from '../../kit/Pick'
import { LengthField } from '../../project/LengthField'
import { PartChoice } from '../../project/PartChoice'
import { LINE, QUIET } from '../../theme/theme'
import { BY, grouped, type By } from './trayGroups'
import { Order, Waits } from './TrayRows'
import type { SurfaceName, Waiting } from './shapes'

interface Props {
  waiting: Waiting[]
  /** An enclosure is there, so that something can be placed. */
  laidOut: boolean
  surface: SurfaceName
  chosen: string[]
  canEdit: boolean
  /** Between those that are placed in a row, mm. */
  gap: number
  onGap: (gap: number) => void
  push: boolean
  onPush: (push: boolean) => void
  onChoose: (ids: string[]) => void
  onCarry: (ids: string[]) => void
  /** A device with this part is placed that is drawn later. */
  onPlan: (part: string) => void
}

/** Devices of the plate may stand on any surface but the door; what goes into a hole waits for the door. */
const isFor = (w: Waiting, surface: SurfaceName) => (surface === 'door') === (w.surface === 'door')

export function Tray(props: Props) {
  const { waiting, laidOut, surface, chosen, canEdit, onChoose, onPlan } = props
  const [by, setBy] = useState<By>('circuit')
  const [search, setSearch] = useState('')
  const mine = waiting.filter((w) => isFor(w, surface))
  const others = waiting.length - mine.length
  const groups = grouped(mine, by, search)
  const ready = groups.flatMap((g) => g.waiting).filter((w) => w.width > 0)
  const toggle = (id: string) =>
    onChoose(chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id])
  return (
    <Box component="section" aria-label="Tray">
      <Heading>{`Tray: ${waiting.length} not placed`}</Heading>
      {mine.length > 1 && <Narrow {...{ by, setBy, search, setSearch }} />}
      {groups.map((g) => (
        <Box key={g.name}>
          <Box sx={{ fontSize: 12.5, fontWeight: 600, px: 0.75, mt: 1, mb: 0.5 }}>{g.name}</Box>
          {g.waiting.map((w) => (
            <Waits
              key={w.id}
              waiting={w}
              place={chosen.indexOf(w.id) + 1}
              canEdit={canEdit}
              ids={() => (chosen.includes(w.id) ? chosen : [w.id])}
              toggle={() => toggle(w.id)}
              onCarry={props.onCarry}
            />
          ))}
        </Box>
      ))}
      {ready.length > 1 && canEdit && (
        <Button onClick={() => onChoose(chosen.length === ready.length ? [] : ready.map((w) => w.id))}>
          {chosen.length === ready.length ? 'Choose none' : `Choose all ${ready.length}`}
        </Button>
      )}
      {canEdit && <Landing {...props} ready={mine} />}
      {canEdit && (
        <Box component="section" aria-label="Plan a device" sx={{ mt: 1 }}>
          <PartChoice label="Plan one not drawn yet" partClass="" onChoose={(p) => onPlan(p.id)} />
        </Box>
      )}
      {!mine.length && (
        <Box sx={{ px: 0.75, color: QUIET }}>
          {laidOut
            ? `everything for the ${surface === 'door' ? 'door' : 'plate'} is placed`
            : `what is drawn for the plate waits here; add an enclosure to place it`}
        </Box>
      )}
      {others > 0 && (
        <Box sx={{ px: 0.75, mt: 1, color: QUIET, fontSize: 12 }}>
          {others} more for the {surface === 'door' ? 'plate' : 'door'}
        </Box>
      )}
    </Box>
  )
}

interface NarrowProps {
  by: By
  setBy: (by: By) => void
  search: string
  setSearch: (words: string) => void
}

function Narrow({ by, setBy, search, setSearch }: NarrowProps) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 0.5 }}>
      <PanelPick label="By" value={by} options={plain(BY)} onPick={(id) => setBy(id as By)} />
      <TextField
        margin="dense"
        label="Find in the tray"
        value={search}
        onChange={(e) => setSearch(e.target.value)}
      />
    </Box>
  )
}

/** How what is chosen lands: in which order, how far apart, pushing what is there along. */
function Landing({ chosen, ready, gap, onGap, push, onPush, onChoose }: Props & { ready: Waiting[] }) {
  if (!chosen.length) return null
  return (
    <Box sx={{ border: `1px solid ${LINE}`, bgcolor: '#FFF6EA', borderRadius: 1, p: 1, mt: 1 }}>
      <Box sx={{ fontSize: 12.5, fontWeight: 600 }}>
        {chosen.length > 1 ? 'Placed in this order' : 'Click where it goes'}
      </Box>
      {chosen.length > 1 && <Order chosen={chosen} waiting={ready} onChoose={onChoose} />}
      {chosen.length > 1 && (
        <>
          <LengthField label="Gap between them" value={gap} onSave={(wide) => onGap(Math.max(0, wide))} />
          <span style={{ fontSize: 11.5, color: QUIET }}>clearances of their parts are kept</span>
        </>
      )}
      <FormControlLabel
        control={<Switch size="small" checked={push} onChange={(e) => onPush(e.target.checked)} />}
        label={<span style={{ fontSize: 12 }}>Push what is there along</span>}
      />
    </Box>
  )
}
