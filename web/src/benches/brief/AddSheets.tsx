/** Adding sheets: one, or a block of numbers and titles pasted from a spreadsheet. */
import { PanelPick } from '../../kit/Pick'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { asGiven, makeEdit, type NewSheet } from '../../api/client'
import { cellsIn } from '../../kit/block'
import { QUIET } from '../../theme/theme'
import type { Places } from '../../project/PlaceChoice'
import { useProject } from '../../project/store'
import type { Sheets } from './shapes'

interface Props {
  table: Sheets
  places: Places | undefined
  after: string
  close: () => void
}

/** The lines of a pasted block: a title each, or number and title when there are two columns or more. */
export function linesOf(block: string): { number: string; title: string; subtitle: string }[] {
  return cellsIn(block)
    .map((row) => row.map((cell) => cell.trim()))
    .filter((row) => row.some(Boolean))
    .map(([first = '', ...more]) =>
      more.length
        ? { number: first, title: more[0]!, subtitle: more[1] ?? '' }
        : { number: '', title: first, subtitle: '' },
    )
}

/** Where new sheets may go. */
const spotsOf = (table: Sheets) => [
  { id: '', name: 'at the end' },
  { id: '-', name: 'at the front' },
  ...table.sheets.map((s) => ({ id: s.id, name: `after ${s.number} ${s.title}`.slice(0, 40) })),
]

export function AddSheets({ table, places, after, close }: Props) {
  const send = useProject((s) => s.send)
  const last = table.sheets.at(-1)
  const model = table.sheets.find((s) => s.id === after) ?? last
  const [block, setBlock] = useState('')
  const [kind, setKind] = useState('schematic')
  const [functionId, setFunction] = useState(model?.function_id ?? '')
  const [locationId, setLocation] = useState(model?.location_id ?? '')
  const [place, setPlace] = useState(after)
  const lines = linesOf(block)
  const add = async () => {
    const sheets = lines.length ? lines : [{ number: '', title: '', subtitle: '' }]
    const all = {
      sheet_kind: asGiven<NewSheet['sheet_kind']>(kind),
      function_id: functionId,
      location_id: locationId,
    }
    const answer = await send(
      makeEdit('add-sheets', {
        sheets: sheets.map((s) => ({ ...s, ...all })),
        after_id: place,
      }),
    )
    if (answer) close()
  }
  const none = { id: '', name: '' }
  return (
    <Box
      component="form"
      aria-label="Add sheets"
      onSubmit={(e: React.FormEvent) => {
        e.preventDefault()
        void add()
      }}
    >
      <Box sx={{ fontWeight: 600 }}>Add sheets</Box>
      <Box sx={{ color: QUIET, fontSize: 12, mb: 0.5 }}>
        One line a sheet. Paste a column of titles, or two columns, number and title; without numbers they go
        on from the last.
      </Box>
      <Titles {...{ block, setBlock }} />
      <PanelPick label="Kind of sheet" value={kind} options={table.kinds} onPick={setKind} />
      <PanelPick
        label="In function"
        value={functionId}
        options={[none, ...(places?.functions ?? [])]}
        onPick={setFunction}
      />
      <PanelPick
        label="In location"
        value={locationId}
        options={[none, ...(places?.locations ?? [])]}
        onPick={setLocation}
      />
      <PanelPick label="Where" value={place} options={spotsOf(table)} onPick={setPlace} />
      <Foot count={Math.max(1, lines.length)} close={close} />
    </Box>
  )
}

interface TitlesProps {
  block: string
  setBlock: (block: string) => void
}

function Titles({ block, setBlock }: TitlesProps) {
  return (
    <TextField
      label="Titles"
      multiline
      minRows={4}
      maxRows={12}
      fullWidth
      autoFocus
      value={block}
      onChange={(e) => setBlock(e.target.value)}
      slotProps={{ htmlInput: { style: { fontSize: 12.5 } } }}
    />
  )
}

interface FootProps {
  count: number
  close: () => void
}

function Foot({ count, close }: FootProps) {
  return (
    <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
      <Button type="submit" variant="contained">
        {count === 1 ? 'Add the sheet' : `Add ${count} sheets`}
      </Button>
      <Button onClick={close}>Cancel</Button>
    </Box>
  )
}
