/** The Snags bench: what the checks found in the whole project, each a click from its place; what was muted, and why. */
import { useCommands } from '../../project/commands'
import { snagCommands, type Which } from './commands'
import { UnseenFaults } from './UnseenFaults'
import type { BenchProps } from '../../project/bench'
import Box from '@mui/material/Box'
import Tab from '@mui/material/Tab'
import Tabs from '@mui/material/Tabs'
import Typography from '@mui/material/Typography'
import { DataGrid, type GridColDef } from '@mui/x-data-grid'
import { useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { client, got } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { SnagActs } from '../../project/SnagActs'
import { useBench } from '../../project/useBench'
import { MuteLine } from '../../project/MuteLine'
import { useProject } from '../../project/store'

/** A snag with an id for its row; a muted one has its reason, too. */
type Row = Schemas['SnagLine'] & Partial<Schemas['MutedLine']> & { id: string }

/** What a bench calls the thing it opens, in its address. */
const SUBJECTS: Record<string, string> = {
  terminals: 'strip',
  cables: 'cable',
  cabinet: 'enclosure',
  harness: 'harness',
}

const FACTS: GridColDef<Row>[] = [
  { field: 'severity', headerName: 'Severity', width: 110 },
  { field: 'place', headerName: 'Place', width: 110 },
  { field: 'message', headerName: 'Snag', flex: 1 },
]

export function SnagsBench({ canEdit }: BenchProps) {
  const { projectId = '' } = useParams()
  const go = useNavigate()
  const send = useProject((s) => s.send)
  const [tab, setTab] = useState<Which>('open')
  const [muting, setMuting] = useState<Row | null>(null)
  const found = useBench('snags', () =>
    got(client.GET('/api/projects/{project_id}/snags', { params: { path: { project_id: projectId } } })),
  )
  useCommands('Snags', snagCommands(setTab))
  const listed: (Schemas['SnagLine'] & Partial<Schemas['MutedLine']>)[] =
    found.data?.[tab === 'muted' ? 'muted' : 'open'] ?? []
  const rows: Row[] = listed.map((r, n) => ({ ...r, id: `${n}:${r.key}` }))
  const open = ({ bench, subject, ids }: Row) => {
    const sel = ids[0] ? `?sel=${ids[0]}` : ''
    if (bench === 'draw' && subject) void go(`/p/${projectId}/draw/${subject}${sel}`)
    else if (bench === 'draw') void go(`/p/${projectId}/draw`)
    else void go(`/p/${projectId}/${bench}${SUBJECTS[bench] ? `?${SUBJECTS[bench]}=${subject}` : ''}`)
  }
  const hearing = (row: Row) => {
    const id = row.mute_id
    return id !== undefined
      ? { label: 'hear again', run: () => void send({ kind: 'unmute-snag', mute_id: id }) }
      : { label: 'mute', hint: 'Accept this, with a reason', run: () => setMuting(row) }
  }
  const act: GridColDef<Row> = {
    field: 'act',
    headerName: '',
    width: 210,
    sortable: false,
    renderCell: ({ row }) => <SnagActs act={row.act} mend={(edit) => void send(edit)} other={hearing(row)} />,
  }
  const reason: GridColDef<Row> = { field: 'reason', headerName: 'Why it is all right', flex: 0.7 }
  const columns = [...FACTS, ...(tab === 'muted' ? [reason] : []), ...(canEdit ? [act] : [])]
  return (
    <Box component="main" sx={{ flex: 1, p: 2.5, display: 'flex', flexDirection: 'column', minWidth: 0 }}>
      <Typography component="h1" variant="h6">
        Snags of the project
      </Typography>
      <WhichTabs tab={tab} setTab={setTab} open={found.data?.open.length} muted={found.data?.muted.length} />
      {muting && <MuteLine key={muting.key} snag={muting} close={() => setMuting(null)} />}
      {tab === 'unseen' && <UnseenFaults projectId={projectId} />}
      <Box sx={{ flex: 1, minHeight: 0, display: tab === 'unseen' ? 'none' : undefined }}>
        <DataGrid
          rows={rows}
          columns={columns}
          loading={found.isPending}
          density="compact"
          getRowHeight={() => 'auto'}
          hideFooter
          onRowClick={({ row }) => open(row as Row)}
          localeText={{
            noRowsLabel: tab === 'open' ? 'Nothing wrong in the project.' : 'Nothing was muted.',
          }}
          sx={WHOLE}
        />
      </Box>
    </Box>
  )
}

/** A message is read to its end: a row is as high as its text. */
const WHOLE = {
  bgcolor: '#fff',
  fontSize: 12.5,
  '& .MuiDataGrid-cell': { py: '7px', lineHeight: 1.45, display: 'flex', alignItems: 'center' },
  '& .MuiDataGrid-cell[data-field="message"], & .MuiDataGrid-cell[data-field="reason"]': {
    whiteSpace: 'normal',
    overflowWrap: 'anywhere',
  },
}

interface WhichProps {
  tab: Which
  setTab: (tab: Which) => void
  open: number | undefined
  muted: number | undefined
}

function WhichTabs({ tab, setTab, open, muted }: WhichProps) {
  return (
    <Tabs value={tab} onChange={(_, value: Which) => setTab(value)} sx={{ minHeight: 38, mb: 1 }}>
      <Tab value="open" label={`Open ${open ?? ''}`} sx={{ minHeight: 38, textTransform: 'none' }} />
      <Tab value="muted" label={`Muted ${muted ?? ''}`} sx={{ minHeight: 38, textTransform: 'none' }} />
      <Tab value="unseen" label="Would anybody notice?" sx={{ minHeight: 38, textTransform: 'none' }} />
    </Tabs>
  )
}
