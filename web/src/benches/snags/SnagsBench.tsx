/** The Snags bench: what the checks found in the whole project, each a click from its sheet. */
import Box from '@mui/material/Box'
import Typography from '@mui/material/Typography'
import { DataGrid, type GridColDef } from '@mui/x-data-grid'
import { useQuery } from '@tanstack/react-query'
import { useNavigate, useParams } from 'react-router'
import { client, got } from '../../api/client'
import type { SheetLine } from '../../api/shapes'

interface Row {
  id: number
  severity: string
  place: string
  message: string
}

const COLUMNS: GridColDef<Row>[] = [
  { field: 'severity', headerName: 'Severity', width: 110 },
  { field: 'place', headerName: 'Place', width: 110 },
  { field: 'message', headerName: 'Snag', flex: 1 },
]

export function SnagsBench({ sheets }: { sheets: SheetLine[] }) {
  const { projectId = '' } = useParams()
  const go = useNavigate()
  const found = useQuery({
    queryKey: ['snags', projectId],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/reports/{kind}/rows', {
          params: { path: { project_id: projectId, kind: 'snags' } },
        }),
      ),
    staleTime: 0,
  })
  const rows = (found.data?.['rows'] as string[][] | undefined) ?? []
  const open = (place: string) => {
    const number = place.split(/[./]/)[0]
    const sheet = sheets.find((s) => s.number === number)
    if (sheet) void go(`/p/${projectId}/draw/${sheet.id}`)
  }
  return (
    <Box component="main" sx={{ flex: 1, p: 2.5, display: 'flex', flexDirection: 'column', minWidth: 0 }}>
      <Typography component="h1" variant="h6" sx={{ mb: 1.5 }}>
        Snags of the project
      </Typography>
      <Box sx={{ flex: 1, minHeight: 0 }}>
        <DataGrid
          rows={rows.map((r, id) => ({ id, severity: r[0]!, place: r[1]!, message: r[2]! }))}
          columns={COLUMNS}
          loading={found.isPending}
          density="compact"
          hideFooter
          onRowClick={({ row }) => open((row as Row).place)}
          localeText={{ noRowsLabel: 'Nothing wrong in the project.' }}
          sx={{ bgcolor: '#fff', fontSize: 12.5 }}
        />
      </Box>
    </Box>
  )
}
