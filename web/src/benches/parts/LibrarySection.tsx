/** The library: looked through by words, class, maker, library and the fields of the class; one part opened beside. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { DataGrid, type GridColDef, type GridRowSelectionModel } from '@mui/x-data-grid'
import { useQuery } from '@tanstack/react-query'
import { useMemo, useState, type ReactNode } from 'react'
import { useSearchParams } from 'react-router'
import { client, got, type PartOut } from '../../api/client'
import { QUIET } from '../../theme/theme'
import { Bench } from '../../kit/Bench'
import { condition, useKinds, useShelves, type ClassSpec, type Kinds } from './kinds'
import { NewPart } from './NewPart'
import { PartPage } from './PartPage'
import { counted } from '../../kit/counted'

const NEW = 'new'

/** What of the library is looked for. */
interface Asked {
  words: string
  cls: string
  maker: string
  shelf: string
}

function useParts({ words, cls, maker, shelf }: Asked, typed: Record<string, string>) {
  const filters = Object.entries(typed)
    .map(([key, value]) => condition(key, value))
    .filter(Boolean)
    .join(';')
  const query = { q: words, part_class_key: cls, maker, shelf, filters, limit: 200 }
  return useQuery({
    queryKey: ['library', query],
    queryFn: () => got(client.GET('/api/library/parts', { params: { query } })),
    placeholderData: (before) => before,
    retry: false,
  })
}

export function LibrarySection({ list }: { list: ReactNode }) {
  const [asked, setAsked] = useState<Asked>({ words: '', cls: '', maker: '', shelf: '' })
  const [ticked, setTicked] = useState<string[]>([])
  const [typed, setTyped] = useState<Record<string, string>>({})
  const [params, setParams] = useSearchParams()
  const open = params.get('part') ?? ''
  const show = (id: string) => setParams(id ? { part: id } : {})
  const kinds = useKinds()
  const shelves = useShelves() ?? []
  const of = kinds?.classes.find((c) => c.key === asked.cls)
  const found = useParts(asked, typed)
  const columns = useMemo(() => columnsOf(of, kinds), [of, kinds])
  return (
    <Bench name="Parts" list={list}>
      <Box sx={{ display: 'flex', flex: 1, minHeight: 0 }}>
        <Box sx={{ flex: 1, minWidth: 0, p: 2, display: 'flex', flexDirection: 'column' }}>
          <Asking
            asked={asked}
            ask={(part) => {
              setAsked({ ...asked, ...part })
              if (part.cls !== undefined) setTyped({})
            }}
            kinds={kinds}
            begin={() => show(NEW)}
          />
          {of && kinds && <Filters of={of} kinds={kinds} typed={typed} set={setTyped} />}
          <Parts rows={found.data ?? []} columns={columns} open={open} show={show} tick={setTicked} />
          <Foot count={found.data?.length ?? 0} ticked={ticked} />
        </Box>
        {open === NEW && <NewPart kinds={kinds} shelves={shelves} close={() => show('')} done={show} />}
        {open && open !== NEW && (
          <PartPage key={open} id={open} kinds={kinds} shelves={shelves} close={() => show('')} go={show} />
        )}
      </Box>
    </Bench>
  )
}

/** The ids of ticked rows: listed, or all but those listed. */
function ticksOf(model: GridRowSelectionModel, rows: PartOut[]): string[] {
  const listed = new Set([...model.ids].map(String))
  return model.type === 'include' ? [...listed] : rows.map((r) => r.id).filter((id) => !listed.has(id))
}

function columnsOf(of: ClassSpec | undefined, kinds: Kinds | undefined): GridColDef<PartOut>[] {
  const fields = of?.fields.slice(0, 4) ?? []
  return [
    { field: 'number', headerName: 'Number', width: 130 },
    { field: 'maker', headerName: 'Maker', width: 100 },
    ...(of ? [] : [{ field: 'class_name', headerName: 'Class', width: 130 }]),
    { field: 'text', headerName: 'Description', flex: 1, minWidth: 180 },
    ...fields.map((key) => ({
      field: key,
      headerName: `${kinds?.fields[key]?.name ?? key} ${kinds?.fields[key]?.unit ?? ''}`.trim(),
      width: 86,
      valueGetter: (_: unknown, row: PartOut) => row.ratings[key] ?? '',
    })),
    {
      field: 'units',
      headerName: 'Units',
      width: 130,
      valueGetter: (_: unknown, row: PartOut) =>
        Object.entries(row.units)
          .map(([kind, n]) => `${n} ${kinds?.units[kind]?.name ?? kind}`)
          .join(', '),
    },
  ]
}

interface FiltersProps {
  of: ClassSpec
  kinds: Kinds
  typed: Record<string, string>
  set: (typed: Record<string, string>) => void
}

