/** The routed connections with their lengths; the chosen one is drawn on the plan. */
import ExpandLessIcon from '@mui/icons-material/ExpandLess'
import ExpandMoreIcon from '@mui/icons-material/ExpandMore'
import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import { useState } from 'react'
import { COPPER, LINE, MONO, SNAG } from '../../theme/theme'
import { LongRows } from '../../kit/LongRows'
import { SheetLink } from '../../project/SheetLink'
import type { Route } from './shapes'

interface Props {
  routes: Route[]
  /** How many of them are routed, in words. */
  routed: string
  /** The keys of those chosen. */
  wires: string[]
  onWire: (key: string, add: boolean) => void
}

export function RouteTable({ routes, routed, wires, onWire }: Props) {
  const [open, setOpen] = useState(true)
  return (
    <Box
      component="section"
      aria-label="Ledger"
      sx={{
        height: open ? 152 : 34,
        borderTop: `1px solid ${LINE}`,
        bgcolor: '#fff',
        display: 'flex',
        flexDirection: 'column',
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', px: 1.5, minHeight: 34, fontSize: 13 }}>
        <span style={{ flex: 1 }} data-testid="routed">
          {routed}
        </span>
        <IconButton
          size="small"
          aria-label={open ? 'Fold the ledger' : 'Unfold the ledger'}
          onClick={() => setOpen(!open)}
        >
          {open ? <ExpandMoreIcon fontSize="small" /> : <ExpandLessIcon fontSize="small" />}
        </IconButton>
      </Box>
      {open && (
        <LongRows
          label="Routes"
          columns={['Wire', 'From', 'To', 'Type', 'Through', { name: 'Length', align: 'right' }, 'Sheet']}
          rows={routes}
        >
          {(r) => (
            <RouteRow
              key={r.key}
              row={r}
              chosen={wires.includes(r.key)}
              choose={(add) => onWire(r.key, add)}
            />
          )}
        </LongRows>
      )}
    </Box>
  )
}

interface RouteRowProps {
  row: Route
  chosen: boolean
  choose: (add: boolean) => void
}

function RouteRow({ row: r, chosen, choose }: RouteRowProps) {
  return (
    <tr
      onClick={(e) => choose(e.ctrlKey || e.shiftKey || e.metaKey)}
      aria-selected={chosen}
      style={{ cursor: 'pointer', background: chosen ? '#F5E2D3' : undefined }}
    >
      <td style={{ fontFamily: MONO }}>{r.number}</td>
      <td style={{ fontFamily: MONO }}>{r.from}</td>
      <td style={{ fontFamily: MONO }}>{r.to}</td>
      <td>
        {r.type} {r.colour}
      </td>
      <td style={{ fontFamily: MONO, color: COPPER }}>{r.through.map(([, words]) => words).join(', ')}</td>
      <td style={{ textAlign: 'right', color: r.length_mm === null ? SNAG : undefined }}>
        {r.length || r.missing}
      </td>
      <td>
        <SheetLink sheetId={r.sheet_id} select={r.wire_id}>
          draw
        </SheetLink>
      </td>
    </tr>
  )
}
