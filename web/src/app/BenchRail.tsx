/** The benches in the order of the job. To add a bench, name it here and give it a route in ProjectShell. */
import DownloadOutlinedIcon from '@mui/icons-material/DownloadOutlined'
import GestureOutlinedIcon from '@mui/icons-material/GestureOutlined'
import Inventory2OutlinedIcon from '@mui/icons-material/Inventory2Outlined'
import ReportProblemOutlinedIcon from '@mui/icons-material/ReportProblemOutlined'
import Badge from '@mui/material/Badge'
import Box from '@mui/material/Box'
import type { ReactNode } from 'react'
import { NavLink } from 'react-router'
import { useSheet } from '../benches/draw/store'
import { COPPER, INK, LINE } from './theme'

export interface Bench {
  path: string
  label: string
  icon: ReactNode
}

export const BENCHES: Bench[] = [
  { path: 'draw', label: 'Draw', icon: <GestureOutlinedIcon /> },
  { path: 'parts', label: 'Parts', icon: <Inventory2OutlinedIcon /> },
  { path: 'snags', label: 'Snags', icon: <ReportProblemOutlinedIcon /> },
  { path: 'issue', label: 'Issue', icon: <DownloadOutlinedIcon /> },
]

export function BenchRail({ projectId }: { projectId: string }) {
  const snags = useSheet((s) => Object.keys(s.view.snags).length)
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
          title={`${bench.label}  Alt+${i + 1}`}
          sx={{
            display: 'flex',
            flexDirection: 'column',
            alignItems: 'center',
            py: 1,
            fontSize: 12,
            color: INK,
            textDecoration: 'none',
            borderLeft: '3px solid transparent',
            '&.active': { bgcolor: '#fff', borderColor: COPPER, color: COPPER, fontWeight: 600 },
          }}
        >
          <Badge badgeContent={bench.path === 'snags' ? snags : 0} color="error">
            {bench.icon}
          </Badge>
          {bench.label}
        </Box>
      ))}
    </Box>
  )
}
