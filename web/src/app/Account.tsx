/** The person's own account: changing the password. */
import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Paper from '@mui/material/Paper'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { Link } from 'react-router'
import { client, got, wordsOf, type Me } from '../api/client'

export function Account({ me }: { me: Me }) {
  const [old, setOld] = useState('')
  const [fresh, setFresh] = useState('')
  const [again, setAgain] = useState('')
  const [said, setSaid] = useState<{ good: boolean; words: string } | null>(null)
  const change = async () => {
    if (fresh !== again) {
      setSaid({ good: false, words: 'The new password is not the same both times.' })
      return
    }
    try {
      await got(client.POST('/api/password', { body: { old, new: fresh } }))
      setSaid({ good: true, words: 'Your password is changed. Elsewhere you are signed out.' })
      setOld('')
      setFresh('')
      setAgain('')
    } catch (error) {
      setSaid({ good: false, words: wordsOf(error) })
    }
  }
  return (
    <Box component="main" sx={{ display: 'grid', placeItems: 'center', height: '100%' }}>
      <Paper
        variant="outlined"
        component="form"
        sx={{ p: 4, width: 380 }}
        onSubmit={(e) => {
          e.preventDefault()
          void change()
        }}
      >
        <Typography component="h1" variant="h6">
          {me.full_name}
        </Typography>
        <Secret label="Password now" value={old} set={setOld} complete="current-password" />
        <Secret label="New password" value={fresh} set={setFresh} complete="new-password" />
        <Secret label="New password again" value={again} set={setAgain} complete="new-password" />
        {said && <Alert severity={said.good ? 'success' : 'error'}>{said.words}</Alert>}
        <Box sx={{ display: 'flex', gap: 1, mt: 1.5 }}>
          <Button type="submit" variant="contained" disabled={!old || !fresh || !again}>
            Change password
          </Button>
          <Button component={Link} to="/">
            To the projects
          </Button>
        </Box>
      </Paper>
    </Box>
  )
}

interface SecretProps {
  label: string
  value: string
  set: (value: string) => void
  complete: string
}

function Secret({ label, value, set, complete }: SecretProps) {
  return (
    <TextField
      label={label}
      type="password"
      fullWidth
      margin="dense"
      value={value}
      autoComplete={complete}
      onChange={(e) => set(e.target.value)}
    />
  )
}
