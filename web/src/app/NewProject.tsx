/** Making a project: a preset of habits, or a project that is kept as a starting point. */
import { Pick } from '../kit/Pick'
import Button from '@mui/material/Button'
import Paper from '@mui/material/Paper'
import TextField from '@mui/material/TextField'
import { useQuery } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { client, got, wordsOf } from '../api/client'

/** What a project may begin like: the habits of a continent, or a project kept as a starting point. */
function useHabits() {
  const starters = useQuery({
    queryKey: ['starters'],
    queryFn: () => got(client.GET('/api/projects/starters')),
  })
  return [
    { id: 'iec', name: 'IEC, metric' },
    { id: 'na', name: 'North American, AWG' },
    ...(starters.data ?? []).map((s) => ({ id: s.id, name: `like ${s.number} ${s.name}` })),
  ]
}

export function NewProject({ close }: { close: () => void }) {
  const go = useNavigate()
  const { enqueueSnackbar } = useSnackbar()
  const [name, setName] = useState('')
  const [number, setNumber] = useState('')
  const [customer, setCustomer] = useState('')
  const [from, setFrom] = useState('iec')
  const habits = useHabits()
  const make = async () => {
    const preset = from === 'iec' || from === 'na'
    const standard: 'iec' | 'na' = from === 'na' ? 'na' : 'iec'
    const start = { standard, start_from: preset ? '' : from }
    try {
      const made = await got(client.POST('/api/projects', { body: { name, number, customer, ...start } }))
      void go(`/p/${made.id}`)
    } catch (error) {
      enqueueSnackbar(wordsOf(error), { variant: 'error' })
    }
  }
  return (
    <Paper
      variant="outlined"
      component="form"
      aria-label="New project"
      sx={{ p: 2, mb: 2, display: 'flex', gap: 1, alignItems: 'center' }}
      onSubmit={(e) => {
        e.preventDefault()
        void make()
      }}
    >
      <TextField
        label="Name"
        autoFocus
        value={name}
        onChange={(e) => setName(e.target.value)}
        sx={{ flex: 2 }}
      />
      <TextField
        label="Number"
        value={number}
        onChange={(e) => setNumber(e.target.value)}
        sx={{ width: 120 }}
      />
      <TextField
        label="Customer"
        value={customer}
        onChange={(e) => setCustomer(e.target.value)}
        sx={{ flex: 1 }}
      />
      <Pick label="Habits" value={from} options={habits} onPick={setFrom} sx={{ width: 230 }} />
      <Button type="submit" variant="contained" disabled={!name.trim()}>
        Make
      </Button>
      <Button onClick={close}>Cancel</Button>
    </Paper>
  )
}