/** A condition for each field of the class, and how many units at least. */
function Filters({ of, kinds, typed, set }: FiltersProps) {
  const fields = [
    ...of.fields.map((key) => ({
      key,
      name: kinds.fields[key]?.name ?? key,
      unit: kinds.fields[key]?.unit ?? '',
      options: kinds.fields[key]?.choices ?? [],
      hint: kinds.fields[key]?.kind === 'number' ? '24, or 9+' : '',
    })),
    ...of.units.map((kind) => ({
      key: `units.${kind}`,
      name: `${kinds.units[kind]?.many ?? kind} ≥`,
      unit: '',
      options: [],
      hint: '2',
    })),
  ]
  return (
    <Box
      role="group"
      aria-label="Conditions"
      sx={{
        display: 'grid',
        gridTemplateColumns: 'repeat(auto-fill, minmax(128px, 1fr))',
        gap: 1,
        mb: 1,
        pt: 0.5,
      }}
    >
      {fields.map((f) => (
        <TextField
          key={f.key}
          label={`${f.name}${f.unit ? `, ${f.unit}` : ''}`}
          placeholder={f.hint}
          select={f.options.length > 0}
          value={typed[f.key] ?? ''}
          onChange={(e) => set({ ...typed, [f.key]: e.target.value })}
          slotProps={{ htmlInput: { style: { fontSize: 12.5 } } }}
        >
          {f.options.length > 0 &&
            ['', ...f.options].map((o) => (
              <MenuItem key={o} value={o}>
                {o || 'any'}
              </MenuItem>
            ))}
        </TextField>
      ))}
    </Box>
  )
}

interface PickProps {
  label: string
  width: number
  value: string
  set: (value: string) => void
  options: string[][]
}

function Pick({ label, width, value, set, options }: PickProps) {
  return (
    <TextField select label={label} value={value} onChange={(e) => set(e.target.value)} sx={{ width }}>
      <MenuItem value="">all</MenuItem>
      {options.map(([key, name]) => (
        <MenuItem key={key} value={key}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  )
}

interface PartsProps {
  rows: PartOut[]
  columns: GridColDef<PartOut>[]
  open: string
  show: (id: string) => void
  tick: (ids: string[]) => void
}

function Parts({ rows, columns, open, show, tick }: PartsProps) {
  return (
    <Box sx={{ flex: 1, minHeight: 0 }}>
      <DataGrid
        rows={rows}
        columns={columns}
        density="compact"
        rowHeight={30}
        columnHeaderHeight={32}
        hideFooter
        checkboxSelection
        disableRowSelectionOnClick
        onRowSelectionModelChange={(model) => tick(ticksOf(model, rows))}
        onRowClick={({ row }) => show((row as PartOut).id)}
        getRowClassName={({ row }) => ((row as PartOut).id === open ? 'chosen' : '')}
        localeText={{ noRowsLabel: 'No part has all of this. Take a word or a condition away.' }}
        sx={{
          bgcolor: '#fff',
          fontSize: 12.5,
          '& .chosen': { bgcolor: '#F5E3D5' },
          '& .MuiDataGrid-row': { cursor: 'pointer' },
        }}
      />
    </Box>
  )
}

interface FootProps {
  count: number
  ticked: string[]
}

function Foot({ count, ticked }: FootProps) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, minHeight: 28 }}>
      <Box sx={{ fontSize: 12, color: QUIET, flex: 1 }} aria-live="polite">
        {count === 200 ? 'The first 200 are shown' : counted(count, 'part')}
        {ticked.length > 0 && `, ${ticked.length} ticked`}
      </Box>
      {ticked.length > 0 &&
        ['xlsx', 'csv', 'json', 'zip'].map((f) => (
          <Button key={f} size="small" href={`/api/library/export.${f}?ids=${ticked.join(',')}`}>
            Out as {f.toUpperCase()}
          </Button>
        ))}
    </Box>
  )
}

interface AskingProps {
  asked: Asked
  ask: (part: Partial<Asked>) => void
  kinds: Kinds | undefined
  begin: () => void
}

function Asking({ asked, ask, kinds, begin }: AskingProps) {
  const shelves = useShelves() ?? []
  const makers = useQuery({
    queryKey: ['makers', asked.cls],
    queryFn: () =>
      got(client.GET('/api/library/makers', { params: { query: { part_class_key: asked.cls } } })),
  })
  return (
    <Box sx={{ display: 'flex', gap: 1, mb: 1, pt: 0.5, flexWrap: 'wrap' }}>
      <TextField
        autoFocus
        label="Words, part of a number, 2NO, 3P"
        value={asked.words}
        onChange={(e) => ask({ words: e.target.value })}
        sx={{ flex: 1, minWidth: 210 }}
      />
      <Pick
        label="Class"
        width={170}
        value={asked.cls}
        set={(cls) => ask({ cls, maker: '' })}
        options={kinds?.classes.map((c) => [c.key, c.name]) ?? []}
      />
      <Pick
        label="Maker"
        width={120}
        value={asked.maker}
        set={(maker) => ask({ maker })}
        options={(makers.data ?? []).map((m) => [m, m])}
      />
      {shelves.length > 1 && (
        <Pick
          label="Library"
          width={120}
          value={asked.shelf}
          set={(shelf) => ask({ shelf })}
          options={shelves.map((s) => [s.id, s.name])}
        />
      )}
      <Button variant="contained" onClick={begin}>
        New part
      </Button>
    </Box>
  )
}
