/** Would anybody notice? Faults are planted in trials of the project, kind after kind; what no check tells is listed. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import LinearProgress from '@mui/material/LinearProgress'
import Typography from '@mui/material/Typography'
import { DataGrid, type GridColDef } from '@mui/x-data-grid'
import { useNavigate } from 'react-router'
import { usePlanting, type UnseenRow } from './planting'

const COLUMNS: GridColDef<UnseenRow>[] = [
  { field: 'harm', headerName: 'Harm', width: 140 },
  { field: 'words', headerName: 'What was done', flex: 1 },
  { field: 'name', headerName: 'To', width: 160 },
  { field: 'place', headerName: 'Place', width: 110 },
]

export function UnseenFaults({ projectId }: { projectId: string }) {
  const go = useNavigate()
  const { state, start, stop } = usePlanting(projectId)
  const { kinds, done, count, unseen, running, problem } = state
  const ended = kinds > 0 && done === kinds
  return (
    <Box sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column', gap: 1.5 }}>
      <Typography sx={{ maxWidth: 760 }}>
        Faults that people make are planted in trials of this project: a fuse left out, two wires changed
        over, an interlock forgotten. Whatever no check would tell is listed, the most harmful first. The
        project stays as it is.
      </Typography>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2 }}>
        {running ? (
          <Button variant="outlined" size="small" onClick={stop}>
            Stop
          </Button>
        ) : (
          <Button variant="contained" size="small" onClick={() => void start()}>
            {ended ? 'Plant them again' : 'Plant faults on trial'}
          </Button>
        )}
        <Typography role="status" sx={{ color: 'text.secondary' }}>
          {problem || said(kinds, done, count, unseen.length)}
        </Typography>
      </Box>
      {running && <LinearProgress variant="determinate" value={kinds ? (100 * done) / kinds : 0} />}
      <Box sx={{ flex: 1, minHeight: 0 }}>
        <DataGrid
          rows={unseen}
          columns={COLUMNS}
          density="compact"
          hideFooter
          onRowClick={({ row: { sheet_id, symbol_id } }) => {
            if (sheet_id) void go(`/p/${projectId}/draw/${sheet_id}?sel=${symbol_id}`)
          }}
          localeText={{
            noRowsLabel: none(running, ended),
          }}
          sx={{ bgcolor: '#fff', fontSize: 12.5 }}
        />
      </Box>
    </Box>
  )
}

function none(running: boolean, ended: boolean): string {
  if (running) return 'Whatever was planted so far would be told.'
  return ended ? 'Every fault planted would be told.' : 'Nothing was planted yet.'
}

function said(kinds: number, done: number, count: number, unseen: number): string {
  if (kinds === 0) return ''
  const planted = `${count} fault${count === 1 ? '' : 's'} of ${done} kinds planted`
  const noticed = unseen === 0 ? 'all would be told' : `${unseen} would go unseen`
  return done < kinds ? `${planted}, ${kinds - done} kinds to go` : `${planted}: ${noticed}.`
}
