/** What changed since an earlier project file: the list for the shop, things by kind, and the drawings. */
import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import Tab from '@mui/material/Tab'
import Tabs from '@mui/material/Tabs'
import Typography from '@mui/material/Typography'
import { useRef, useState } from 'react'
import { Link } from 'react-router'
import { client, got } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { Empty } from '../../kit/Bench'
import { Rows } from '../../kit/Rows'
import { MONO, QUIET } from '../../theme/theme'

type Found = Schemas['WhatChanged']
type Change = Schemas['ThingChanged']

const KINDS = {
  device: 'Devices',
  wire: 'Wires',
  terminal: 'Terminals',
  core: 'Cores',
  point: 'Points',
  part: 'Parts',
  text: 'Texts',
  sheet: 'Sheets',
} as const

async function ask(projectId: string, file: File): Promise<Found> {
  const body = new FormData()
  body.append('file', file)
  return got(
    client.POST('/api/projects/{project_id}/what-changed', {
      params: { path: { project_id: projectId } },
      body: body as never,
      bodySerializer: (b) => b as never,
    }),
  )
}

export function WhatChanged({ projectId }: { projectId: string }) {
  const [found, setFound] = useState<Found | null>(null)
  const [problem, setProblem] = useState('')
  const [shown, setShown] = useState('work')
  const input = useRef<HTMLInputElement>(null)
  const choose = (file: File | undefined) => {
    if (!file) return
    setProblem('')
    ask(projectId, file).then(setFound, (error: unknown) => {
      setFound(null)
      setProblem(error instanceof Error ? error.message : String(error))
    })
  }
  return (
    <>
      <Stack direction="row" spacing={1} sx={{ mb: 1.5, alignItems: 'center' }}>
        <Typography component="h1" variant="h6" sx={{ flex: 1 }}>
          What changed
        </Typography>
        <input
          ref={input}
          type="file"
          hidden
          aria-label="Earlier project file"
          accept=".json"
          onChange={(e) => {
            choose(e.target.files?.[0])
            e.target.value = '' // the same file, written anew, may be chosen again
          }}
        />
        <Button variant="outlined" onClick={() => input.current?.click()}>
          Since a project file…
        </Button>
      </Stack>
      {problem && <Alert severity="error">{problem}</Alert>}
      {!found && !problem && (
        <Empty>
          Choose a project file that was taken out earlier. What is other now is listed, with what the shop
          has to do where the panel was built to that file.
        </Empty>
      )}
      {found && <Shown {...{ found, shown, setShown, projectId }} />}
    </>
  )
}

interface ShownProps {
  found: Found
  shown: string
  setShown: (kind: string) => void
  projectId: string
}

function Shown({ found, shown, setShown, projectId }: ShownProps) {
  const of = (kind: string) => found.changes.filter((c) => c.kind === kind)
  const kinds = Object.entries(KINDS).filter(([kind]) => of(kind).length)
  return (
    <>
      <Box sx={{ color: QUIET, fontSize: 12.5 }}>since {found.since}</Box>
      <Tabs value={shown} onChange={(_, kind: string) => setShown(kind)} variant="scrollable">
        <Tab value="work" label={`Work list for the shop ${found.work.length}`} />
        {kinds.map(([kind, name]) => (
          <Tab key={kind} value={kind} label={`${name} ${of(kind).length}`} />
        ))}
        <Tab value="drawings" label={`Drawings ${found.sheets.length}`} />
      </Tabs>
      <Box sx={{ flex: 1, minHeight: 0, overflow: 'auto' }}>
        {shown === 'work' && <Work jobs={found.work} />}
        {shown === 'drawings' && <Drawings sheets={found.sheets} projectId={projectId} />}
        {shown in KINDS && <Changes changes={of(shown)} projectId={projectId} />}
      </Box>
    </>
  )
}

function Work({ jobs }: { jobs: Found['work'] }) {
  return (
    <Rows label="Work list" columns={['Place', 'Do', 'What', 'From', 'To', 'Now to', 'Type or part']}>
      {jobs.map((j, n) => (
        <tr key={n}>
          <td>{j.place}</td>
          <td>
            <b>{j.act}</b>
          </td>
          {[j.what, j.start, j.end, j.now_to].map((words, i) => (
            <td key={i} style={{ fontFamily: MONO }}>
              {words}
            </td>
          ))}
          <td>{j.kind}</td>
        </tr>
      ))}
    </Rows>
  )
}

/** Things that changed; what is still there is a step away. */
function Changes({ changes, projectId }: { changes: Change[]; projectId: string }) {
  return (
    <Rows label="Changes" columns={['', 'What changed', '']}>
      {changes.map((c, n) => (
        <tr key={n}>
          <td>{c.act}</td>
          <td>{c.words}</td>
          <td>
            {c.sheet_id && (
              <Link to={`/p/${projectId}/draw/${c.sheet_id}?sel=${c.ids[0] ?? ''}`}>Look at it</Link>
            )}
          </td>
        </tr>
      ))}
    </Rows>
  )
}

function Drawings({ sheets, projectId }: { sheets: Found['sheets']; projectId: string }) {
  return (
    <Rows label="Drawings" columns={['Sheet', 'New', 'Gone', 'Otherwise', '']}>
      {sheets.map((s) => (
        <tr key={s.sheet_id}>
          <td style={{ fontFamily: MONO }}>{s.number}</td>
          <td>{s.added}</td>
          <td>{s.gone}</td>
          <td>{s.other}</td>
          <td>{s.there && <Link to={`/p/${projectId}/draw/${s.sheet_id}`}>Look at it</Link>}</td>
        </tr>
      ))}
    </Rows>
  )
}
