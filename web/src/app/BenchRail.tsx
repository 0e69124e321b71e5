/** The benches in the order of the job. To add a bench, name it here and give it a route in ProjectShell. */
import AccountTreeOutlinedIcon from '@mui/icons-material/AccountTreeOutlined'
import AssignmentOutlinedIcon from '@mui/icons-material/AssignmentOutlined'
import CableOutlinedIcon from '@mui/icons-material/CableOutlined'
import ContentCutOutlinedIcon from '@mui/icons-material/ContentCutOutlined'
import DoorFrontOutlinedIcon from '@mui/icons-material/DoorFrontOutlined'
import DownloadOutlinedIcon from '@mui/icons-material/DownloadOutlined'
import GestureOutlinedIcon from '@mui/icons-material/GestureOutlined'
import InputOutlinedIcon from '@mui/icons-material/InputOutlined'
import Inventory2OutlinedIcon from '@mui/icons-material/Inventory2Outlined'
import ReportProblemOutlinedIcon from '@mui/icons-material/ReportProblemOutlined'
import ViewWeekOutlinedIcon from '@mui/icons-material/ViewWeekOutlined'
import Badge from '@mui/material/Badge'
import Box from '@mui/material/Box'
import { useQuery } from '@tanstack/react-query'
import { memo, useEffect, useState, type ReactNode } from 'react'
import { NavLink } from 'react-router'
import { client, got } from '../api/client'
import { useProject } from '../project/store'
import { COPPER, INK, LINE } from '../theme/theme'

export interface Bench {
  path: string
  label: string
  icon: ReactNode
}

export const BENCHES: Bench[] = [
  { path: 'brief', label: 'Brief', icon: <AssignmentOutlinedIcon /> },
  { path: 'draw', label: 'Draw', icon: <GestureOutlinedIcon /> },
  { path: 'parts', label: 'Parts', icon: <Inventory2OutlinedIcon /> },
  { path: 'terminals', label: 'Terminals', icon: <ViewWeekOutlinedIcon /> },
  { path: 'cables', label: 'Cables', icon: <CableOutlinedIcon /> },
  { path: 'io', label: 'I/O', icon: <InputOutlinedIcon /> },
  { path: 'cabinet', label: 'Cabinet', icon: <DoorFrontOutlinedIcon /> },
  { path: 'harness', label: 'Harness', icon: <AccountTreeOutlinedIcon /> },
  { path: 'snags', label: 'Snags', icon: <ReportProblemOutlinedIcon /> },
  { path: 'issue', label: 'Issue', icon: <DownloadOutlinedIcon /> },
  { path: 'make', label: 'Make', icon: <ContentCutOutlinedIcon /> },
]

/** How long the project is left alone before its snags are counted anew, in ms. */
const QUIET_MS = 1200

/** The number of snags of the whole project at an icon; counted when the hand rests. */
function SnagBadge({ icon, projectId }: { icon: ReactNode; projectId: string }) {
  const revision = useProject((s) => s.revision)
  const [still, setStill] = useState(revision)
  useEffect(() => {
    const timer = window.setTimeout(() => setStill(revision), QUIET_MS)
    return () => window.clearTimeout(timer)
  }, [revision])
  const found = useQuery({
    queryKey: ['snag-count', projectId, still],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/snags/count', {
          params: { path: { project_id: projectId } },
        }),
      ),
    placeholderData: (before) => before,
  })
  return (
    <Badge badgeContent={found.data?.count ?? 0} color="error" max={999} data-testid="snag-count">
      {icon}
    </Badge>
  )
}

export const BenchRail = memo(function BenchRail({ projectId }: { projectId: string }) {
  return (
    <Box
      component="nav"
      aria-label="Benches"
      sx={{ width: 72, flexShrink: 0, borderRight: `1px solid ${LINE}`, bgcolor: '#F1EADB' }}
    >
      {BENCHES.map((bench, i) => (
        <Box
          key={bench.path}
          component={NavLink}
          to={`/p/${projectId}/${bench.path}`}
          title={i < 9 ? `${bench.label}  Alt+${i + 1}` : bench.label}
          sx={{
            display: 'flex',
            flexDirection: 'column',
            alignItems: 'center',
            py: 0.75,
            fontSize: 12,
            color: INK,
            textDecoration: 'none',
            borderLeft: '3px solid transparent',
            '&.active': { bgcolor: '#fff', borderColor: COPPER, color: COPPER, fontWeight: 600 },
          }}
        >
          {bench.path === 'snags' ? <SnagBadge icon={bench.icon} projectId={projectId} /> : bench.icon}
          {bench.label}
        </Box>
      ))}
    </Box>
  )
})
