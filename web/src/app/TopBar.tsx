/** The top bar: mark, project, omnibox, undo and redo with what they take back, who is here, the person. */
import RedoIcon from '@mui/icons-material/Redo'
import UndoIcon from '@mui/icons-material/Undo'
import Avatar from '@mui/material/Avatar'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import Tooltip from '@mui/material/Tooltip'
import { useQueryClient } from '@tanstack/react-query'
import { memo, useState } from 'react'
import { Link } from 'react-router'
import { client, got, type Me } from '../api/client'
import { useProject, usePick } from '../project/store'
import type { LastingOutline } from '../project/useOutline'
import { FindBox } from './FindBox'
import { Lamp } from './Lamp'
import { Mark } from './Mark'
import { INK, TEAL } from '../theme/theme'

const initials = (name: string) =>
  name
    .split(' ')
    .map((w) => w[0] ?? '')
    .join('')
    .slice(0, 2)
    .toUpperCase()

export const TopBar = memo(function TopBar({ me, outline }: { me: Me; outline: LastingOutline }) {
  const { settings } = outline
  const sheets = outline.sheets
  return (
    <Box
      component="header"
      sx={{
        height: 48,
        bgcolor: INK,
        color: '#fff',
        display: 'flex',
        alignItems: 'center',
        gap: 1.5,
        px: 1.5,
      }}
    >
      <Home />
      <Box
        sx={{
          opacity: 0.85,
          whiteSpace: 'nowrap',
          overflow: 'hidden',
          textOverflow: 'ellipsis',
          maxWidth: 260,
        }}
      >
        {[settings.customer, settings.name].filter(Boolean).join(' · ')}
      </Box>
      <Box sx={{ border: '1px solid #51608A', borderRadius: 3, px: 1, fontSize: 12, whiteSpace: 'nowrap' }}>
        {outline.state === 'open'
          ? `working on ${settings.working_on}`
          : outline.state === 'archived'
            ? 'archived'
            : 'in the bin'}
      </Box>
      <Box sx={{ flex: 1, display: 'flex', justifyContent: 'center' }}>
        <FindBox projectId={outline.id} />
      </Box>
      <Lamp />
      <Steps />
      <People sheets={sheets} />
      <MyMenu me={me} />
    </Box>
  )
})

/** Undo and redo, with what they take back. */
function Steps() {
  const { undo, redo, step } = usePick('undo', 'redo', 'step')
  return (
    <>
      <Tooltip title={undo ? `Undo: ${undo}  Ctrl+Z` : 'Nothing to undo'}>
        <span>
          <Button
            color="inherit"
            disabled={!undo}
            startIcon={<UndoIcon fontSize="small" />}
            aria-label={`Undo ${undo}`}
            onClick={() => void step('undo')}
            sx={{ '&.Mui-disabled': { color: '#7D88A6' }, whiteSpace: 'nowrap' }}
          >
            <span style={{ maxWidth: 140, overflow: 'hidden', textOverflow: 'ellipsis' }}>
              {undo || 'Undo'}
            </span>
          </Button>
        </span>
      </Tooltip>
      <Tooltip title={redo ? `Redo: ${redo}  Ctrl+Y` : 'Nothing to redo'}>
        <span>
          <Button
            color="inherit"
            disabled={!redo}
            aria-label={`Redo ${redo}`}
            onClick={() => void step('redo')}
            sx={{ minWidth: 0, '&.Mui-disabled': { color: '#7D88A6' } }}
          >
            <RedoIcon fontSize="small" />
          </Button>
        </span>
      </Tooltip>
    </>
  )
}

interface MyMenuProps {
  me: Me
}

function MyMenu({ me }: MyMenuProps) {
  const queries = useQueryClient()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const out = async () => {
    queries.setQueryData(['me'], await got(client.POST('/api/sign-out')))
  }
  return (
    <>
      <Tooltip title={me.full_name}>
        <Avatar
          component="button"
          aria-label={`${me.full_name}: menu`}
          onClick={(e: React.MouseEvent<HTMLElement>) => setAnchor(e.currentTarget)}
          sx={{ width: 28, height: 28, fontSize: 12, bgcolor: '#7A4B8C', border: 0, cursor: 'pointer' }}
        >
          {initials(me.full_name)}
        </Avatar>
      </Tooltip>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        <MenuItem disabled>{me.full_name}</MenuItem>
        <MenuItem component={Link} to="/">
          All projects
        </MenuItem>
        {me.has_password && (
          <MenuItem component={Link} to="/account">
            Change password
          </MenuItem>
        )}
        {me.staff && (
          <MenuItem component="a" href="/admin/">
            Accounts
          </MenuItem>
        )}
        <MenuItem onClick={() => void out()}>Sign out</MenuItem>
      </Menu>
    </>
  )
}

function Home() {
  return (
    <Box
      component={Link}
      to="/"
      aria-label="All projects"
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 1,
        color: '#fff',
        textDecoration: 'none',
        fontWeight: 600,
      }}
    >
      <Mark />
      Jolly Spool
    </Box>
  )
}

interface PeopleProps {
  sheets: LastingOutline['sheets']
}

/** Who else is in the project, and on which sheet. */
function People({ sheets }: PeopleProps) {
  const people = useProject((s) => s.people)
  const sheetName = (id: string) => sheets.find((s) => s.id === id)?.number ?? ''
  return (
    <>
      {people.map((p) => (
        <Tooltip
          key={p.name}
          title={`${p.name} is here${p.sheet_id ? `, on sheet ${sheetName(p.sheet_id)}` : ''}`}
        >
          <Avatar sx={{ width: 28, height: 28, fontSize: 12, bgcolor: TEAL }}>{initials(p.name)}</Avatar>
        </Tooltip>
      ))}
    </>
  )
}
