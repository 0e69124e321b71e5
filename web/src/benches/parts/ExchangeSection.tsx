/** Parts in and out: a library as a file, and a table read with every bad cell named before anything is taken in. */
import type { Schemas } from '../../api/shapes'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { client, got, wordsOf } from '../../api/client'
import { fileBody } from '../../api/upload'
import { MONO, QUIET, SNAG, TEAL } from '../../theme/theme'
import { Bench } from '../../kit/Bench'
import { Pick } from '../../kit/Pick'
import { Rows } from '../../kit/Rows'
import { Section } from '../../kit/Section'
import { useProject } from '../../project/store'
import { Progress, type Work } from './Progress'
import { useShelves, type Shelf } from './kinds'
import { counted } from '../../kit/counted'

type Look = Schemas['TableRead']

/** Sending a file to be read or taken in, with its progress. */
function useSending(shelf: string) {
  const [busy, setBusy] = useState<Work | null>(null)
  const [problem, setProblem] = useState('')
  const send = async <T,>(
    words: string,
    from: File,
    mapping: Record<string, string> | null,
    ask: (options: { body: never; bodySerializer: (b: unknown) => never }) => Promise<T>,
  ): Promise<T | null> => {
    const name = `${Date.now()}-${Math.round(Math.random() * 1e6)}`
    const said = { shelf, mapping: mapping ? JSON.stringify(mapping) : '', name }
    setBusy({ name, words })
    setProblem('')
    try {
      return await ask(fileBody(from, said))
    } catch (error) {
      setProblem(wordsOf(error))
      return null
    } finally {
      setBusy(null)
    }
  }
  return { busy, problem, send }
}

export function ExchangeSection({ list }: { list: ReactNode }) {
  const shelves = useShelves() ?? []
  const [chosen, setChosen] = useState('')
  const [file, setFile] = useState<File | null>(null)
  const [look, setLook] = useState<Look | null>(null)
  const queries = useQueryClient()
  const shelf = chosen || ((shelves.find((s) => s.may_change) ?? shelves[0])?.id ?? '')
  const { busy, problem, send } = useSending(shelf)
  const read = async (from: File, mapping: Record<string, string> | null) => {
    setFile(from)
    setLook(await send('Reading rows', from, mapping, (o) => got(client.POST('/api/library/import/look', o))))
  }
  const take = async () => {
    if (!file || !look) return
    const done = await send('Taking in', file, look.mapping, (o) =>
      got(client.POST('/api/library/import/take', o)),
    )
    if (!done) return
    for (const key of ['library', 'part', 'shelves', 'makers'])
      void queries.invalidateQueries({ queryKey: [key] })
    useProject
      .getState()
      .say(`${counted(done.taken, 'part')} taken in, ${counted(done.left, 'row')} left out.`)
    setLook(null)
    setFile(null)
  }
  return (
    <Bench name="Parts" list={list}>
      <Box sx={{ p: 2, overflow: 'auto' }}>
        <Box component="h2" sx={{ fontSize: 15, m: 0, mb: 1.5 }}>
          In and out
        </Box>
        <InOut shelf={shelf} shelves={shelves} choose={setChosen} read={(from) => void read(from, null)} />
        {busy && <Progress key={busy.name} work={busy} />}
        {problem && <Box sx={{ color: SNAG, mt: 1.5 }}>{problem}</Box>}
        {look && file && (
          <>
            <Headings look={look} name={file.name} read={(mapping) => void read(file, mapping)} />
            <Counted look={look} busy={busy !== null} take={() => void take()} cancel={() => setLook(null)} />
            {look.problem && (
              <Box role="alert" sx={{ color: SNAG, mb: 1 }}>
                {look.problem}
              </Box>
            )}
            <TableRows look={look} />
          </>
        )}
      </Box>
    </Bench>
  )
}

interface InOutProps {
  shelf: string
  shelves: Shelf[]
  choose: (id: string) => void
  read: (file: File) => void
}

function InOut({ shelf, shelves, choose, read }: InOutProps) {
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
      <Pick label="Library" value={shelf} options={shelves} onPick={choose} sx={{ width: 200 }} />
      {/* Into which library is known first; until then there is nothing to choose a file for. */}
      {shelf &&
        ['xlsx', 'csv', 'json', 'zip'].map((f) => (
          <Button key={f} variant="outlined" href={`/api/library/export.${f}?shelf=${shelf}`}>
            Out as {f.toUpperCase()}
          </Button>
        ))}
      {shelf && (
        <Button variant="contained" component="label">
          Read a table or library file…
          <input
            type="file"
            hidden
            aria-label="Table or library file"
            accept=".xlsx,.csv,.json,.zip"
            onChange={(e) => {
              const from = e.target.files?.[0]
              if (from) read(from)
              e.target.value = ''
            }}
          />
        </Button>
      )}
    </Box>
  )
}

interface HeadingsProps {
  look: Look
  name: string
  read: (mapping: Record<string, string>) => void
}

function Headings({ look, name, read }: HeadingsProps) {
  const meanings = [
    { id: '', name: 'passed over' },
    ...Object.entries(look.fields).map(([id, name]) => ({ id, name })),
  ]
  return (
    <Section title={`Columns of ${name}`}>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(170px, 1fr))',
          gap: 1,
          pt: 0.75,
        }}
      >
        {look.headings.filter(Boolean).map((heading) => (
          <Pick
            key={heading}
            label={heading}
            value={look.mapping[heading] ?? ''}
            options={meanings}
            onPick={(to) => read({ ...look.mapping, [heading]: to })}
          />
        ))}
      </Box>
      <Box sx={{ fontSize: 12, color: QUIET, mt: 0.5 }}>
        What the columns mean is remembered for tables with the same headings.
      </Box>
    </Section>
  )
}

interface CountedProps {
  look: Look
  busy: boolean
  take: () => void
  cancel: () => void
}

function Counted({ look, busy, take, cancel }: CountedProps) {
  const good = look.counts.new + look.counts.changed
  return (
    <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', my: 1.5 }}>
      <span>
        <b>{look.counts.new}</b> new, <b>{look.counts.changed}</b> changed, <b>{look.counts.same}</b> as they
        are, <b style={{ color: look.counts.bad ? SNAG : undefined }}>{look.counts.bad}</b> with faults
        {look.files ? `, ${counted(look.files, 'file')} with them` : ''}
      </span>
      <Button variant="contained" disabled={!good || busy} onClick={take}>
        Take {good} good {good === 1 ? 'row' : 'rows'} in
      </Button>
      <Button onClick={cancel}>Cancel</Button>
    </Box>
  )
}

interface TableRowsProps {
  look: Look
}

function TableRows({ look }: TableRowsProps) {
  return (
    <Rows label="Rows of the table" columns={['Row', 'Part', 'State', 'What']}>
      {look.rows.map((r) => (
        <tr key={r.line}>
          <td>{r.line}</td>
          <td style={{ fontFamily: MONO, whiteSpace: 'nowrap' }}>{`${r.maker} ${r.number}`.trim() || '—'}</td>
          <td style={{ color: r.state === 'bad' ? SNAG : TEAL }}>{r.state}</td>
          <td>
            {r.problems.map((p) => (
              <div key={p.column + p.words}>
                <b>{p.column}</b>: {p.words}
              </div>
            ))}
            {r.changes.map((c) => (
              <div key={c.field}>
                {c.field}: {c.before || 'nothing'} → {c.after || 'nothing'}
              </div>
            ))}
          </td>
        </tr>
      ))}
    </Rows>
  )
}
