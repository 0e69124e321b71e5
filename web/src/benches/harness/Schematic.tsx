/** The sheets on which wires of the harness are drawn, each a step away. */
import Box from '@mui/material/Box'
import { Link } from 'react-router'
import { counted } from '../../kit/counted'
import { usePick } from '../../project/store'
import { MONO, QUIET } from '../../theme/theme'
import type { HarnessValue } from './shapes'

export function Schematic({ harness }: { harness: HarnessValue }) {
  const { projectId } = usePick('projectId')
  return (
    <Box sx={{ p: 3 }}>
      {harness.sheets.length === 0 && 'No wire of this harness is drawn yet.'}
      {harness.sheets.map((s) => (
        <Box key={s.id} sx={{ mb: 1 }}>
          <Link to={`/p/${projectId}/draw/${s.id}`}>
            <b style={{ fontFamily: MONO }}>{s.number}</b> {s.title}
          </Link>
          <Box component="span" sx={{ color: QUIET, ml: 1 }}>
            {counted(s.wires, 'wire')}
          </Box>
        </Box>
      ))}
    </Box>
  )
}
