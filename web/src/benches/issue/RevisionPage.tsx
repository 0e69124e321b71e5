/** A frozen revision: what the table of revisions says of it, its papers, opened to be read. */
import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { useNavigate } from 'react-router'
import { client, got } from '../../api/client'
import { Act } from '../../kit/Act'
import { Rows } from '../../kit/Rows'
import { Section } from '../../kit/Section'
import { TableBar } from '../../kit/TableBar'
import { usePick } from '../../project/store'
import { MONO } from '../../theme/theme'
import type { RevisionLine } from './shapes'

interface Props {
  line: RevisionLine
  last: boolean
  canEdit: boolean
  refresh: () => void
  compare: () => void
  go: (shown: string) => void
}

const EVERY_MS = 500

export function RevisionPage({ line, last, canEdit, refresh, compare, go }: Props) {
  const { projectId, send } = usePick('projectId', 'send')
  const navigate = useNavigate()
  const queries = useQueryClient()
  const path = { project_id: projectId, revision_id: line.id }
  const open = useMutation({
    mutationFn: () =>
      got(client.POST('/api/projects/{project_id}/revisions/{revision_id}/open', { params: { path } })),
    onSuccess: (found) => void navigate(`/p/${found.project_id}/draw`),
  })
  const make = useMutation({
    mutationFn: () =>
      got(
        client.POST('/api/projects/{project_id}/revisions/{revision_id}/papers', {
          params: { path },
          body: { pack_id: '' },
        }),
      ),
    onSettled: () => void queries.invalidateQueries({ queryKey: ['bench', 'revisions'] }),
  })
  useEffect(() => {
    if (line.papers !== 'making') return
    const timer = window.setInterval(refresh, EVERY_MS)
    return () => window.clearInterval(timer)
  }, [line.papers, refresh])
  const problem = open.error ?? make.error
  const takeOut = async () => {
    if (await send({ kind: 'remove-revision', revision_id: line.id })) go('changes')
  }
  return (
    <>
      <TableBar>
        <b>Revision {line.index}</b>
        <Box sx={{ flex: 1 }} />
        {line.kept && <Act onClick={compare}>What changed since</Act>}
        {line.kept && <Act onClick={() => open.mutate()}>Open to read</Act>}
        {canEdit && last && (
          <Act hint="Frozen by mistake: what was issued stays issued" onClick={() => void takeOut()}>
            Take it out of the table
          </Act>
        )}
      </TableBar>
      <Box sx={{ flex: 1, minHeight: 0, overflow: 'auto', p: 2 }}>
        {problem && <Alert severity="error">{problem.message}</Alert>}
        <Facts line={line} />
        <PapersOf {...{ line, canEdit }} make={() => make.mutate()} />
      </Box>
    </>
  )
}

/** What the table of revisions says. */
function Facts({ line }: { line: RevisionLine }) {
  return (
    <Rows label="Revision" columns={['', '']}>
      {[
        ['What changed', line.text],
        ['Date', line.issued_on],
        ['Drawn by', line.drawn_by],
        ['Checked by', line.checked_by],
        ['Released by', line.released_by],
        ['Sheets with this index', line.sheets.join(', ') || 'none'],
        ['Frozen with errors because', line.reason],
      ]
        .filter(([, words]) => words)
        .map(([name, words]) => (
          <tr key={name}>
            <td style={{ width: 200 }}>{name}</td>
            <td>{words}</td>
          </tr>
        ))}
    </Rows>
  )
}

function PapersOf({ line, canEdit, make }: { line: RevisionLine; canEdit: boolean; make: () => void }) {
  return (
    <Section title="Papers">
      {!line.kept && 'This revision came with a project file: no papers of it are kept here.'}
      {line.papers === 'making' && <Alert severity="info">Its papers are being written…</Alert>}
      {line.kept && line.papers === 'none' && canEdit && (
        <Button variant="outlined" onClick={make}>
          Write its papers
        </Button>
      )}
      {line.papers === 'ready' && <Papers line={line} />}
    </Section>
  )
}

function Papers({ line }: { line: RevisionLine }) {
  const { projectId } = usePick('projectId')
  return (
    <>
      <Button
        variant="outlined"
        href={`/api/projects/${projectId}/revisions/${line.id}/papers.zip`}
        sx={{ mb: 1 }}
      >
        Take its papers, ZIP
      </Button>
      <Rows label="Frozen papers" columns={['File', 'SHA-256']}>
        {line.files.map((f) => (
          <tr key={f.name}>
            <td style={{ fontFamily: MONO }}>{f.name}</td>
            <td style={{ fontFamily: MONO, color: '#777' }}>{f.digest.slice(0, 24)}…</td>
          </tr>
        ))}
      </Rows>
    </>
  )
}
