/** Tools that are used now and then, in a menu at the end of the tool strip; each has its key. */
import Button from '@mui/material/Button'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { useState } from 'react'
import { MONO } from '../../theme/theme'
import { drawCommands } from './commands'

const IN_MENU = [
  'stamps',
  'planned',
  'marks',
  'boundary',
  'line',
  'arrow',
  'dimension',
  'layers',
  'picture',
  'paste',
  'insert-rung',
  'remove-rung',
  'replace',
  'print',
  'select-all',
]

export function MoreTools({ canEdit }: { canEdit: boolean }) {
  const [at, setAt] = useState<HTMLElement | null>(null)
  const shown = IN_MENU.map((id) => drawCommands.find((c) => c.id === id)!)
  return (
    <>
      <Button
        color="inherit"
        aria-haspopup="menu"
        onClick={(e) => setAt(e.currentTarget)}
        sx={{ py: 0.1, px: 0.5, minWidth: 0, flexShrink: 0 }}
      >
        More ▾
      </Button>
      <Menu anchorEl={at} open={at !== null} onClose={() => setAt(null)}>
        {shown.map((c) => (
          <MenuItem
            key={c.id}
            dense
            disabled={!canEdit && !c.reads}
            onClick={() => {
              setAt(null)
              c.run()
            }}
          >
            <span style={{ flex: 1, marginRight: 24 }}>{c.label}</span>
            <kbd style={{ font: `11.5px ${MONO}` }}>{c.shortcut}</kbd>
          </MenuItem>
        ))}
      </Menu>
    </>
  )
}
