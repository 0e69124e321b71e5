/** Parts in and out: a library as a file, and a table read with every bad cell named before anything is taken in. */
import type { Schemas } from '../../api/shapes'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { client, got, wordsOf } from '../../api/client'
import { MONO, QUIET, SNAG, TEAL } from '../../theme/theme'
import { Bench } from '../../kit/Bench'
import { Rows } from '../../kit/Rows'
import { Section } from '../../kit/Section'
import { useProject } from '../../project/store'
import { Progress, type Work } from './Progress'
import { useShelves } from './kinds'

type Look = Schemas['TableRead']

export function ExchangeSection({ list }: { list: ReactNode }) {
  const shelves = useShelves() ?? []
  const [chosen, setChosen] = useState('')
  const [file, setFile] = useState<File | null>(null)
  const [look, setLook] = useState<Look | null>(null)
  const [busy, setBusy] = useState<Work | null>(null)
  const [problem, setProblem] = useState('')
  const queries = useQueryClient()
  const shelf = chosen || ((shelves.find((s) => s.may_change) ?? shelves[0])?.id ?? '')
  const send = async <T,>(
    words: string,
    from: File,
    mapping: Record<string, string> | null,
    ask: (options: { body: never; bodySerializer: (b: unknown) => never }) => Promise<T>,
  ): Promise<T | null> => {
    const form = new FormData()
    form.append('file', from)
    form.append('shelf', shelf)
    form.append('mapping', mapping ? JSON.stringify(mapping) : '')
    const name = `${Date.now()}-${Math.round(Math.random() * 1e6)}`
    form.append('name', name)
    setBusy({ name, words })
    setProblem('')
    try {
      return await ask({ body: form as never, bodySerializer: (b) => b as never })
    } catch (error) {
      setProblem(wordsOf(error))
      return null
    } finally {
      setBusy(null)
    }
  }
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
    useProject.getState().say(`${done.taken} parts taken in, ${done.left} rows left out.`)
    setLook(null)
    setFile(null)
  }
  const good = look ? look.counts.new + look.counts.changed : 0
  return (
    <Bench name="Parts" list={list}>
      <Box sx={{ p: 2, overflow: 'auto' }}>
        <Box component="h2" sx={{ fontSize: 15, m: 0, mb: 1.5 }}>
          In and out
        </Box>
        <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
          <TextField
            select
            label="Library"
            value={shelf}
            onChange={(e) => setChosen(e.target.value)}
            sx={{ width: 200 }}
          >
            {shelves.map((s) => (
              <MenuItem key={s.id} value={s.id}>
                {s.name}
              </MenuItem>
            ))}
          </TextField>
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
                  if (from) void read(from, null)
                  e.target.value = ''
                }}
              />
            </Button>
          )}
        </Box>
        {busy && <Progress key={busy.name} work={busy} />}
        {problem && <Box sx={{ color: SNAG, mt: 1.5 }}>{problem}</Box>}
        {look && file && (
          <>
            <Section title={`Columns of ${file.name}`}>
              <Box
                sx={{
                  display: 'grid',
                  gridTemplateColumns: 'repeat(auto-fill, minmax(170px, 1fr))',
                  gap: 1,
                  pt: 0.75,
                }}
              >
                {look.headings.filter(Boolean).map((heading) => (
                  <TextField
                    key={heading}
                    select
                    label={heading}
                    value={look.mapping[heading] ?? ''}
                    onChange={(e) => void read(file, { ...look.mapping, [heading]: e.target.value })}
                    slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
                  >
                    <MenuItem value="">passed over</MenuItem>
                    {Object.entries(look.fields).map(([key, name]) => (
                      <MenuItem key={key} value={key}>
                        {name}
                      </MenuItem>
                    ))}
                  </TextField>
                ))}
              </Box>
              <Box sx={{ fontSize: 12, color: QUIET, mt: 0.5 }}>
                What the columns mean is remembered for tables with the same headings.
              </Box>
            </Section>
            <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', my: 1.5 }}>
              <span>
                <b>{look.counts.new}</b> new, <b>{look.counts.changed}</b> changed, <b>{look.counts.same}</b>{' '}
                as they are, <b style={{ color: look.counts.bad ? SNAG : undefined }}>{look.counts.bad}</b>{' '}
                with faults{look.files ? `, ${look.files} files with them` : ''}
              </span>
              <Button variant="contained" disabled={!good || busy !== null} onClick={() => void take()}>
                Take {good} good {good === 1 ? 'row' : 'rows'} in
              </Button>
              <Button onClick={() => setLook(null)}>Cancel</Button>
            </Box>
            {look.problem && (
              <Box role="alert" sx={{ color: SNAG, mb: 1 }}>
                {look.problem}
              </Box>
            )}
            <Rows label="Rows of the table" columns={['Row', 'Part', 'State', 'What']}>
              {look.rows.map((r) => (
                <tr key={r.line}>
                  <td>{r.line}</td>
                  <td style={{ fontFamily: MONO, whiteSpace: 'nowrap' }}>
                    {`${r.maker} ${r.number}`.trim() || '—'}
                  </td>
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
          </>
        )}
      </Box>
    </Bench>
  )
}
