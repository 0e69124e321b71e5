/** The sheets of the project as a table: many changed at once, blocks pasted, added, numbered again. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import InputBase from '@mui/material/InputBase'
import { useMemo, useState, type ReactNode } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { asGiven, makeEdit, type NewSheet, type AnyEdit } from '../../api/client'
import { LINE, QUIET } from '../../theme/theme'
import { counted } from '../../kit/counted'
import { TableBar } from '../../kit/TableBar'
import { Bench } from '../../kit/Bench'
import { Grid } from '../../kit/Grid'
import type { CellChange, Column } from '../../kit/gridData'
import { usePlaces, type Places } from '../../project/PlaceChoice'
import { useSheetTable } from '../../project/useSheetTable'
import { usePick } from '../../project/store'
import { AddSheets } from './AddSheets'
import { HabitsPanel } from './HabitsPanel'
import { NumberPanel } from './NumberPanel'
import { SheetsPanel } from './SheetsPanel'
import type { SheetRecord, Sheets } from './shapes'

const FRAMES = [
  { id: 'ladder', name: 'ladder lines' },
  { id: 'zones', name: 'zones' },
]
const NUMBERS = new Set(['first_line', 'line_count', 'line_spacing', 'ladders', 'columns', 'rows'])

/** The edit that makes what was typed or pasted into the table true, one for all of it. */
export function changesEdit(changes: CellChange[], table: Sheets): AnyEdit {
  const sheets = new Map<string, Record<string, unknown>>()
  for (const { id, key, value } of changes) {
    const line = sheets.get(id) ?? { sheet_id: id }
    if (key.startsWith('own:')) line['fields'] = { ...(line['fields'] as object), [key.slice(4)]: value }
    else if (key === 'shows') {
      const kind = table.sheets.find((s) => s.id === id)?.kind
      const subject = table.kinds.find((k) => k.id === kind)?.subject
      if (subject) line[subject] = value
    } else if (NUMBERS.has(key)) line[key] = Number(value) || 0
    else line[key === 'kind' ? 'sheet_kind' : key] = value
    sheets.set(id, line)
  }
  return makeEdit('change-sheets', {
    sheets: [...sheets.values()].map((line) => asGiven(line)),
    follow: true,
  })
}

const nameOf = (list: { id: string; name: string }[], id: string) => list.find((x) => x.id === id)?.name ?? ''

/** What makes columns of texts, of choices and of counts; whether a row can be edited, and whether it is drawn on. */
function makers(edit: (s: SheetRecord) => boolean, drawn: (s: SheetRecord) => boolean) {
  const plain = (key: 'number' | 'title' | 'subtitle', name: string, width: number): Column<SheetRecord> => ({
    key,
    name,
    width,
    text: (s) => s[key],
    edit,
    mono: key === 'number',
  })
  const choice = (
    key: 'kind' | 'size' | 'frame' | 'function_id' | 'location_id' | 'title_block_id',
    name: string,
    width: number,
    choices: { id: string; name: string }[],
    when: (s: SheetRecord) => boolean = edit,
  ): Column<SheetRecord> => ({
    key,
    name,
    width,
    choices,
    edit: when,
    text: (s) => nameOf(choices, s[key]) || s[key],
    value: (s) => s[key],
  })
  const count = (
    key: 'first_line' | 'line_count' | 'line_spacing' | 'ladders' | 'columns' | 'rows',
    name: string,
    width: number,
    frame: 'ladder' | 'zones',
  ): Column<SheetRecord> => ({
    key,
    name,
    width,
    text: (s) => (s.frame === frame ? String(s[key]) : ''),
    edit: (s) => (frame === 'ladder' ? drawn(s) : edit(s)) && s.frame === frame,
    mono: true,
  })
  return { plain, choice, count }
}

function columnsOf(table: Sheets, places: Places | undefined, canEdit: boolean): Column<SheetRecord>[] {
  const none = { id: '', name: '' }
  const functions = [none, ...(places?.functions ?? []).map((f) => ({ id: f.id, name: f.name }))]
  const locations = [none, ...(places?.locations ?? []).map((l) => ({ id: l.id, name: l.name }))]
  const blocks = [none, ...table.blocks]
  const edit = () => canEdit
  const onThese = new Set(table.kinds.filter((k) => k.drawn).map((k) => k.id))
  const drawn = (s: SheetRecord) => canEdit && onThese.has(s.kind)
  const subjectOf = (s: SheetRecord) => table.kinds.find((k) => k.id === s.kind)?.subject || ''
  const shown = (s: SheetRecord) => {
    const field = subjectOf(s)
    return field ? s[field] : ''
  }
  const every = Object.values(table.subjects).flat()
  const { plain, choice, count } = makers(edit, drawn)
  return [
    plain('number', 'Number', 60),
    plain('title', 'Title', 180),
    plain('subtitle', 'Second line', 84),
    choice('kind', 'Kind', 106, table.kinds),
    choice('function_id', 'Function', 76, functions),
    choice('location_id', 'Location', 78, locations),
    choice(
      'size',
      'Size',
      62,
      table.sizes.map((s) => ({ id: s, name: s })),
    ),
    choice('frame', 'Frame', 92, FRAMES, drawn),
    count('first_line', 'First line', 76, 'ladder'),
    count('line_count', 'Lines', 56, 'ladder'),
    count('line_spacing', 'Spacing', 66, 'ladder'),
    count('ladders', 'Ladders', 66, 'ladder'),
    count('columns', 'Zones across', 92, 'zones'),
    count('rows', 'Zones down', 84, 'zones'),
    {
      key: 'shows',
      name: 'Shows',
      width: 120,
      choices: [none, ...every],
      edit: (s) => canEdit && subjectOf(s) !== '',
      text: (s) => nameOf(table.subjects[s.kind] ?? [], shown(s)),
      value: shown,
    },
    choice('title_block_id', 'Title block', 120, blocks),
    ...table.own_fields.map((name) => ({
      key: `own:${name}`,
      name,
      width: 110,
      text: (s: SheetRecord) => s.fields[name] ?? '',
      edit,
    })),
  ]
}

