/** What an act of a form would do: why it is refused, or its lines, then what one should know. */
import Box from '@mui/material/Box'
import { MONO, QUIET, SNAG } from '../theme/theme'

interface Props {
  name: string
  problem: string
  lines: string[]
  /** Said when there is no line. */
  nothing?: string
  remarks?: string[]
  /** Said before the remarks. */
  before?: string
}

const MOST = 6

export function PreviewLines({ name, problem, lines, nothing = '', remarks = [], before = '' }: Props) {
  return (
    <Box aria-label={name} sx={{ maxHeight: 200, overflow: 'auto', fontSize: 12.5, mt: 1 }}>
      {problem && <span style={{ color: SNAG }}>{problem}</span>}
      {!problem && !lines.length && nothing && <span style={{ color: QUIET }}>{nothing}</span>}
      {!problem &&
        lines.map((line, n) => (
          <div key={`${n} ${line}`} style={{ fontFamily: MONO }}>
            {line}
          </div>
        ))}
      {!problem && remarks.length > 0 && (
        <Box sx={{ color: QUIET, mt: 0.5 }}>
          {before} {remarks.slice(0, MOST).join(' ')}
          {remarks.length > MOST && ` And ${remarks.length - MOST} more.`}
        </Box>
      )}
    </Box>
  )
}
