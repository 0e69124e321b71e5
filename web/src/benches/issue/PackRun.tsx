/** One run of a pack: how far it is, then its files with pages and rows, and everything that looks wrong. */
import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import LinearProgress from '@mui/material/LinearProgress'
import { useState } from 'react'
import { Act } from '../../kit/Act'
import { Rows } from '../../kit/Rows'
import { useProject } from '../../project/store'
import { LINE, MONO, QUIET } from '../../theme/theme'
import type { RunValue } from './shapes'

interface Props {
  run: RunValue
  cancel: () => void
  open?: boolean
}

const when = (at: string) => new Date(at).toLocaleString()
const kilobytes = (size: number) => `${Math.max(1, Math.round(size / 1000))} kB`

export function PackRun({ run, cancel, open }: Props) {
  const projectId = useProject((s) => s.projectId)
  const [opened, setOpened] = useState(open ?? false)
  return (
    <Box
      component="section"
      aria-label={`Issued ${run.name}`}
      sx={{ border: `1px solid ${LINE}`, borderRadius: 1, bgcolor: '#fff', p: 1.5, mb: 1.5 }}
    >
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
        <b>{run.state === 'running' ? 'Being written' : run.state === 'done' ? 'Issued' : run.state}</b>
        <span style={{ fontSize: 12.5, color: QUIET }}>
          revision {run.revision || 'none'}, {when(run.at)}, {run.by}
        </span>
        <Box sx={{ flex: 1 }} />
        {run.state === 'running' && <Act onClick={cancel}>Cancel</Act>}
        {run.state === 'done' && (
          <>
            <Act onClick={() => setOpened(!opened)}>{opened ? 'Less' : 'What was issued'}</Act>
            <Button
              variant="outlined"
              size="small"
              href={`/api/projects/${projectId}/pack-runs/${run.id}/pack.zip`}
            >
              Take the ZIP
            </Button>
          </>
        )}
      </Box>
      {run.state === 'running' && (
        <Box sx={{ mt: 1 }}>
          <LinearProgress
            variant="determinate"
            aria-label="Files written"
            value={run.count ? (100 * run.done) / run.count : 0}
          />
          <Box sx={{ fontSize: 12.5, color: QUIET, mt: 0.5 }}>
            {run.done} of {run.count || '…'} · {run.doing || 'beginning'}. You can go on editing: it is
            written from the state in which you asked for it.
          </Box>
        </Box>
      )}
      {run.why && <Alert severity="error">{run.why}</Alert>}
      {run.state === 'done' && opened && <Issued run={run} />}
    </Box>
  )
}

function Issued({ run }: { run: RunValue }) {
  return (
    <>
      <Box sx={{ mt: 1 }}>
        {run.findings.length === 0 && <Alert severity="success">Nothing looks wrong.</Alert>}
        {run.findings.map((f) => (
          <Alert
            key={f.words}
            severity={f.weight === 'error' ? 'error' : f.weight === 'warning' ? 'warning' : 'info'}
            sx={{ mb: 0.5, py: 0 }}
          >
            {f.words}
          </Alert>
        ))}
      </Box>
      <Rows
        label="Files that were issued"
        columns={[
          'File',
          'What it is',
          { name: 'Pages', align: 'right' },
          { name: 'Rows', align: 'right' },
          { name: 'Size', align: 'right' },
        ]}
      >
        {run.files.map((f) => (
          <tr key={f.name}>
            <td style={{ fontFamily: MONO }}>{f.name}</td>
            <td>{f.words}</td>
            <td style={{ textAlign: 'right' }}>{f.pages || ''}</td>
            <td style={{ textAlign: 'right' }}>{f.rows || ''}</td>
            <td style={{ textAlign: 'right' }}>{kilobytes(f.size)}</td>
          </tr>
        ))}
      </Rows>
    </>
  )
}
