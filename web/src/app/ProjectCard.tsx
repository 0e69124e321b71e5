/** A project in the list: the sheet last seen, number, customer, revision, who edited it last; what an owner may do. */
import MoreVertIcon from '@mui/icons-material/MoreVert'
import Box from '@mui/material/Box'
import Chip from '@mui/material/Chip'
import IconButton from '@mui/material/IconButton'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import Paper from '@mui/material/Paper'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { Link } from 'react-router'
import { client, got, wordsOf, type ProjectLine } from '../api/client'
import { LINE, MONO, PAPER, QUIET } from '../theme/theme'

export type State = 'open' | 'archived' | 'binned'

interface Props {
  project: ProjectLine
  onChanged: () => void
}

export function ProjectCard({ project: p, onChanged }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  return (
    <Paper variant="outlined" sx={{ overflow: 'hidden', position: 'relative' }}>
      <Front project={p} />
      <IconButton
        size="small"
        aria-label={`More for ${p.name}`}
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{ position: 'absolute', right: 6, top: 176 }}
      >
        <MoreVertIcon fontSize="small" />
      </IconButton>
      <Acts project={p} anchor={anchor} close={() => setAnchor(null)} onChanged={onChanged} />
    </Paper>
  )
}

interface FrontProps {
  project: ProjectLine
}

function Front({ project: p }: FrontProps) {
  return (
    <Box
      component={Link}
      to={`/p/${p.id}`}
      aria-label={p.name}
      sx={{ display: 'block', color: 'inherit', textDecoration: 'none' }}
    >
      <Box
        sx={{
          height: 168,
          bgcolor: PAPER,
          borderBottom: `1px solid ${LINE}`,
          overflow: 'hidden',
          p: 0.75,
        }}
      >
        <img
          src={`/api/projects/${p.id}/thumbnail.svg?r=${p.revision}`}
          alt=""
          style={{ display: 'block', width: '100%', height: '100%', objectFit: 'contain' }}
        />
      </Box>
      <Box sx={{ p: 1.5, pr: 5 }}>
        <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
          <span style={{ fontFamily: MONO, color: QUIET }}>{p.number}</span>
          <b style={{ fontSize: 15 }}>{p.name}</b>
        </Box>
        <Box sx={{ color: QUIET }}>
          {[p.customer, p.site].filter(Boolean).join(', ') || 'no customer named'}
        </Box>
        <Box sx={{ display: 'flex', gap: 0.5, mt: 0.75, alignItems: 'center', flexWrap: 'wrap' }}>
          <Chip size="small" label={`working on ${p.issue}`} />
          <Chip size="small" variant="outlined" label={p.role} />
          {p.starter && <Chip size="small" color="secondary" variant="outlined" label="starting point" />}
        </Box>
        <Box sx={{ color: QUIET, fontSize: 12, mt: 0.75 }}>
          {new Date(p.edited_at).toLocaleString()}
          {p.edited_by ? ` by ${p.edited_by}` : ''}
        </Box>
      </Box>
    </Box>
  )
}

/** What can be done with a project from the list; each closes the menu and says what was done. */
function useActs(p: ProjectLine, close: () => void, onChanged: () => void) {
  const { enqueueSnackbar } = useSnackbar()
  const params = { path: { project_id: p.id } }
  const attempt = async (words: string, act: () => Promise<unknown>) => {
    close()
    try {
      await act()
      enqueueSnackbar(words)
      onChanged()
    } catch (error) {
      enqueueSnackbar(wordsOf(error), { variant: 'error' })
    }
  }
  const put = (state: State, words: string) =>
    attempt(words, () => got(client.POST('/api/projects/{project_id}/state', { params, body: { state } })))
  const copy = () =>
    attempt(`“${p.name}, copy” is made.`, () =>
      got(client.POST('/api/projects/{project_id}/copy', { params, body: { name: `${p.name}, copy` } })),
    )
  const starter = () =>
    attempt(p.starter ? 'It is no longer a starting point.' : 'New projects may start from it now.', () =>
      got(client.POST('/api/projects/{project_id}/starter', { params, body: { starter: !p.starter } })),
    )
  const forGood = () =>
    attempt(`“${p.name}” is deleted for good.`, () =>
      got(client.POST('/api/projects/{project_id}/delete', { params })),
    )
  return { put, copy, starter, forGood }
}

interface ActsProps {
  project: ProjectLine
  anchor: HTMLElement | null
  close: () => void
  onChanged: () => void
}

function Acts({ project: p, anchor, close, onChanged }: ActsProps) {
  const owner = p.role === 'owner'
  const { put, copy, starter, forGood } = useActs(p, close, onChanged)
  return (
    <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
      <MenuItem onClick={() => void copy()}>Copy the whole project</MenuItem>
      <MenuItem component="a" href={`/api/projects/${p.id}/file`} onClick={close}>
        Take out the project file
      </MenuItem>
      {owner && (
        <MenuItem onClick={() => void starter()}>
          {p.starter ? 'No longer a starting point' : 'Keep as a starting point'}
        </MenuItem>
      )}
      {owner && p.state !== 'open' && (
        <MenuItem onClick={() => void put('open', `“${p.name}” is open again.`)}>
          {p.state === 'binned' ? 'Restore' : 'Open again'}
        </MenuItem>
      )}
      {owner && p.state === 'open' && (
        <MenuItem onClick={() => void put('archived', `“${p.name}” is archived.`)}>Archive</MenuItem>
      )}
      {owner && p.state !== 'binned' && (
        <MenuItem onClick={() => void put('binned', `“${p.name}” is in the bin.`)}>Put into the bin</MenuItem>
      )}
      {owner && p.state === 'binned' && <MenuItem onClick={() => void forGood()}>Delete for good</MenuItem>}
    </Menu>
  )
}
