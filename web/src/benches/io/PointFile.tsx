/**
 * Bringing in a list of points: the sheet is chosen, what each column holds is said, every row is checked and shown
 * with what it would do; nothing is taken in before.
 */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import { useState } from 'react'
import { asGiven, client, got, makeEdit, wordsOf } from '../../api/client'
import { fileBody } from '../../api/upload'
import { Empty } from '../../kit/Bench'
import { Pick } from '../../kit/Pick'
import { remember, remembered } from '../../kit/remember'
import { TableBar } from '../../kit/TableBar'
import { usePick } from '../../project/store'
import { QUIET, SNAG } from '../../theme/theme'
import { CheckTable } from './CheckTable'
import type { ListRead } from './shapes'

type Said = Record<string, string>

const MEMORY = 'point-columns'

/** Reading a file with what was said of its sheet and columns; what was said of columns is remembered. */
function useReading() {
  const { projectId, say } = usePick('projectId', 'say')
  const [file, setFile] = useState<File | null>(null)
  const [read, setRead] = useState<ListRead | null>(null)
  const [said, setSaid] = useState<Said>(() => remembered<Said>(MEMORY, {}))
  const [problem, setProblem] = useState('')
  const [busy, setBusy] = useState(false)
  const look = async (from: File, sheet: string, mapping: Said) => {
    setFile(from)
    setBusy(true)
    try {
      setRead(
        await got(
          client.POST('/api/projects/{project_id}/io/read', {
            params: { path: { project_id: projectId } },
            ...fileBody(from, { sheet, mapping: JSON.stringify(mapping) }),
          }),
        ),
      )
      setProblem('')
    } catch (error) {
      setRead(null)
      setProblem(wordsOf(error))
      say(wordsOf(error), 'error')
    } finally {
      setBusy(false)
    }
  }
  return {
    file,
    read,
    busy,
    problem,
    choose: (from: File | undefined) => from && void look(from, '', said),
    sheet: (name: string) => file && void look(file, name, said),
    column: (heading: string, key: string) => {
      const next = { ...said, [heading]: key }
      setSaid(next)
      remember(MEMORY, next)
      if (file) void look(file, read?.sheet ?? '', next)
    },
  }
}

export function PointFile({ done }: { done: () => void }) {
  const { send } = usePick('send')
  const { file, read, busy, problem, choose, sheet, column } = useReading()
  const [drop, setDrop] = useState(false)
  const counts = countsOf(read)
  const gone = drop ? (read?.gone ?? []) : []
  const take = () => {
    if (!read) return
    const fresh = new Set(
      read.rows.filter((r) => r.change === 'added' || r.change === 'changed').map((r) => r.tag),
    )
    const points = read.points.filter((p) => fresh.has(p.tag ?? ''))
    void send(makeEdit('take-in-points', { points: points.map((p) => asGiven(p)), gone })).then(
      (answer) => answer && done(),
    )
  }
  return (
    <Box component="section" aria-label="Point list to take in" sx={COLUMN}>
      <TableBar>
        <Button variant="outlined" component="label">
          Choose a CSV or XLSX file
          <input
            hidden
            type="file"
            accept=".csv,.xlsx,.txt"
            data-testid="point-file"
            onChange={(e) => choose(e.target.files?.[0])}
          />
        </Button>
        <span style={{ color: QUIET, fontSize: 12.5, overflow: 'hidden', whiteSpace: 'nowrap' }}>
          {file?.name}
        </span>
        {read && read.sheets.length > 1 && (
          <Pick
            label="Sheet"
            value={read.sheet}
            options={read.sheets.map((s) => ({ id: s, name: s }))}
            onPick={sheet}
            sx={{ minWidth: 120 }}
          />
        )}
        <span style={{ flex: 1 }} />
        <Button onClick={done}>Close</Button>
        {read && (
          <Button variant="contained" disabled={busy || counts.news + gone.length === 0} onClick={take}>
            Take in {counts.news}
          </Button>
        )}
      </TableBar>
      {(problem || read?.problem) && (
        <Box role="alert" sx={{ p: 1.5, color: SNAG }}>
          {problem || read?.problem}
        </Box>
      )}
      {!read && !problem && <HowLists />}
      {read && <Found {...{ read, column, drop, setDrop }} said={counts.said} />}
    </Box>
  )
}

/** What a list may hold. */
function HowLists() {
  return (
    <Empty>
      A list of points comes as XLSX or CSV. The row of headings is found below titles; Tag and Type are
      needed, everything else may be there: Text, Second text, Signal, Device, Function, Location, Connected
      to, Range, Unit, At rest, Terminals, Cable, Remark. Columns with other headings are said here once and
      remembered. Nothing is taken in before it was shown.
    </Empty>
  )
}

const COLUMN = { flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' } as const

function countsOf(read: ListRead | null) {
  const count = (change: string) => read?.rows.filter((r) => r.change === change).length ?? 0
  const [added, changed, same, faulty] = ['added', 'changed', 'same', 'faulty'].map(count) as [
    number,
    number,
    number,
    number,
  ]
  const said = `${added} added, ${changed} changed, ${same} as they are, ${faulty} faulty`
  return { news: added + changed, said }
}

interface FoundProps {
  read: ListRead
  said: string
  column: (heading: string, key: string) => void
  drop: boolean
  setDrop: (drop: boolean) => void
}

function Found({ read, said, column, drop, setDrop }: FoundProps) {
  const options = [
    { id: '-', name: 'not taken in' },
    { id: 'own', name: 'a column of our own' },
    ...read.fields.map((f) => ({ id: f.key, name: f.heading })),
  ]
  return (
    <>
      <Box
        component="section"
        aria-label="What the columns hold"
        sx={{
          display: 'flex',
          flexWrap: 'wrap',
          gap: 0.75,
          px: 1.5,
          py: 0.5,
          maxHeight: 160,
          overflow: 'auto',
        }}
      >
        {read.columns.map((c) => (
          <Pick
            key={c.heading}
            label={c.heading}
            margin="dense"
            value={c.key}
            options={options}
            sx={{ width: 138 }}
            onPick={(key) => column(c.heading, key)}
          />
        ))}
      </Box>
      <Box sx={{ px: 1.5, pb: 0.5, fontSize: 12.5, color: QUIET }}>
        Headings in row {read.heading_row}; {said}.
        {read.gone.length > 0 && (
          <FormControlLabel
            sx={{ ml: 1 }}
            control={<Checkbox size="small" checked={drop} onChange={(e) => setDrop(e.target.checked)} />}
            label={
              <span style={{ fontSize: 12.5 }}>
                delete the {read.gone.length} that {read.gone.length > 1 ? 'are' : 'is'} not in the file:{' '}
                {read.gone.slice(0, 8).join(', ')}
                {read.gone.length > 8 ? ' …' : ''}
              </span>
            }
          />
        )}
      </Box>
      <CheckTable read={read} />
    </>
  )
}
