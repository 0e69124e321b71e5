/** The person's projects, with making and importing one. */
import AddIcon from '@mui/icons-material/Add'
import FileUploadOutlinedIcon from '@mui/icons-material/FileUploadOutlined'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Chip from '@mui/material/Chip'
import MenuItem from '@mui/material/MenuItem'
import Paper from '@mui/material/Paper'
import Stack from '@mui/material/Stack'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { client, got, wordsOf, type Me } from '../api/client'
import { Mark } from './Mark'
import { INK } from './theme'

export function ProjectList({ me }: { me: Me }) {
  const go = useNavigate()
  const queries = useQueryClient()
  const { enqueueSnackbar } = useSnackbar()
  const projects = useQuery({ queryKey: ['projects'], queryFn: () => got(client.GET('/api/projects')) })
  const [naming, setNaming] = useState(false)
  const [name, setName] = useState('')
  const [standard, setStandard] = useState('iec')
  const upload = useRef<HTMLInputElement>(null)

  const attempt = async (act: () => Promise<{ id: string }>) => {
    try {
      const made = await act()
      void go(`/p/${made.id}`)
    } catch (error) {
      enqueueSnackbar(wordsOf(error), { variant: 'error' })
    }
  }
  const take = (file: File) =>
    attempt(() => {
      const body = new FormData()
      body.append('file', file)
      return got(client.POST('/api/projects/import', { body: body as never }))
    })
  const out = async () => {
    queries.setQueryData(['me'], await got(client.POST('/api/sign-out')))
  }
  return (
    <Box sx={{ height: '100%', display: 'flex', flexDirection: 'column' }}>
      <Stack
        component="header"
        direction="row"
        spacing={1.5}
        sx={{ height: 48, bgcolor: INK, color: '#fff', alignItems: 'center', px: 2 }}
      >
        <Mark />
        <Typography sx={{ fontWeight: 600, flex: 1 }}>Jolly Spool</Typography>
        <Typography>{me.full_name}</Typography>
        <Button color="inherit" onClick={() => void out()}>
          Sign out
        </Button>
      </Stack>
      <Box component="main" sx={{ p: 4, maxWidth: 900, width: '100%', mx: 'auto' }}>
        <Stack direction="row" spacing={1} sx={{ mb: 2, alignItems: 'center' }}>
          <Typography component="h1" variant="h5" sx={{ flex: 1, fontWeight: 600 }}>
            Projects
          </Typography>
          <Button
            variant="outlined"
            startIcon={<FileUploadOutlinedIcon />}
            onClick={() => upload.current?.click()}
          >
            Import project file
          </Button>
          <Button variant="contained" startIcon={<AddIcon />} onClick={() => setNaming(true)}>
            New project
          </Button>
          <input
            ref={upload}
            type="file"
            accept=".json"
            hidden
            aria-label="Project file"
            onChange={(e) => {
              const file = e.target.files?.[0]
              e.target.value = ''
              if (file) void take(file)
            }}
          />
        </Stack>
        {naming && (
          <Paper
            variant="outlined"
            component="form"
            sx={{ p: 2, mb: 2, display: 'flex', gap: 1 }}
            onSubmit={(e) => {
              e.preventDefault()
              void attempt(() => got(client.POST('/api/projects', { body: { name, standard, number: '' } })))
            }}
          >
            <TextField
              label="Name"
              autoFocus
              value={name}
              onChange={(e) => setName(e.target.value)}
              sx={{ flex: 1 }}
            />
            <TextField
              select
              label="Habits"
              value={standard}
              onChange={(e) => setStandard(e.target.value)}
              sx={{ width: 220 }}
            >
              <MenuItem value="iec">IEC, metric</MenuItem>
              <MenuItem value="na">North American, AWG</MenuItem>
            </TextField>
            <Button type="submit" variant="contained" disabled={!name.trim()}>
              Make
            </Button>
            <Button onClick={() => setNaming(false)}>Cancel</Button>
          </Paper>
        )}
        {projects.data?.length === 0 && (
          <Paper variant="outlined" sx={{ p: 4, textAlign: 'center' }}>
            <Typography sx={{ mb: 1 }}>You have no project yet.</Typography>
            <Button variant="contained" onClick={() => setNaming(true)}>
              Make the first one
            </Button>
          </Paper>
        )}
        <Stack spacing={1}>
          {projects.data?.map((p) => (
            <Paper
              key={p.id}
              variant="outlined"
              component={Link}
              to={`/p/${p.id}`}
              sx={{ p: 2, display: 'flex', gap: 2, alignItems: 'center', textDecoration: 'none' }}
            >
              <Typography sx={{ width: 110, fontFamily: '"IBM Plex Mono"' }}>{p.number}</Typography>
              <Box sx={{ flex: 1 }}>
                <Typography sx={{ fontWeight: 600 }}>{p.name}</Typography>
                <Typography variant="body2" color="text.secondary">
                  {p.customer || 'no customer named'}
                </Typography>
              </Box>
              <Typography variant="body2" color="text.secondary">
                {new Date(p.edited_at).toLocaleString()} {p.edited_by && `by ${p.edited_by}`}
              </Typography>
              <Chip size="small" label={p.role} />
            </Paper>
          ))}
        </Stack>
      </Box>
    </Box>
  )
}
