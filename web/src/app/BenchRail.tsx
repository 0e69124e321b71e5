/** The benches down the left side, with the number of snags. */
import Badge from '@mui/material/Badge'
import Box from '@mui/material/Box'
import { useQuery } from '@tanstack/react-query'
import { memo, useEffect, useState, type ReactNode } from 'react'
import { NavLink } from 'react-router'
import { client, got } from '../api/client'
import { useProject } from '../project/store'
import { COPPER, INK, LINE } from '../theme/theme'
import { BENCHES } from './benches'

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
    enabled: still >= 0,
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
          onPointerEnter={() => void bench.Page.bring().catch(() => undefined)}
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
