/** The work list for the shop floor, ticked at the bench as it is done. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import LinearProgress from '@mui/material/LinearProgress'
import { useState } from 'react'
import { client, got } from '../../api/client'
import { Rows } from '../../kit/Rows'
import { useProject } from '../../project/store'
import { MONO, QUIET } from '../../theme/theme'
import { NOW } from './shapes'
import type { Differences } from './shapes'

type Job = Differences['work'][number]

interface Props {
  jobs: Job[]
  /** "" when it is a file that is compared with: then nothing is ticked. */
  since: string
  until: string
}

export function WorkList({ jobs, since, until }: Props) {
  const tickable = since !== '' && until === NOW
  const projectId = useProject((s) => s.projectId)
  const [ticked, setTicked] = useState<Record<string, string> | null>(null)
  const by = (job: Job) => (ticked ? (ticked[job.key] ?? '') : job.done_by)
  const done = jobs.filter((j) => by(j)).length
  const tick = (job: Job, on: boolean) => {
    const path = { project_id: projectId }
    void got(
      client.POST('/api/projects/{project_id}/work-list/tick', {
        params: { path },
        body: { since, job: job.key, done: on },
      }),
    ).then(setTicked)
  }
  if (!jobs.length) return <Box sx={{ p: 3, color: QUIET }}>There is nothing to do at the bench.</Box>
  return (
    <>
      {since && <AsFile since={since} until={until} />}
      {tickable && (
        <Box sx={{ px: 1.5, py: 1 }}>
          <Box sx={{ fontSize: 12.5, color: QUIET }}>
            {done} of {jobs.length} done at the bench
          </Box>
          <LinearProgress
            variant="determinate"
            value={(100 * done) / jobs.length}
            aria-label="Done at the bench"
          />
        </Box>
      )}
      <Rows
        label="Work list"
        columns={[...(tickable ? [''] : []), 'Place', 'Do', 'What', 'From', 'To', 'Now to', 'Type or part']}
      >
        {jobs.map((j, n) => (
          <OneJob key={`${j.key} ${n}`} job={j} by={by(j)} tick={tickable ? (on) => tick(j, on) : null} />
        ))}
      </Rows>
    </>
  )
}

/** The list for a bench without a screen. */
function AsFile({ since, until }: { since: string; until: string }) {
  const projectId = useProject((s) => s.projectId)
  const query = new URLSearchParams({ since, until }).toString()
  return (
    <Box
      sx={{ px: 1.5, pt: 1, display: 'flex', gap: 0.75, alignItems: 'center', fontSize: 12.5, color: QUIET }}
    >
      Take it to the bench as
      {['pdf', 'xlsx', 'csv'].map((format) => (
        <Button
          key={format}
          variant="outlined"
          sx={{ py: 0.1, px: 0.75, minWidth: 0, fontSize: 12.5 }}
          href={`/api/projects/${projectId}/states-compared/work-list/${format}?${query}`}
        >
          {format.toUpperCase()}
        </Button>
      ))}
    </Box>
  )
}

/** One job; without `tick` it is only read. */
function OneJob({ job, by, tick }: { job: Job; by: string; tick: ((on: boolean) => void) | null }) {
  return (
    <tr>
      {tick && (
        <td style={{ width: 34 }}>
          <Checkbox
            size="small"
            sx={{ p: 0 }}
            checked={by !== ''}
            title={by ? `ticked by ${by}` : ''}
            slotProps={{ input: { 'aria-label': `${job.act} ${job.what} done` } }}
            onChange={(e) => tick(e.target.checked)}
          />
        </td>
      )}
      <td style={{ whiteSpace: 'nowrap' }}>{job.place}</td>
      <td>
        <b>{job.act}</b>
      </td>
      {[job.what, job.start, job.end, job.now_to].map((words, i) => (
        <td key={i} style={{ fontFamily: MONO }}>
          {words}
        </td>
      ))}
      <td>{job.kind}</td>
    </tr>
  )
}
