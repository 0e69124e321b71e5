/** Drawn symbols: which there are, and the maker that draws new ones, from nothing or like one that comes along. */
import type { Schemas } from '../../api/shapes'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { client, got, wordsOf } from '../../api/client'
import { MONO, QUIET } from '../../theme/theme'
import { Act } from '../../kit/Act'
import { Bench, Empty } from '../../kit/Bench'
import { Pick } from '../../kit/Pick'
import { Rows } from '../../kit/Rows'
import { useProject } from '../../project/store'
import { useKinds } from './kinds'
import type { Sketch } from './symbols/art'
import { ArtPicture } from '../../kit/ArtPicture'
import { SymbolMaker } from './symbols/SymbolMaker'

type Drawn = Schemas['DrawnSymbol']

const NEW: Sketch = {
  name: '',
  class: 'lamp',
  unit: 'lamp',
  leads: true,
  nicknames: [],
  poles: 1,
  pins: [
    [0, 0, ''],
    [4, 0, ''],
  ],
  through: [[0, 1]],
  iec: [],
}

/** The symbols people drew, and those that come along. */
function useSymbols() {
  const drawn = useQuery({
    queryKey: ['drawn-symbols'],
    queryFn: async () => await got(client.GET('/api/library/drawn-symbols')),
  })
  const built = useQuery({
    queryKey: ['symbols'],
    queryFn: () => got(client.GET('/api/library/symbols', { params: { query: { q: '' } } })),
    staleTime: Infinity,
  })
  return { drawn, built }
}

export function SymbolsSection({ list }: { list: ReactNode }) {
  const kinds = useKinds()
  const queries = useQueryClient()
  const [open, setOpen] = useState<{ id: string; start: Sketch } | null>(null)
  const { drawn, built } = useSymbols()
  const say = (error: unknown) => useProject.getState().say(wordsOf(error), 'error')
  const begin = (key: string, id: string, own: boolean) =>
    got(client.GET('/api/library/symbol-sketch', { params: { query: { key } } })).then((found) => {
      const sketch: Sketch = {
        ...found,
        iec: found.iec,
        ...(found.na ? { na: found.na } : { na: undefined }),
      }
      setOpen({ id, start: own ? sketch : { ...sketch, name: '', nicknames: [] } })
    }, say)
  const drop = (row: Drawn) =>
    got(client.DELETE('/api/library/drawn-symbols/{id}', { params: { path: { id: row.id } } })).then(() => {
      void queries.invalidateQueries({ queryKey: ['drawn-symbols'] })
      useProject.getState().say(`${row.name} is out of the library. What is drawn with it stays.`)
    }, say)
  if (open && kinds)
    return (
      <Bench name="Parts" list={list}>
        <SymbolMaker
          key={open.id + open.start.name}
          id={open.id}
          start={open.start}
          kinds={kinds}
          close={() => setOpen(null)}
          kept={() => setOpen(null)}
        />
      </Bench>
    )
  const rows = drawn.data ?? []
  return (
    <Bench name="Parts" list={list}>
      <Box sx={{ p: 2, overflow: 'auto' }}>
        <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', mb: 1.5 }}>
          <Box component="h2" sx={{ fontSize: 15, m: 0, flex: 1 }}>
            Drawn symbols
          </Box>
          <Pick
            label="Like one there is"
            value=""
            options={(built.data ?? []).map((s) => ({ id: s.key, name: s.name }))}
            onPick={(key) => void begin(key, '', false)}
            sx={{ width: 230 }}
          />
          <Button variant="contained" onClick={() => setOpen({ id: '', start: NEW })}>
            New symbol
          </Button>
        </Box>
        {rows.length > 0 && (
          <DrawnRows rows={rows} begin={(...at) => void begin(...at)} drop={(row) => void drop(row)} />
        )}
        {drawn.isSuccess && rows.length === 0 && <Nothing />}
      </Box>
    </Bench>
  )
}

interface DrawnRowsProps {
  rows: Drawn[]
  begin: (key: string, id: string, own: boolean) => void
  drop: (row: Drawn) => void
}

function DrawnRows({ rows, begin, drop }: DrawnRowsProps) {
  return (
    <Rows
      label="Drawn symbols"
      columns={['Picture', 'Name', 'Class', 'Unit', 'Nicknames', 'Poles', 'By', '']}
    >
      {rows.map((row) => (
        <tr key={row.id}>
          <td>
            <ArtPicture art={row.art} width={64} height={34} />
          </td>
          <td>
            <b>{row.name}</b>
          </td>
          <td>{row.class_name}</td>
          <td>{row.unit}</td>
          <td style={{ fontFamily: MONO }}>{row.nicknames.join(', ')}</td>
          <td style={{ textAlign: 'right' }}>{row.poles}</td>
          <td style={{ color: QUIET }}>
            {row.by}, {new Date(row.at).toLocaleDateString('en-GB')}
          </td>
          <td style={{ whiteSpace: 'nowrap' }}>
            <Act onClick={() => begin(row.key, row.id, true)}>Change</Act>{' '}
            <Act onClick={() => begin(row.key, '', false)} hint="A new one that begins like it">
              Like it
            </Act>{' '}
            <Act onClick={() => drop(row)}>Take out</Act>
          </td>
        </tr>
      ))}
    </Rows>
  )
}

function Nothing() {
  return (
    <Empty>
      The common symbols come along. What they lack is drawn here: lines and pins on a grid, or a drawing from
      an SVG or DXF file. A drawn symbol is placed at the caret by its name, and parts may be drawn with it.
    </Empty>
  )
}
