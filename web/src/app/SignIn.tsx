/** Signing in; with the demo one button is enough. */
import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Divider from '@mui/material/Divider'
import Paper from '@mui/material/Paper'
import Stack from '@mui/material/Stack'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { client, got, wordsOf, type Me } from '../api/client'
import { known } from '../api/line'
import { Mark } from './Mark'

export function SignIn({ demo }: { demo: boolean }) {
  return (
    <Box component="main" sx={{ display: 'grid', placeItems: 'center', height: '100%' }}>
      <Paper variant="outlined" sx={{ p: 4, width: 380 }}>
        <Stack direction="row" spacing={1.5} sx={{ alignItems: 'center', mb: 1 }}>
          <Mark size={34} />
          <Typography component="h1" variant="h5" sx={{ fontWeight: 600 }}>
            Jolly Spool
          </Typography>
        </Stack>
        <Typography color="text.secondary" sx={{ mb: 3 }}>
          Control panels and wire harnesses, from the first rung to the last label.
        </Typography>
        <SignInForm demo={demo} />
      </Paper>
    </Box>
  )
}

interface FormProps {
  demo: boolean
  /** Told who has come in. */
  onEntered?: (me: Me) => void
}

/** Name and password, or one button where the demo is. */
export function SignInForm({ demo, onEntered }: FormProps) {
  const queries = useQueryClient()
  const [name, setName] = useState('')
  const [password, setPassword] = useState('')
  const [problem, setProblem] = useState('')

  const enter = async (answer: Promise<Me>) => {
    try {
      const me = await answer
      queries.setQueryData(['me'], me)
      if (onEntered) onEntered(me)
      else known()
    } catch (error) {
      setProblem(wordsOf(error))
    }
  }
  return (
    <>
      {demo && <Demo enter={(answer) => void enter(answer)} />}
      <Stack
        component="form"
        spacing={1.5}
        onSubmit={(event) => {
          event.preventDefault()
          void enter(got(client.POST('/api/sign-in', { body: { name, password } })))
        }}
      >
        <TextField
          label="Name"
          value={name}
          autoComplete="username"
          onChange={(e) => setName(e.target.value)}
        />
        <TextField
          label="Password"
          type="password"
          value={password}
          autoComplete="current-password"
          onChange={(e) => setPassword(e.target.value)}
        />
        {problem && <Alert severity="error">{problem}</Alert>}
        <Button type="submit" variant={demo ? 'outlined' : 'contained'} disabled={!name || !password}>
          Sign in
        </Button>
      </Stack>
    </>
  )
}

interface DemoProps {
  enter: (answer: Promise<Me>) => void
}

function Demo({ enter }: DemoProps) {
  return (
    <>
      <Button
        fullWidth
        variant="contained"
        size="large"
        onClick={() => enter(got(client.POST('/api/demo-sign-in')))}
      >
        Open the demo project
      </Button>
      <Box sx={{ textAlign: 'center', fontSize: 12.5, mt: 1, color: 'text.secondary' }}>
        as Anna, its owner; or as{' '}
        {[
          ['jory', 'Jory, editor'],
          ['vera', 'Vera, viewer'],
        ].map(([who, words]) => (
          <Button
            key={who}
            sx={{ minWidth: 0, py: 0 }}
            onClick={() => enter(got(client.POST('/api/demo-sign-in', { body: { name: who! } })))}
          >
            {words}
          </Button>
        ))}
      </Box>
      <Divider sx={{ my: 2.5, color: 'text.secondary', fontSize: 12 }}>or with your account</Divider>
    </>
  )
}
