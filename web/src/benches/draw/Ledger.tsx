/** The ledger: wires, devices and snags of the sheet, in step with the selection both ways. */
import ExpandLessIcon from '@mui/icons-material/ExpandLess'
import ExpandMoreIcon from '@mui/icons-material/ExpandMore'
import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import Tab from '@mui/material/Tab'
import Tabs from '@mui/material/Tabs'
import { DataGrid, type GridColDef } from '@mui/x-data-grid'
import { memo, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import type { AnyEdit } from '../../api/client'
import type { SnagAct } from '../../api/shapes'
import type { View } from '../../project/view'
import { LINE, MONO, SNAG } from '../../theme/theme'
import { SnagActs } from '../../project/SnagActs'
import { MuteLine } from '../../project/MuteLine'
import { useProject } from '../../project/store'

type Name = 'wires' | 'devices' | 'snags'
interface Row {
  id: string
  /** Ids of what the row stands for on the sheet. */
  ids: string[]
  [key: string]: unknown
}

const mono = { fontFamily: MONO, fontSize: 12 }
const col = (field: string, headerName: string, flex: number, isMono = false): GridColDef<Row> => ({
  field,
  headerName,
  flex,
  minWidth: 50,
  cellClassName: isMono ? 'mono' : '',
})

const COLUMNS: Record<Name, GridColDef<Row>[]> = {
  wires: [
    col('number', 'Number', 0.8, true),
    col('from', 'From', 1.4, true),
    col('to', 'To', 1.4, true),
    col('type', 'Type', 1.4),
    col('place', 'Place', 0.8, true),
    col('order', 'Order', 0.5),
  ],
  devices: [
    col('tag', 'Tag', 1, true),
    col('text', 'Text', 1.6),
    col('what', 'What', 1.3),
    col('part', 'Part', 1.3, true),
    col('place', 'Place', 0.7, true),
  ],
  snags: [col('severity', 'Severity', 0.6), col('message', 'Snag', 4), col('place', 'Place', 0.6, true)],
}

const actsColumn = (mute: (key: string) => void, mend: (edit: AnyEdit) => void): GridColDef<Row> => ({
  field: 'acts',
  headerName: '',
  width: 180,
  sortable: false,
  renderCell: ({ row }) => (
    <SnagActs
      act={row['act'] as SnagAct | null}
      mend={mend}
      other={{ label: 'mute', hint: 'Accept this, with a reason', run: () => mute(String(row['key'])) }}
    />
  ),
})

/** The drawing comes first: the table follows when there is time, so that a sheet opens and moves without waiting. */
export function Ledger({ onGo }: { onGo: (id: string) => void }) {
  const view = useDeferredValue(useProject((s) => s.view))
  // Wires and snags come after the drawing; until they are there nothing is said of them.
  const found = useDeferredValue(useProject((s) => s.found >= 0))
  const selection = useDeferredValue(useProject((s) => s.selection))
  const latest = useRef(onGo)
  useEffect(() => {
    latest.current = onGo
  })
  const go = useCallback((id: string) => latest.current(id), [])
  return <LedgerTable {...{ view, found, selection }} onGo={go} />
}

interface TableProps {
  view: View
  found: boolean
  selection: Set<string>
  onGo: (id: string) => void
}

const byNumber = (a: string, b: string) => a.localeCompare(b, 'en', { numeric: true })

function rowsOf(view: View): Record<Name, Row[]> {
  const wires = Object.values(view.wires).map((w) => ({
    ...w,
    type: `${w.type} ${w.size} ${w.colour}`,
    order: w.own ? 'own' : '',
    ids: w.wires,
  }))
  const devices = Object.values(view.devices).map((d) => ({ ...d, ids: d.symbols }))
  const snags = Object.entries(view.snags).map(([id, s]) => ({ ...s, id }))
  return {
    wires: wires.sort((a, b) => byNumber(a.number, b.number)),
    devices: devices.sort((a, b) => byNumber(a.tag, b.tag)),
    snags: snags.sort((a, b) => a.order - b.order),
  }
}

const LedgerTable = memo(function LedgerTable({ view, found, selection, onGo }: TableProps) {
  const [tab, setTab] = useState<Name>('wires')
  const [open, setOpen] = useState(true)
  const rows = useMemo(() => rowsOf(view), [view])
  const [muting, setMuting] = useState('')
  const asked = Object.values(view.snags).find((s) => s.key === muting)
  const chosen = (row: Row) => row.ids.some((id) => selection.has(id))
  return (
    <Box
      component="section"
      aria-label="Ledger"
      sx={{
        borderTop: `1px solid ${LINE}`,
        bgcolor: '#fff',
        height: open ? 190 : 34,
        display: 'flex',
        flexDirection: 'column',
      }}
    >
      <Head
        {...{ tab, rows, open, found }}
        show={(next) => {
          setTab(next)
          setOpen(true)
        }}
        fold={setOpen}
      />
      {open && asked && <MuteLine snag={asked} close={() => setMuting('')} />}
      {open && <RowTable {...{ tab, chosen, onGo, found }} rows={rows[tab]} mute={setMuting} />}
    </Box>
  )
})

interface HeadProps {
  tab: Name
  rows: Record<Name, Row[]>
  open: boolean
  found: boolean
  show: (tab: Name) => void
  fold: (open: boolean) => void
}

function Head({ tab, rows, open, found, show, fold }: HeadProps) {
  const counted = (name: string, of: Row[]) => (found ? `${name} ${of.length}` : name)
  const errors = rows.snags.some((r) => r['severity'] === 'error')
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', minHeight: 34 }}>
      <Tabs
        value={tab}
        onChange={(_, value: Name) => show(value)}
        sx={{
          minHeight: 34,
          flex: 1,
          '& .MuiTab-root': { minHeight: 34, py: 0, minWidth: 80, textTransform: 'none' },
        }}
      >
        <Tab value="wires" label={counted('Wires', rows.wires)} />
        <Tab value="devices" label={`Devices ${rows.devices.length}`} />
        <Tab
          value="snags"
          label={counted('Snags', rows.snags)}
          sx={errors ? { color: SNAG, '&.Mui-selected': { color: SNAG } } : undefined}
        />
      </Tabs>
      <IconButton
        size="small"
        aria-label={open ? 'Fold the ledger' : 'Unfold the ledger'}
        onClick={() => fold(!open)}
      >
        {open ? <ExpandMoreIcon fontSize="small" /> : <ExpandLessIcon fontSize="small" />}
      </IconButton>
    </Box>
  )
}

