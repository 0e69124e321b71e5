/** The frame of a bench: list on the left, work surface, inspector on the right. */
import Box from '@mui/material/Box'
import type { ReactNode } from 'react'
import { COPPER, LINE } from '../theme/theme'

interface Props {
  name: string
  list?: ReactNode
  inspector?: ReactNode
  children: ReactNode
}

export function Bench({ name, list, inspector, children }: Props) {
  return (
    <Box component="main" aria-label={name} sx={{ flex: 1, display: 'flex', minWidth: 0, minHeight: 0 }}>
      {list && (
        <Box
          component="nav"
          aria-label={`${name}: list`}
          sx={{
            width: 220,
            flexShrink: 0,
            borderRight: `1px solid ${LINE}`,
            bgcolor: '#FBF8F1',
            overflow: 'auto',
            p: 1,
          }}
        >
          {list}
        </Box>
      )}
      <Box sx={{ flex: 1, minWidth: 0, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
        {children}
      </Box>
      {inspector && (
        <Box
          component="aside"
          aria-label="Inspector"
          sx={{
            width: 270,
            flexShrink: 0,
            borderLeft: `1px solid ${LINE}`,
            bgcolor: '#FBF8F1',
            overflow: 'auto',
            p: 1.5,
          }}
        >
          {inspector}
        </Box>
      )}
    </Box>
  )
}

/** A small heading above a group of things. */
export function Heading({ children }: { children: ReactNode }) {
  return (
    <Box
      sx={{
        fontSize: 11,
        fontWeight: 600,
        letterSpacing: 0.6,
        color: 'text.secondary',
        mt: 1,
        mb: 0.5,
        px: 0.75,
      }}
    >
      {String(children).toUpperCase()}
    </Box>
  )
}

interface ChoiceProps {
  chosen: boolean
  onClick: () => void
  children: ReactNode
  note?: ReactNode
}

/** One line of a list to choose from. */
export function Choice({ chosen, onClick, children, note }: ChoiceProps) {
  return (
    <Box
      component="button"
      type="button"
      aria-current={chosen}
      onClick={onClick}
      sx={{
        display: 'block',
        width: '100%',
        textAlign: 'left',
        font: 'inherit',
        color: 'inherit',
        border: 0,
        borderLeft: '3px solid',
        borderColor: chosen ? COPPER : 'transparent',
        bgcolor: chosen ? '#F3E3D6' : 'transparent',
        py: 0.6,
        px: 1,
        cursor: 'pointer',
        '&:hover': { bgcolor: chosen ? '#F3E3D6' : '#F5ECE0' },
      }}
    >
      {children}
      {note && <Box sx={{ fontSize: 11.5, color: 'text.secondary' }}>{note}</Box>}
    </Box>
  )
}

/** What an empty place says: what belongs there, and how it comes there. */
export function Empty({ children }: { children: ReactNode }) {
  return <Box sx={{ p: 4, maxWidth: 560, color: 'text.secondary', lineHeight: 1.6 }}>{children}</Box>
}