/** The edit that adds what was pasted below the last row. */
const newSheets = (rows: Record<string, string>[]) =>
  makeEdit('add-sheets', {
    sheets: rows.map((r) => ({
      number: r['number'] ?? '',
      title: r['title'] ?? '',
      subtitle: r['subtitle'] ?? '',
      ...(r['kind'] ? { sheet_kind: asGiven<NewSheet['sheet_kind']>(r['kind']) } : {}),
      function_id: r['function_id'] ?? '',
      location_id: r['location_id'] ?? '',
    })),
    after_id: '',
  })

type Panel = '' | 'add' | 'number'

export function SheetsSection({ list, canEdit }: { list: ReactNode; canEdit: boolean }) {
  const { projectId, send, say } = usePick('projectId', 'send', 'say')
  const go = useNavigate()
  const table = useSheetTable()
  const places = usePlaces()
  const [words, setWords] = useState('')
  // A sheet that is come from is chosen at once.
  const [search] = useSearchParams()
  const from = search.get('sheet')
  const [picked, setPicked] = useState<string[]>(from ? [from] : [])
  const [panel, setPanel] = useState<Panel>('')
  const data = table.data
  const columns = useMemo(
    () => (data ? columnsOf(data, places.data, canEdit) : []),
    [data, places.data, canEdit],
  )
  if (!data)
    return (
      <Bench name="Brief" list={list}>
        {null}
      </Bench>
    )
  const there = picked.filter((id) => data.sheets.some((s) => s.id === id))
  return (
    <Bench
      name="Brief"
      list={list}
      inspector={
        <Inspector
          {...{ data, places: places.data, picked: there, panel, canEdit }}
          close={() => setPanel('')}
        />
      }
    >
      <Bar
        {...{ words, setWords, panel, setPanel, canEdit }}
        chosen={there.length}
        all={data.sheets.length}
      />
      <Grid
        name="Sheets"
        columns={columns}
        rows={data.sheets}
        selected={new Set(there)}
        filter={words}
        onSelect={setPicked}
        onChange={(changes) => void send(changesEdit(changes, data))}
        onBeyond={(rows) => void send(newSheets(rows))}
        onProblem={(problem) => say(problem, 'error')}
        onOpen={(sheet) => void go(`/p/${projectId}/draw/${sheet.id}`)}
      />
      <Box sx={{ px: 1.5, py: 0.5, fontSize: 11.5, color: QUIET, borderTop: `1px solid ${LINE}` }}>
        Type or paste into the cells; a block pasted over the last row goes on in new sheets. Ctrl+D fills
        down, Enter edits, Space chooses.
      </Box>
    </Bench>
  )
}

interface BarProps {
  words: string
  setWords: (words: string) => void
  chosen: number
  all: number
  panel: Panel
  setPanel: (panel: Panel) => void
  canEdit: boolean
}

function Bar({ words, setWords, chosen, all, panel, setPanel, canEdit }: BarProps) {
  return (
    <TableBar>
      <InputBase
        placeholder="Filter sheets"
        value={words}
        onChange={(e) => setWords(e.target.value)}
        inputProps={{ 'aria-label': 'Filter sheets' }}
        sx={{ flex: 1, fontSize: 13, bgcolor: '#fff', border: `1px solid ${LINE}`, borderRadius: 1, px: 1 }}
      />
      <Box sx={{ color: QUIET, fontSize: 12, whiteSpace: 'nowrap' }}>
        {chosen ? `${chosen} of ${all} chosen` : counted(all, 'sheet')}
      </Box>
      {canEdit && (
        <>
          <Button
            variant={panel === 'add' ? 'contained' : 'outlined'}
            onClick={() => setPanel(panel === 'add' ? '' : 'add')}
          >
            Add sheets
          </Button>
          <Button
            variant={panel === 'number' ? 'contained' : 'outlined'}
            onClick={() => setPanel(panel === 'number' ? '' : 'number')}
          >
            Number again
          </Button>
        </>
      )}
    </TableBar>
  )
}

interface InspectorProps {
  data: Sheets
  places: Places | undefined
  picked: string[]
  panel: Panel
  canEdit: boolean
  close: () => void
}

function Inspector({ data, places, picked, panel, canEdit, close }: InspectorProps) {
  if (panel === 'add')
    return <AddSheets table={data} places={places} after={picked.at(-1) ?? ''} close={close} />
  if (panel === 'number') return <NumberPanel table={data} picked={picked} close={close} />
  if (picked.length) return <SheetsPanel table={data} places={places} picked={picked} canEdit={canEdit} />
  return <HabitsPanel table={data} canEdit={canEdit} />
}
