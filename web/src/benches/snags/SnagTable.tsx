/** The table of snags, what follows from one folded under it, each a click from its place. */
import Box from '@mui/material/Box'
import { DataGrid, type GridColDef } from '@mui/x-data-grid'
import { useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import type { Schemas } from '../../api/shapes'
import { SnagActs, Word } from '../../project/SnagActs'
import { useProject } from '../../project/store'
import { folded, type Folded } from './folding'

/** A snag with an id for its row; a muted one has its reason, too. */
type Line = Schemas['SnagLine'] & Partial<Schemas['MutedLine']> & { id: string }
export type Row = Folded<Line>

/** What a bench calls the thing it opens, in its address. */
const SUBJECTS: Record<string, string> = {
  terminals: 'strip',
  cables: 'cable',
  cabinet: 'enclosure',
  harness: 'harness',
}

const factsOf = (fold: (key: string) => void): GridColDef<Row>[] => [
  { field: 'severity', headerName: 'Severity', width: 110 },
  { field: 'place', headerName: 'Place', width: 110 },
  {
    field: 'message',
    headerName: 'Snag',
    flex: 1,
    renderCell: ({ row }) => (
      <span style={{ paddingLeft: row.follows ? 20 : 0 }}>
        {row.message}
        {row.after > 0 && ' '}
        {row.after > 0 && <Word label={`${row.after} more follow from it`} run={() => fold(row.key)} />}
      </span>
    ),
  },
]

interface Props {
  tab: 'open' | 'muted'
  snags: Schemas['Snags'] | undefined
  loading: boolean
  canEdit: boolean
  mute: (row: Row) => void
}

export function SnagTable({ tab, snags, loading, canEdit, mute }: Props) {
  const open = useOpening()
  const send = useProject((s) => s.send)
  const [unfolded, setUnfolded] = useState('')
  const listed: (Schemas['SnagLine'] & Partial<Schemas['MutedLine']>)[] = snags?.[tab] ?? []
  const rows = folded<Line>(
    listed.map((r, n) => ({ ...r, id: `${n}:${r.key}` })),
    unfolded,
  )
  const hearing = (row: Row) => {
    const id = row.mute_id
    return id !== undefined
      ? { label: 'hear again', run: () => void send({ kind: 'unmute-snag', mute_id: id }) }
      : { label: 'mute', hint: 'Accept this, with a reason', run: () => mute(row) }
  }
  const act: GridColDef<Row> = {
    field: 'act',
    headerName: '',
    width: 210,
    sortable: false,
    renderCell: ({ row }) => <SnagActs act={row.act} mend={(edit) => void send(edit)} other={hearing(row)} />,
  }
  const reason: GridColDef<Row> = { field: 'reason', headerName: 'Why it is all right', flex: 0.7 }
  const fold = (key: string) => setUnfolded((now) => (now === key ? '' : key))
  const columns = [...factsOf(fold), ...(tab === 'muted' ? [reason] : []), ...(canEdit ? [act] : [])]
  return (
    <Box sx={{ flex: 1, minHeight: 0 }}>
      <DataGrid
        rows={rows}
        columns={columns}
        loading={loading}
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
  )
}

/** Return what opens a snag where it is mended. */
function useOpening() {
  const { projectId = '' } = useParams()
  const go = useNavigate()
  return ({ bench, subject, ids }: Row) => {
    const sel = ids[0] ? `?sel=${ids[0]}` : ''
    if (bench === 'draw' && subject) void go(`/p/${projectId}/draw/${subject}${sel}`)
    else if (bench === 'draw') void go(`/p/${projectId}/draw`)
    else void go(`/p/${projectId}/${bench}${SUBJECTS[bench] ? `?${SUBJECTS[bench]}=${subject}` : ''}`)
  }
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
