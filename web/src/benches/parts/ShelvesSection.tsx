/** The libraries in their order, new ones, fields that classes got beside their own, and who changed what. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { client, got, wordsOf } from '../../api/client'
import { MONO, QUIET } from '../../theme/theme'
import { Act } from '../../kit/Act'
import { Bench } from '../../kit/Bench'
import { Field } from '../../kit/Field'
import { Pick } from '../../kit/Pick'
import { Rows } from '../../kit/Rows'
import { Section } from '../../kit/Section'
import { useProject } from '../../project/store'
import { RemoveShelf } from './RemoveShelf'
import { useKinds, useShelves, type Shelf } from './kinds'

/** Does something with the libraries, and asks for them again. */
type Then = (act: Promise<unknown>, clear?: () => void) => void

function useThen(): Then {
  const queries = useQueryClient()
  return (act, clear) =>
    void act.then(
      () => {
        for (const key of ['shelves', 'part-kinds', 'library'])
          void queries.invalidateQueries({ queryKey: [key] })
        clear?.()
      },
      (error: unknown) => useProject.getState().say(wordsOf(error), 'error'),
    )
}

export function ShelvesSection({ list }: { list: ReactNode }) {
  const then = useThen()
  return (
    <Bench name="Parts" list={list}>
      <Box sx={{ p: 2, overflow: 'auto' }}>
        <Box component="h2" sx={{ fontSize: 15, m: 0, mb: 1 }}>
          Libraries
        </Box>
        <Libraries then={then} />
        <Box sx={{ fontSize: 12, color: QUIET, mt: 0.5 }}>
          Where two have a number, the upper one’s part is taken.
        </Box>
        <NewLibrary then={then} />
        <Section title="One more field for a class">
          <NewField then={then} />
        </Section>
        <Section title="Who changed what">
          <Changes />
        </Section>
      </Box>
    </Bench>
  )
}

/** The libraries in the order in which they are asked. */
function Libraries({ then }: { then: Then }) {
  const [going, setGoing] = useState('')
  const shelves = useShelves() ?? []
  const leaving = shelves.find((s) => s.id === going)
  const up = (n: number) => {
    const ids = shelves.map((s) => s.id)
    ids.splice(n - 1, 0, ...ids.splice(n, 1))
    then(got(client.POST('/api/library/shelves/order', { body: { ids } })))
  }
  const remove = (shelf_id: string) =>
    then(got(client.DELETE('/api/library/shelves/{shelf_id}', { params: { path: { shelf_id } } })), () =>
      setGoing(''),
    )
  return (
    <>
      <Rows label="Libraries" columns={['', 'Library', 'Whose', 'Parts', '']}>
        {shelves.map((s, n) => (
          <LibraryRow key={s.id} shelf={s} n={n} then={then} up={() => up(n)} leave={() => setGoing(s.id)} />
        ))}
      </Rows>
      {leaving && (
        <RemoveShelf
          key={leaving.id}
          shelf={leaving}
          onRemove={() => remove(leaving.id)}
          onKeep={() => setGoing('')}
        />
      )}
    </>
  )
}

interface LibraryRowProps {
  shelf: Shelf
  n: number
  then: Then
  up: () => void
  leave: () => void
}

function LibraryRow({ shelf: s, n, then, up, leave }: LibraryRowProps) {
  const rename = (name: string) => {
    const params = { path: { shelf_id: s.id } }
    then(got(client.POST('/api/library/shelves/{shelf_id}/name', { params, body: { name } })))
  }
  return (
    <tr>
      <td>{n + 1}</td>
      <td>{s.may_change ? <Field label={`Name of ${s.name}`} value={s.name} onSave={rename} /> : s.name}</td>
      <td>{s.own ? 'mine alone' : s.read_only ? 'company, read only' : 'company'}</td>
      <td>{s.parts}</td>
      <td>
        <Act hint="Take its parts first" disabled={n === 0} onClick={up}>
          ↑
        </Act>{' '}
        {s.may_change && (
          <Act hint="Take the library away" onClick={leave}>
            Remove…
          </Act>
        )}
      </td>
    </tr>
  )
}

function NewLibrary({ then }: { then: Then }) {
  const [name, setName] = useState('')
  const add = (own: boolean) =>
    then(got(client.POST('/api/library/shelves', { body: { name, text: '', own, read_only: false } })), () =>
      setName(''),
    )
  return (
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
  )
}

/** One more field for a class of parts: a number when it has a unit. */
function NewField({ then }: { then: Then }) {
  const [cls, setCls] = useState('contactor')
  const [name, setName] = useState('')
  const [unit, setUnit] = useState('')
  const classes = (useKinds()?.classes ?? []).map((c) => ({ id: c.key, name: c.name }))
  const add = () => {
    const kind: 'number' | 'text' = unit ? 'number' : 'text'
    const body = { part_class: cls, name, unit, kind, choices: [] }
    then(got(client.POST('/api/library/own-fields', { body })), () => {
      setName('')
      setUnit('')
    })
  }
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
      <Pick label="Class" value={cls} options={classes} onPick={setCls} sx={{ width: 200 }} />
      <TextField label="Field" value={name} onChange={(e) => setName(e.target.value)} sx={{ width: 180 }} />
      <TextField label="Unit" value={unit} onChange={(e) => setUnit(e.target.value)} sx={{ width: 80 }} />
      <Button variant="outlined" disabled={!name.trim()} onClick={add}>
        Add
      </Button>
    </Box>
  )
}

function Changes() {
  const changes = useQuery({
    queryKey: ['library', 'changes'],
    queryFn: async () => await got(client.GET('/api/library/changes', { params: { query: { limit: 60 } } })),
  })
  return (
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
  )
}
