/** The invitations that wait for the person. */
import Button from '@mui/material/Button'
import Paper from '@mui/material/Paper'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { client, got, wordsOf } from '../api/client'

export function Invitations({ onTaken }: { onTaken: () => void }) {
  const queries = useQueryClient()
  const { enqueueSnackbar } = useSnackbar()
  const waiting = useQuery({
    queryKey: ['invitations'],
    queryFn: () => got(client.GET('/api/invitations')),
    refetchInterval: 15_000,
  })
  const answer = async (id: number, said: 'take' | 'decline') => {
    try {
      const left = await got(
        client.POST('/api/invitations/{invitation_id}/{answer}', {
          params: { path: { invitation_id: id, answer: said } },
        }),
      )
      queries.setQueryData(['invitations'], left)
      onTaken()
    } catch (error) {
      enqueueSnackbar(wordsOf(error), { variant: 'error' })
    }
  }
  return (
    <>
      {(waiting.data ?? []).map((i) => (
        <Paper
          key={i.id}
          variant="outlined"
          sx={{ p: 1.5, mb: 1.5, display: 'flex', gap: 1, alignItems: 'center', bgcolor: '#F1F7F5' }}
        >
          <span style={{ flex: 1 }}>
            {i.by || 'Somebody'} invites you to <b>{[i.number, i.project].filter(Boolean).join(' ')}</b> as{' '}
            {i.role}.
          </span>
          <Button variant="contained" onClick={() => void answer(i.id, 'take')}>
            Take part
          </Button>
          <Button onClick={() => void answer(i.id, 'decline')}>Decline</Button>
        </Paper>
      ))}
    </>
  )
}
