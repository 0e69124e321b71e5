/** The person's projects: found, opened, made, taken in, copied, archived, put into the bin. */
import AddIcon from '@mui/icons-material/Add'
import FileUploadOutlinedIcon from '@mui/icons-material/FileUploadOutlined'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Paper from '@mui/material/Paper'
import Stack from '@mui/material/Stack'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import Typography from '@mui/material/Typography'
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { client, got, type Me } from '../api/client'
import { ImportFile } from './ImportFile'
import { Invitations } from './Invitations'
import { Mark } from './Mark'
import { NewProject } from './NewProject'
import { ProjectCard, type State } from './ProjectCard'
import { INK } from '../theme/theme'

const EMPTY: Record<State, string> = {
  open: 'You have no project yet. Make the first one, or take in a project file.',
  archived: 'Nothing is archived. An archived project can be read, and opened again.',
  binned: 'The bin is empty. A project put here can be restored.',
}

export function ProjectList({ me }: { me: Me }) {
  const queries = useQueryClient()
  const [words, setWords] = useState('')
  const [state, setState] = useState<State>('open')
  const [doing, setDoing] = useState<'' | 'new' | 'import'>('')
  const projects = useQuery({
    queryKey: ['projects', state, words],
    queryFn: () => got(client.GET('/api/projects', { params: { query: { q: words, state } } })),
    placeholderData: keepPreviousData,
  })
  const fresh = () => void queries.invalidateQueries({ queryKey: ['projects'] })
  return (
    <Box sx={{ height: '100%', display: 'flex', flexDirection: 'column' }}>
      <Header me={me} />
      <Box sx={{ flex: 1, overflow: 'auto' }}>
        <Box component="main" sx={{ p: 3, maxWidth: 1120, width: '100%', mx: 'auto' }}>
          <Bar {...{ words, setWords, state, setState }} begin={setDoing} />
          <Invitations onTaken={fresh} />
          {doing === 'new' && <NewProject close={() => setDoing('')} />}
          <ImportFile open={doing === 'import'} close={() => setDoing('')} onDone={fresh} />
          {projects.data?.length === 0 && (
            <Paper variant="outlined" sx={{ p: 4, textAlign: 'center', color: 'text.secondary' }}>
              {words ? `No project has “${words}” in number, name, customer or site.` : EMPTY[state]}
            </Paper>
          )}
          <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(330px, 1fr))', gap: 2 }}>
            {projects.data?.map((p) => (
              <ProjectCard key={p.id} project={p} onChanged={fresh} />
            ))}
          </Box>
        </Box>
      </Box>
    </Box>
  )
}

interface HeaderProps {
  me: Me
}

function Header({ me }: HeaderProps) {
  const queries = useQueryClient()
  const out = async () => {
    queries.setQueryData(['me'], await got(client.POST('/api/sign-out')))
  }
  return (
    <Stack
      component="header"
      direction="row"
      spacing={1.5}
      sx={{ height: 48, bgcolor: INK, color: '#fff', alignItems: 'center', px: 2, flexShrink: 0 }}
    >
      <Mark />
      <Typography sx={{ fontWeight: 600, flex: 1 }}>Jolly Spool</Typography>
      <Typography>{me.full_name}</Typography>
      {me.staff && (
        <Button color="inherit" component="a" href="/admin/">
          Accounts
        </Button>
      )}
      {me.has_password && (
        <Button color="inherit" component={Link} to="/account">
          Password
        </Button>
      )}
      <Button color="inherit" onClick={() => void out()}>
        Sign out
      </Button>
    </Stack>
  )
}

interface BarProps {
  words: string
  setWords: (words: string) => void
  state: State
  setState: (state: State) => void
  begin: (doing: 'new' | 'import') => void
}

function Bar({ words, setWords, state, setState, begin }: BarProps) {
  return (
    <Stack direction="row" spacing={1} sx={{ mb: 2, alignItems: 'center' }}>
      <Typography component="h1" variant="h5" sx={{ fontWeight: 600, mr: 1 }}>
        Projects
      </Typography>
      <TextField
        label="Find by number, name, customer"
        value={words}
        onChange={(e) => setWords(e.target.value)}
        sx={{ flex: 1, bgcolor: '#fff' }}
      />
      <ToggleButtonGroup
        exclusive
        size="small"
        value={state}
        aria-label="Which projects"
        onChange={(_, v) => v && setState(v as State)}
      >
        {(['open', 'archived', 'binned'] as const).map((v) => (
          <ToggleButton key={v} value={v} sx={{ textTransform: 'none', px: 1.5 }}>
            {v === 'open' ? 'Open' : v === 'archived' ? 'Archived' : 'Bin'}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Button variant="outlined" startIcon={<FileUploadOutlinedIcon />} onClick={() => begin('import')}>
        Import project file
      </Button>
      <Button variant="contained" startIcon={<AddIcon />} onClick={() => begin('new')}>
        New project
      </Button>
    </Stack>
  )
}
