/** What is wrong in this enclosure; a click chooses what it is about. */
import Box from '@mui/material/Box'
import { Section } from '../../kit/Section'
import { QUIET, SNAG } from '../../theme/theme'
import type { EnclosureValue } from './shapes'

interface Props {
  enclosure: EnclosureValue
  onSelect: (ids: string[], add: boolean) => void
}

const LINK = {
  display: 'block',
  textAlign: 'left',
  font: 'inherit',
  fontSize: 12.5,
  color: SNAG,
  border: 0,
  bgcolor: 'transparent',
  p: 0,
  mb: 0.5,
  cursor: 'pointer',
} as const

export function SnagList({ enclosure, onSelect }: Props) {
  const found = [
    ...enclosure.faults.map((f) => ({ words: f.message, ids: f.ids })),
    ...(enclosure.gaps ?? []).map((g) => ({ words: g.words, ids: [] })),
    ...(enclosure.eyelets ?? []).filter((e) => e.gap).map((e) => ({ words: e.gap, ids: [e.placing_id] })),
  ]
  return (
    <Section title="Faults">
      {found.length === 0 && <Box sx={{ color: QUIET }}>none</Box>}
      {found.map((f, i) => (
        <Box key={i} component="button" type="button" onClick={() => onSelect(f.ids, false)} sx={LINK}>
          {f.words}
        </Box>
      ))}
    </Section>
  )
}
