/** The Snags bench: what the checks found in the whole project, each a click from its sheet. */
import Box from '@mui/material/Box'
import Typography from '@mui/material/Typography'
import { DataGrid, type GridColDef } from '@mui/x-data-grid'
import { useQuery } from '@tanstack/react-query'
import { useNavigate, useParams } from 'react-router'
import { client, got } from '../../api/client'
import { useSheet } from '../draw/store'

interface Row {
  id: number
  severity: string
  place: string
  message: string
  bench: string
  subject: string
}

/** What a bench calls the thing it opens, in its address. */
const SUBJECTS: Record<string, string> = {
  terminals: 'strip',
  cables: 'cable',
  cabinet: 'enclosure',
  harness: 'harness',
}

const COLUMNS: GridColDef<Row>[] = [
  { field: 'severity', headerName: 'Severity', width: 110 },
  { field: 'place', headerName: 'Place', width: 110 },
  { field: 'message', headerName: 'Snag', flex: 1 },
]

export function SnagsBench() {
  const { projectId = '' } = useParams()
  const go = useNavigate()
  const revision = useSheet((s) => s.revision)
  const found = useQuery({
    queryKey: ['snags', projectId, revision],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/reports/{kind}/rows', {
          params: { path: { project_id: projectId, kind: 'snags' } },
        }),
      ),
    staleTime: 0,
  })
  const rows = (found.data?.['rows'] as string[][] | undefined) ?? []
  const open = ({ bench, subject }: Row) => {
    if (bench === 'draw' && subject) void go(`/p/${projectId}/draw/${subject}`)
    else if (bench === 'draw') void go(`/p/${projectId}/draw`)
    else void go(`/p/${projectId}/${bench}${SUBJECTS[bench] ? `?${SUBJECTS[bench]}=${subject}` : ''}`)
  }
  return (
    <Box component="main" sx={{ flex: 1, p: 2.5, display: 'flex', flexDirection: 'column', minWidth: 0 }}>
      <Typography component="h1" variant="h6" sx={{ mb: 1.5 }}>
        Snags of the project
      </Typography>
      <Box sx={{ flex: 1, minHeight: 0 }}>
        <DataGrid
          rows={rows.map((r, id) => ({
            id,
            severity: r[0]!,
            place: r[1]!,
            message: r[2]!,
            bench: r[4]!,
            subject: r[5]!,
          }))}
          columns={COLUMNS}
          loading={found.isPending}
          density="compact"
          hideFooter
          onRowClick={({ row }) => open(row as Row)}
          localeText={{ noRowsLabel: 'Nothing wrong in the project.' }}
          sx={{ bgcolor: '#fff', fontSize: 12.5 }}
        />
      </Box>
    </Box>
  )
}
