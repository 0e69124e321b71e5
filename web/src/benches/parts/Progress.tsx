/** How far long work has come, and a button to stop it. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import LinearProgress from '@mui/material/LinearProgress'
import { useQuery } from '@tanstack/react-query'
import { client, got } from '../../api/client'

export interface Work {
  name: string
  words: string
}

const ASK_MS = 300

export function Progress({ work }: { work: Work }) {
  const query = { name: work.name }
  const told = useQuery({
    queryKey: ['progress', work.name],
    queryFn: async () =>
      (await got(client.GET('/api/library/import/progress', { params: { query } }))) as {
        stage: string
        done: number
        total: number
      },
    refetchInterval: ASK_MS,
    gcTime: 0,
  }).data
  const known = told !== undefined && told.total > 0
  return (
    <Box sx={{ mt: 1.5, display: 'flex', gap: 1.5, alignItems: 'center' }} role="status">
      <Box sx={{ flex: 1 }}>
        {known ? `${told.stage}: ${told.done} of ${told.total}` : `${work.words}…`}
        <LinearProgress
          sx={{ mt: 0.5 }}
          variant={known ? 'determinate' : 'indeterminate'}
          value={known ? (100 * told.done) / told.total : 0}
        />
      </Box>
      <Button onClick={() => void client.POST('/api/library/import/stop', { params: { query } })}>
        Stop
      </Button>
    </Box>
  )
}
