/** Freezing a revision: what it is called and who stands for it, which sheets get its index, what would be wrong. */
import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { client, got } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { Empty } from '../../kit/Bench'
import { Section } from '../../kit/Section'
import { TableBar } from '../../kit/TableBar'
import { useProject } from '../../project/store'
import { useBench } from '../../project/useBench'
import { Findings } from './CheckPage'
import type { Revisions } from './shapes'

interface Props {
  revisions: Revisions
  done: (id: string) => void
}

const today = () => new Date().toLocaleDateString('sv')
const FIELDS = [
  ['index', 'Index'],
  ['issued_on', 'Date'],
  ['drawn_by', 'Drawn by'],
  ['checked_by', 'Checked by'],
  ['released_by', 'Released by'],
] as const

/** What is typed, what would come of it, and the act itself. */
function useFreezing(revisions: Revisions, done: Props['done']) {
  const projectId = useProject((s) => s.projectId)
  const path = { project_id: projectId }
  const [facts, setFacts] = useState({
    index: revisions.next_index,
    text: '',
    issued_on: today(),
    drawn_by: '',
    checked_by: '',
    released_by: '',
    reason: '',
  })
  const next = useBench<Schemas['BeforeFreezing']>('freezing', () =>
    got(client.GET('/api/projects/{project_id}/revisions/next', { params: { path } })),
  ).data
  const freezing = useMutation({
    mutationFn: () =>
      got(
        client.POST('/api/projects/{project_id}/revisions/freeze', {
          params: { path },
          body: { kind: 'freeze-revision', ...facts },
        }),
      ),
    onSuccess: (found) => done(found.revisions[0]?.id ?? ''),
  })
  const put = (values: Partial<typeof facts>) => setFacts({ ...facts, ...values })
  const errors = next?.findings.some((f) => f.code === 'snags-error') ?? false
  const wanted = [
    !facts.index.trim() && 'which index it has',
    !facts.text.trim() && 'what changed',
    errors && !facts.reason.trim() && 'why it is frozen with errors',
  ].filter(Boolean)
  return { facts, put, next, freezing, errors, wanted }
}

export function FreezePage({ revisions, done }: Props) {
  const { facts, put, next, freezing, errors, wanted } = useFreezing(revisions, done)
  return (
    <>
      <TableBar>
        <b>Freeze a revision</b>
      </TableBar>
      <Box sx={{ flex: 1, minHeight: 0, overflow: 'auto', p: 2 }}>
        <Box
          component="form"
          aria-label="Freeze a revision"
          sx={{ maxWidth: 820, display: 'grid', gap: 2 }}
          onSubmit={(e) => {
            e.preventDefault()
            if (!wanted.length) freezing.mutate()
          }}
        >
          <Box sx={{ display: 'grid', gridTemplateColumns: '90px 130px 1fr 1fr 1fr', gap: 1 }}>
            {FIELDS.map(([key, label]) => (
              <TextField
                key={key}
                label={label}
                value={facts[key]}
                onChange={(e) => put({ [key]: e.target.value })}
              />
            ))}
          </Box>
          <TextField
            fullWidth
            label="What changed, as the table of revisions says it"
            value={facts.text}
            onChange={(e) => put({ text: e.target.value })}
          />
          {errors && (
            <TextField
              fullWidth
              label="Errors are left: why is it frozen so? This is kept"
              value={facts.reason}
              onChange={(e) => put({ reason: e.target.value })}
            />
          )}
          {freezing.error && <Alert severity="error">{freezing.error.message}</Alert>}
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5 }}>
            <Button type="submit" variant="contained" disabled={wanted.length > 0 || freezing.isPending}>
              Freeze as {facts.index || '…'}
            </Button>
            {wanted.length > 0 && (
              <Box sx={{ fontSize: 13, color: 'text.secondary' }}>Say first {wanted.join(', and ')}.</Box>
            )}
          </Box>
        </Box>
        {next ? <Before next={next} /> : <Empty>Looking at every sheet…</Empty>}
      </Box>
    </>
  )
}

function Before({ next }: { next: Schemas['BeforeFreezing'] }) {
  return (
    <>
      <Section title="On paper">
        <Box sx={{ fontSize: 13 }} data-testid="new-index">
          {next.changed.length
            ? `Sheet${next.changed.length > 1 ? 's' : ''} ${next.changed.join(', ')} get${next.changed.length > 1 ? '' : 's'} the new index`
            : 'No sheet has changed'}
          {next.kept > 0 && `; ${next.kept} keep${next.kept === 1 ? 's' : ''} theirs`}.
        </Box>
      </Section>
      <Section title="Before it is frozen">
        <Findings found={next.findings} />
      </Section>
    </>
  )
}
