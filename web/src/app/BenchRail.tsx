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
import { memo, type ReactNode } from 'react'
import { NavLink } from 'react-router'
import { useSheet } from '../benches/draw/store'
import { COPPER, INK, LINE } from './theme'

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

/** The number of snags on the open sheet at an icon. */
function SnagBadge({ icon }: { icon: ReactNode }) {
  const snags = useSheet((s) => Object.keys(s.view.snags).length)
  return (
    <Badge badgeContent={snags} color="error">
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
          {bench.path === 'snags' ? <SnagBadge icon={bench.icon} /> : bench.icon}
          {bench.label}
        </Box>
      ))}
    </Box>
  )
})
