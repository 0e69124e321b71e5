/** The room of the inspector, which is there before what it shows. */
import Box from '@mui/material/Box'
import type { ReactNode } from 'react'
import { LINE } from '../../theme/theme'

const LOOK = {
  width: 262,
  flexShrink: 0,
  borderLeft: `1px solid ${LINE}`,
  bgcolor: '#FBF8F1',
  overflow: 'auto',
  p: 1.75,
} as const

export const Aside = ({ children }: { children: ReactNode }) => (
  <Box component="aside" aria-label="Inspector" sx={LOOK}>
    {children}
  </Box>
)
