/** The check before issue: what would be wrong on paper, the heaviest first, each a step away. */
import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useState } from 'react'
import { Link } from 'react-router'
import { client, got } from '../../api/client'
import { Empty } from '../../kit/Bench'
import { TableBar } from '../../kit/TableBar'
import { useProject } from '../../project/store'
import { useBench } from '../../project/useBench'
import { QUIET, TEAL } from '../../theme/theme'
import type { Finding } from './shapes'

const SOME = 8 // things that are named of each finding before somebody asks for all

export function CheckPage() {
  const projectId = useProject((s) => s.projectId)
  const path = { project_id: projectId }
  const found = useBench<Finding[]>('issue-check', () =>
    got(client.GET('/api/projects/{project_id}/issue-check', { params: { path } })),
  ).data
  return (
    <>
      <TableBar>
        <b>Check before issue</b>
        <span style={{ fontSize: 12.5, color: QUIET }}>what would be wrong on paper, the heaviest first</span>
      </TableBar>
      <Box sx={{ flex: 1, minHeight: 0, overflow: 'auto', p: 2 }}>
        {found ? <Findings found={found} /> : <Empty>Looking at every sheet…</Empty>}
      </Box>
    </>
  )
}

export function Findings({ found }: { found: Finding[] }) {
  if (!found.length) return <Alert severity="success">Nothing would be wrong on paper.</Alert>
  return found.map((f) => <OneFinding key={f.code} finding={f} />)
}

function OneFinding({ finding }: { finding: Finding }) {
  const projectId = useProject((s) => s.projectId)
  const [all, setAll] = useState(false)
  const { weight, words, names, places } = finding
  const severity = weight === 'error' ? 'error' : weight === 'warning' ? 'warning' : 'info'
  return (
    <Alert severity={severity} sx={{ mb: 1 }} role="group" aria-label={words}>
      <b>{words}</b>
      {names.slice(0, all ? names.length : SOME).map((name, n) => {
        const to = places[n]
        return (
          <Box key={`${n} ${name}`} sx={{ fontSize: 12.5 }}>
            {name}{' '}
            {to && (
              <Link to={`/p/${projectId}/${to}`} style={{ color: TEAL }}>
                Look at it
              </Link>
            )}
          </Box>
        )
      })}
      {names.length > SOME && (
        <Button size="small" color="inherit" onClick={() => setAll(!all)} sx={{ fontSize: 12.5, ml: -0.6 }}>
          {all ? `only the first ${SOME}` : `and ${names.length - SOME} more`}
        </Button>
      )}
    </Alert>
  )
}