interface RowTableProps {
  tab: Name
  rows: Row[]
  chosen: (row: Row) => boolean
  found: boolean
  mute: (key: string) => void
  onGo: (id: string) => void
}

function RowTable({ tab, rows, chosen, found, mute, onGo }: RowTableProps) {
  const send = useProject((s) => s.send)
  return (
    <Box sx={{ flex: 1, minHeight: 0 }}>
      <DataGrid
        key={tab}
        rows={rows}
        columns={
          tab === 'snags' ? [...COLUMNS.snags, actsColumn(mute, (edit) => void send(edit))] : COLUMNS[tab]
        }
        density="compact"
        rowHeight={28}
        columnHeaderHeight={28}
        hideFooter
        rowSelection={false}
        getRowClassName={({ row }) => (chosen(row as Row) ? 'chosen' : '')}
        onRowClick={({ row }) => useProject.getState().select((row as Row).ids)}
        onRowDoubleClick={({ row }) => onGo((row as Row).ids[0] ?? '')}
        localeText={{
          noRowsLabel: {
            wires: found ? 'No wire leads from pin to pin yet.' : '',
            devices: 'No device is drawn here yet.',
            snags: found ? 'Nothing wrong on this sheet.' : '',
          }[tab],
        }}
        sx={{
          border: 0,
          fontSize: 12.5,
          '& .mono': mono,
          '& .chosen, & .chosen:hover': { bgcolor: '#F5E3D5' },
          '& .MuiDataGrid-row': { cursor: 'pointer' },

          '& .MuiDataGrid-columnHeaderTitle': { fontWeight: 500 },
        }}
      />
    </Box>
  )
}
