/** The field of the omnibox, as it looks in the top bar. */
import Box from '@mui/material/Box'
import InputBase, { type InputBaseProps } from '@mui/material/InputBase'
import type { Ref } from 'react'
import { MONO } from '../theme/theme'

const PALE = '#C3CBE0'

interface FieldProps extends InputBaseProps {
  /** The box around the field, from which a list hangs. */
  frame?: Ref<HTMLDivElement>
}

export function FindField({ frame, ...input }: FieldProps) {
  return (
    <Box
      ref={frame}
      sx={{ bgcolor: '#26345A', borderRadius: 1.5, display: 'flex', alignItems: 'center', px: 1.25 }}
    >
      <InputBase
        placeholder="Find a tag, wire, sheet… or do something"
        sx={{
          flex: 1,
          color: '#fff',
          fontSize: 13,
          '& input::placeholder': { color: PALE, opacity: 1 },
        }}
        {...input}
      />
      <kbd style={{ font: `11px ${MONO}`, color: PALE }}>Ctrl K</kbd>
    </Box>
  )
}
