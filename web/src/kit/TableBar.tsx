/** The bar above a table or drawing of a bench: what is filtered, counted and added. */
import Box from '@mui/material/Box'
import type { ReactNode } from 'react'
import { LINE } from '../theme/theme'

const BAR = {
  display: 'flex',
  alignItems: 'center',
  gap: 1,
  height: 40,
  px: 1.5,
  borderBottom: `1px solid ${LINE}`,
  bgcolor: '#FBF8F1',
  '& > button, & > a': { flexShrink: 0, whiteSpace: 'nowrap' },
} as const

export function TableBar({ children }: { children: ReactNode }) {
  return <Box sx={BAR}>{children}</Box>
}
