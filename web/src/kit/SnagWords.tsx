/** What is wrong with the thing a panel shows, in words. */
import Box from '@mui/material/Box'
import { SNAG } from '../theme/theme'
import { Section } from './Section'

export function SnagWords({ messages }: { messages: string[] }) {
  if (!messages.length) return null
  return (
    <Section title="Snags">
      {[...new Set(messages)].map((m) => (
        <Box key={m} sx={{ fontSize: 12.5, color: SNAG, mb: 0.5 }}>
          {m}
        </Box>
      ))}
    </Section>
  )
}
