/** What changed between two states: the list for the shop, things by kind, and the drawings. */
import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import Tab from '@mui/material/Tab'
import Tabs from '@mui/material/Tabs'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { client, got } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { FileAct } from '../../kit/FileAct'
import { Empty } from '../../kit/Bench'
import { Rows } from '../../kit/Rows'
import { TableBar } from '../../kit/TableBar'
import { usePick } from '../../project/store'
import { QUIET } from '../../theme/theme'
import { ChangedSheets } from './ChangedSheets'
import { NOW, type Revisions } from './shapes'
import { fileBody } from '../../api/upload'
import { WorkList } from './WorkList'
import type { Differences } from './shapes'

type Change = Schemas['ThingChanged']

const KINDS = {
  device: 'Devices',
  wire: 'Wires',
  terminal: 'Terminals',
  accessory: 'Accessories',
  bridge: 'Bridges',
  core: 'Cores',
  point: 'Points',
  rail: 'Rails',
  duct: 'Ducts',
  lane: 'Lanes',
  crossing: 'Crossings',
  harness: 'Harnesses',
  segment: 'Segments',
  fitting: 'Fittings',
  'wire type': 'Wire types',
  part: 'Parts',
  text: 'Texts',
  sheet: 'Sheets',
  place: 'Places',
  project: 'Project',
} as const

/** What is compared: two states by name, or the present with a file that somebody gives. */
function useCompared(revisions: Revisions) {
  const { projectId, revision } = usePick('projectId', 'revision')
  const [search, setSearch] = useSearchParams()
  const kept = revisions.revisions.filter((r) => r.kept)
  const since = search.get('since') ?? kept[0]?.id ?? ''
  const until = search.get('until') ?? NOW
  const [given, setGiven] = useState<Differences | null>(null)
  const [problem, setProblem] = useState('')
  const path = { project_id: projectId }
  const asked = useQuery({
    queryKey: ['what-changed', projectId, since, until, until === NOW ? revision : 0],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/states-compared', {
          params: { path, query: { since, until } },
        }),
      ),
    enabled: since !== '' && given === null,
    staleTime: 0,
  })
  const read = (file: File) => {
    setProblem('')
    got(client.POST('/api/projects/{project_id}/what-changed', { params: { path }, ...fileBody(file) })).then(
      setGiven,
      (error: unknown) => {
        setGiven(null)
        setProblem(error instanceof Error ? error.message : String(error))
      },
    )
  }
  const choose = (values: { since?: string; until?: string }) => {
    setGiven(null)
    setProblem('')
    setSearch({ show: 'changes', since, until, ...values })
  }
  const found = given ?? asked.data
  return { kept, since, until, given, found, read, choose, problem: problem || (asked.error?.message ?? '') }
}

export function WhatChanged({ revisions }: { revisions: Revisions }) {
  const state = useCompared(revisions)
  const { kept, since, until, given, found, problem } = state
  const [shown, setShown] = useState('work')
  const states = kept.map((r) => ({ id: r.id, name: r.index }))
  return (
    <>
      <TableBar>
        <b>What changed</b>
        {states.length > 0 && (
          <>
            <StateChoice
              name="from"
              value={given ? '' : since}
              options={states}
              pick={(id) => state.choose({ since: id })}
            />
            <StateChoice
              name="to"
              value={until}
              options={[...states, { id: NOW, name: 'now' }]}
              pick={(id) => state.choose({ until: id })}
            />
          </>
        )}
        <Box sx={{ flex: 1, fontSize: 12.5, color: QUIET }}>{found && `since ${found.since}`}</Box>
        <FileAct name="Earlier project file" accept=".json" take={state.read}>
          Since a project file…
        </FileAct>
      </TableBar>
      {problem && <Alert severity="error">{problem}</Alert>}
      {!found && !problem && (
        <Empty>
          {since
            ? 'Comparing both states…'
            : 'No revision is frozen yet. Choose a project file that was taken out earlier: what is other now is listed, with what the shop has to do where the panel was built to that file.'}
        </Empty>
      )}
      {found && <Shown {...{ found, shown, setShown, since: given ? '' : since, until }} />}
    </>
  )
}

interface ChoiceProps {
  name: string
  value: string
  options: { id: string; name: string }[]
  pick: (id: string) => void
}

/** One of the states, its word in front of it. */
function StateChoice({ name, value, options, pick }: ChoiceProps) {
  return (
    <>
      <span style={{ fontSize: 12.5, color: QUIET }}>{name}</span>
      <Select
        size="small"
        sx={{ height: 28, minWidth: 72, fontSize: 13, bgcolor: '#fff' }}
        value={value}
        SelectDisplayProps={{ 'aria-label': `${name} which state` }}
        onChange={(e) => pick(e.target.value)}
      >
        {options.map((o) => (
          <MenuItem key={o.id} value={o.id}>
            {o.name}
          </MenuItem>
        ))}
      </Select>
    </>
  )
}

interface ShownProps {
  found: Differences
  shown: string
  setShown: (kind: string) => void
  /** "" when it is a file that is compared with. */
  since: string
  until: string
}

function Shown({ found, shown, setShown, since, until }: ShownProps) {
  const of = (kind: string) => found.changes.filter((c) => c.kind === kind)
  const kinds = Object.entries(KINDS).filter(([kind]) => of(kind).length)
  return (
    <>
      <Tabs
        value={shown}
        onChange={(_, kind: string) => setShown(kind)}
        variant="scrollable"
        sx={{ flexShrink: 0 }}
      >
        <Tab value="work" label={`Work list for the shop ${found.work.length}`} />
        {kinds.map(([kind, name]) => (
          <Tab key={kind} value={kind} label={`${name} ${of(kind).length}`} />
        ))}
        <Tab value="drawings" label={`Drawings ${found.sheets.length}`} />
      </Tabs>
      <Box sx={{ flex: 1, minHeight: 0, overflow: 'auto', display: 'flex', flexDirection: 'column' }}>
        {shown === 'work' && <WorkList jobs={found.work} since={since} until={until} />}
        {shown === 'drawings' && <ChangedSheets sheets={found.sheets} since={since} until={until} />}
        {shown in KINDS && <Changes changes={of(shown)} />}
      </Box>
    </>
  )
}

/** Things that changed; what is still there is a step away. */
function Changes({ changes }: { changes: Change[] }) {
  const { projectId } = usePick('projectId')
  return (
    <Rows label="Changes" columns={['', 'What changed', '']}>
      {changes.map((c, n) => (
        <tr key={n}>
          <td>{c.act}</td>
          <td>{c.words}</td>
          <td>{c.to && <Link to={`/p/${projectId}/${c.to}`}>Look at it</Link>}</td>
        </tr>
      ))}
    </Rows>
  )
}
