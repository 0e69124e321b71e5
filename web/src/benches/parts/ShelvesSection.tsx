/** The libraries in their order, new ones, fields that classes got beside their own, and who changed what. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { client, got, wordsOf } from '../../api/client'
import { MONO, QUIET } from '../../theme/theme'
import { Act } from '../../kit/Act'
import { Bench } from '../../kit/Bench'
import { Field } from '../../kit/Field'
import { Rows } from '../../kit/Rows'
import { Section } from '../../kit/Section'
import { useProject } from '../../project/store'
import { RemoveShelf } from './RemoveShelf'
import { useKinds, useShelves } from './kinds'

export function ShelvesSection({ list }: { list: ReactNode }) {
  const [name, setName] = useState('')
  const [going, setGoing] = useState('')
  const [cls, setCls] = useState('contactor')
  const [field, setField] = useState('')
  const [unit, setUnit] = useState('')
  const queries = useQueryClient()
  const kinds = useKinds()
  const shelves = useShelves() ?? []
  const changes = useQuery({
    queryKey: ['library', 'changes'],
    queryFn: async () => await got(client.GET('/api/library/changes', { params: { query: { limit: 60 } } })),
  })
  const then = (act: Promise<unknown>, clear: () => void) =>
    act.then(
      () => {
        for (const key of ['shelves', 'part-kinds', 'library'])
          void queries.invalidateQueries({ queryKey: [key] })
        clear()
      },
      (error: unknown) => useProject.getState().say(wordsOf(error), 'error'),
    )
  const add = (own: boolean) =>
    void then(
      got(client.POST('/api/library/shelves', { body: { name, text: '', own, read_only: false } })),
      () => setName(''),
    )
  const leaving = shelves.find((s) => s.id === going)
  const up = (n: number) => {
    const ids = shelves.map((s) => s.id)
    ids.splice(n - 1, 0, ...ids.splice(n, 1))
    void then(got(client.POST('/api/library/shelves/order', { body: { ids } })), () => undefined)
  }
  return (
    <Bench name="Parts" list={list}>
      <Box sx={{ p: 2, overflow: 'auto' }}>
        <Box component="h2" sx={{ fontSize: 15, m: 0, mb: 1 }}>
          Libraries
        </Box>
        <Rows label="Libraries" columns={['', 'Library', 'Whose', 'Parts', '']}>
          {shelves.map((s, n) => (
            <tr key={s.id}>
              <td>{n + 1}</td>
              <td>
                {s.may_change ? (
                  <Field
                    label={`Name of ${s.name}`}
                    value={s.name}
                    onSave={(to) => {
                      const params = { path: { shelf_id: s.id } }
                      const renamed = client.POST('/api/library/shelves/{shelf_id}/name', {
                        params,
                        body: { name: to },
                      })
                      void then(got(renamed), () => undefined)
                    }}
                  />
                ) : (
                  s.name
                )}
              </td>
              <td>{s.own ? 'mine alone' : s.read_only ? 'company, read only' : 'company'}</td>
              <td>{s.parts}</td>
              <td>
                <Act hint="Take its parts first" disabled={n === 0} onClick={() => up(n)}>
                  ↑
                </Act>{' '}
                {s.may_change && (
                  <Act hint="Take the library away" onClick={() => setGoing(s.id)}>
                    Remove…
                  </Act>
                )}
              </td>
            </tr>
          ))}
        </Rows>
        {leaving && (
          <RemoveShelf
            key={leaving.id}
            shelf={leaving}
            onRemove={() =>
              void then(
                got(
                  client.DELETE('/api/library/shelves/{shelf_id}', {
                    params: { path: { shelf_id: leaving.id } },
                  }),
                ),
                () => setGoing(''),
              )
            }
            onKeep={() => setGoing('')}
          />
        )}
        <Box sx={{ fontSize: 12, color: QUIET, mt: 0.5 }}>
          Where two have a number, the upper one’s part is taken.
        </Box>
        <Box sx={{ display: 'flex', gap: 1, mt: 1, alignItems: 'center' }}>
          <TextField
            label="New library"
            value={name}
            onChange={(e) => setName(e.target.value)}
            sx={{ width: 220 }}
          />
          <Button variant="outlined" disabled={!name.trim()} onClick={() => add(true)}>
            Add for me
          </Button>
          <Button variant="outlined" disabled={!name.trim()} onClick={() => add(false)}>
            Add for all
          </Button>
        </Box>
        <Section title="One more field for a class">
          <Box sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
            <TextField
              select
              label="Class"
              value={cls}
              onChange={(e) => setCls(e.target.value)}
              sx={{ width: 200 }}
            >
              {(kinds?.classes ?? []).map((c) => (
                <MenuItem key={c.key} value={c.key}>
                  {c.name}
                </MenuItem>
              ))}
            </TextField>
            <TextField
              label="Field"
              value={field}
              onChange={(e) => setField(e.target.value)}
              sx={{ width: 180 }}
            />
            <TextField
              label="Unit"
              value={unit}
              onChange={(e) => setUnit(e.target.value)}
              sx={{ width: 80 }}
            />
            <Button
              variant="outlined"
              disabled={!field.trim()}
              onClick={() =>
                void then(
                  got(
                    client.POST('/api/library/own-fields', {
                      body: {
                        part_class: cls,
                        name: field,
                        unit,
                        kind: unit ? 'number' : 'text',
                        choices: [],
                      },
                    }),
                  ),
                  () => {
                    setField('')
                    setUnit('')
                  },
                )
              }
            >
              Add
            </Button>
          </Box>
        </Section>
        <Section title="Who changed what">
          <Rows label="Changes" columns={['When', 'Who', 'Library', 'Part', 'What']}>
            {(changes.data ?? []).map((c, i) => (
              <tr key={i}>
                <td>{new Date(c.at).toLocaleString('en-GB')}</td>
                <td>{c.by}</td>
                <td>{c.library}</td>
                <td style={{ fontFamily: MONO }}>{c.part_id}</td>
                <td>{c.act}</td>
              </tr>
            ))}
          </Rows>
        </Section>
      </Box>
    </Bench>
  )
}
