/** The frame of a form of the bench: a title, what is asked, what would come of it, and the act. */
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import type { ReactNode } from 'react'

interface Props {
  title: string
  act: string
  enabled?: boolean
  close: () => void
  onAct: () => void
  /** How wide it is at most; small when nothing is said. */
  width?: 'xs' | 'sm' | 'md'
  children: ReactNode
}

export function FormDialog({ title, act, enabled = true, close, onAct, width = 'xs', children }: Props) {
  return (
    <Dialog open onClose={close} maxWidth={width} fullWidth>
      <form
        aria-label={title}
        onSubmit={(e) => {
          e.preventDefault()
          if (enabled) onAct()
        }}
      >
        <DialogTitle>{title}</DialogTitle>
        {/* The label of the first field stands over its edge. */}
        <DialogContent sx={{ '&&': { pt: 1 } }}>{children}</DialogContent>
        <DialogActions>
          <Button onClick={close}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={!enabled}>
            {act}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
