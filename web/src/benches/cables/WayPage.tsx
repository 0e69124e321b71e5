/** How long cables are from one location to another, what is added, and which voltage drops are too much. */
import Box from '@mui/material/Box'
import { useMemo } from 'react'
import { makeEdit } from '../../api/client'
import { Grid } from '../../kit/Grid'
import { PanelPick } from '../../kit/Pick'
import type { CellChange, Column } from '../../kit/gridData'
import { useOutline } from '../../project/useOutline'
import { lengthIn, lengthOf, noLength } from '../../kit/lengths'
import { Setting } from '../../project/Setting'
import { usePick } from '../../project/store'
import { useLengths } from '../../project/useLengths'
import { QUIET } from '../../theme/theme'
import { LAYINGS, type Laying } from './laying'
import type { Way } from './shapes'

type Line = Way & { id: string }
const nothing = () => undefined
const NONE = new Set<string>()

/** How cables are laid that say nothing else. */
function Method({ canEdit }: { canEdit: boolean }) {
  const { projectId, send } = usePick('projectId', 'send')
  const value = useOutline(projectId).data?.settings.laying_method ?? ''
  return (
    <PanelPick
      {...{ label: 'Laid', value, sx: { minWidth: 250 }, options: LAYINGS, disabled: !canEdit }}
      onPick={(id) => void send(makeEdit('change-settings', { laying_method: id as Laying }))}
    />
  )
}

export function WayPage({ ways, canEdit }: { ways: Way[]; canEdit: boolean }) {
  const { send, say } = usePick('send', 'say')
  const { long } = useLengths()
  const rows = useMemo(() => ways.map((w) => ({ ...w, id: `${w.a_id} ${w.b_id}` })), [ways])
  const columns: Column<Line>[] = [
    { key: 'a', name: 'From', width: 160, mono: true, text: (r) => r.a },
    { key: 'b', name: 'To', width: 160, mono: true, text: (r) => r.b },
    {
      key: 'length_m',
      name: `Length, ${long}`,
      width: 100,
      text: (r) => (r.length_m ? lengthOf(r.length_m * 1000, long) : ''),
      edit: () => canEdit,
    },
  ]
  const change = (changes: CellChange[]) => {
    for (const { id, value } of changes) {
      const way = rows.find((r) => r.id === id)
      const length = value.trim() === '' ? 0 : lengthIn(value, long)
      if (length === null) return say(noLength(value, long), 'error')
      if (way) void send({ kind: 'set-cable-way', a_id: way.a_id, b_id: way.b_id, length_m: length / 1000 })
    }
  }
  return (
    <Box sx={{ p: 2, display: 'flex', flexDirection: 'column', minHeight: 0, flex: 1 }}>
      <Box sx={{ fontSize: 16, fontWeight: 600 }}>Table of ways</Box>
      <Box sx={{ color: QUIET, fontSize: 12.5, mb: 1 }}>
        A cable whose length is not typed is as long as its way here, with the allowance. Pairs of locations
        stand here as soon as a cable runs between them.
      </Box>
      <Box sx={{ display: 'flex', gap: 1, maxWidth: 920 }}>
        <Setting name="cable_allowance_m" label="Allowance" canEdit={canEdit} />
        <Setting name="drop_warn_percent" label="Warn of a drop above, %" canEdit={canEdit} />
        <Setting name="drop_limit_percent" label="Limit of the drop, %" canEdit={canEdit} />
        <Setting name="ambient_c" label="Air around cables, °C" canEdit={canEdit} />
        <Method canEdit={canEdit} />
      </Box>
      <Grid
        name="Ways of cables"
        rows={rows}
        columns={columns}
        selected={NONE}
        onSelect={nothing}
        onChange={change}
      />
    </Box>
  )
}
