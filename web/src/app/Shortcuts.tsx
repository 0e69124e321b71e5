/** The shortcuts there are just now, by where they hold. */
import Box from '@mui/material/Box'
import Dialog from '@mui/material/Dialog'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useCommandLists, type Command } from '../project/commands'
import { MONO, QUIET } from '../theme/theme'

/** A second key for the same is not listed again. */
const listed = (c: Command) => c.shortcut !== '' && !c.id.endsWith('-too')

export function Shortcuts({ open, close }: { open: boolean; close: () => void }) {
  const lists = useCommandLists()
  return (
    <Dialog open={open} onClose={close} maxWidth="md" aria-label="Shortcuts">
      <DialogTitle sx={{ pb: 0.5 }}>Shortcuts</DialogTitle>
      <DialogContent sx={{ columns: 2, columnGap: 4, fontSize: 13 }}>
        {Object.entries(lists).map(
          ([where, commands]) =>
            commands.some(listed) && (
              <Box key={where} component="section" aria-label={where} sx={{ mb: 2 }}>
                <Box sx={{ fontSize: 12, color: QUIET, textTransform: 'uppercase', letterSpacing: '0.04em' }}>
                  {where}
                </Box>
                {commands.filter(listed).map((c) => (
                  <Box key={c.id} sx={{ display: 'flex', gap: 2, py: 0.25, breakInside: 'avoid' }}>
                    <span style={{ flex: 1 }}>{c.label}</span>
                    <kbd style={{ font: `12px ${MONO}` }}>{c.shortcut}</kbd>
                  </Box>
                ))}
              </Box>
            ),
        )}
      </DialogContent>
    </Dialog>
  )
}
