/** A part of the inspector under a small heading. */
import Box from '@mui/material/Box'
import type { ReactNode } from 'react'

export function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box component="section" aria-label={title} sx={{ mt: 2 }}>
      <Box sx={{ fontSize: 11, fontWeight: 600, letterSpacing: 0.6, color: 'text.secondary', mb: 0.5 }}>
        {title.toUpperCase()}
      </Box>
      {children}
    </Box>
  )
}
