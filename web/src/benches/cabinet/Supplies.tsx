/** The supplies of the enclosure: how much of what they give is taken, and by what. */
import Box from '@mui/material/Box'
import LinearProgress from '@mui/material/LinearProgress'
import { Section } from '../../kit/Section'
import { MONO, QUIET, SNAG } from '../../theme/theme'
import type { EnclosureValue } from './shapes'

export function Supplies({ enclosure }: { enclosure: EnclosureValue }) {
  const supplies = enclosure.supplies ?? []
  if (!supplies.length) return null
  return (
    <Section title="Supplies">
      {supplies.map((s) => (
        <Box key={s.tag} sx={{ mb: 1 }}>
          <Box sx={{ fontSize: 12.5, fontWeight: 600, color: s.percent > 80 ? SNAG : undefined }}>
            {s.tag}: {s.takes_a} of {s.gives_a} A
          </Box>
          <LinearProgress
            variant="determinate"
            aria-label={`Load of ${s.tag}`}
            value={Math.min(100, s.percent)}
            color={s.percent > 80 ? 'error' : 'success'}
            sx={{ height: 7, borderRadius: 1 }}
          />
          <details style={{ fontSize: 12, color: QUIET }}>
            <summary style={{ cursor: 'pointer' }}>Why?</summary>
            {s.consumers.map(([tag, amps]) => (
              <Box key={tag} sx={{ display: 'flex', fontFamily: MONO }}>
                <span style={{ flex: 1 }}>{tag}</span>
                {amps} A
              </Box>
            ))}
            {s.silent.length > 0 && <Box>their parts do not say: {s.silent.join(', ')}</Box>}
          </details>
        </Box>
      ))}
    </Section>
  )
}
