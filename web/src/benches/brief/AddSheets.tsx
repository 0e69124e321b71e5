/** Adding sheets: one, or a block of numbers and titles pasted from a spreadsheet. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { makeEdit } from '../../api/client'
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
  return block
    .replace(/\r/g, '')
    .split('\n')
    .filter((line) => line.trim())
    .map((line) => {
      const cells = line.split('\t').map((c) => c.trim())
      return cells.length > 1
        ? { number: cells[0]!, title: cells[1]!, subtitle: cells[2] ?? '' }
        : { number: '', title: cells[0]!, subtitle: '' }
    })
}

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
  const several = Math.max(1, lines.length)
  const add = async () => {
    const sheets = lines.length ? lines : [{ number: '', title: '', subtitle: '' }]
    const answer = await send(
      makeEdit('add-sheets', {
        sheets: sheets.map((s) => ({
          ...s,
          sheet_kind: kind,
          function_id: functionId,
          location_id: locationId,
        })),
        after_id: place,
      }),
    )
    if (answer) close()
  }
  const choose = (
    label: string,
    value: string,
    set: (v: string) => void,
    options: { id: string; name: string }[],
  ) => (
    <TextField
      select
      fullWidth
      margin="dense"
      label={label}
      value={value}
      onChange={(e) => set(e.target.value)}
    >
      {options.map((o) => (
        <MenuItem key={o.id || '-'} value={o.id}>
          {o.name || 'none'}
        </MenuItem>
      ))}
    </TextField>
  )
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
      {choose('Kind of sheet', kind, setKind, table.kinds)}
      {choose('In function', functionId, setFunction, [none, ...(places?.functions ?? [])])}
      {choose('In location', locationId, setLocation, [none, ...(places?.locations ?? [])])}
      {choose('Where', place, setPlace, [
        { id: '', name: 'at the end' },
        { id: '-', name: 'at the front' },
        ...table.sheets.map((s) => ({ id: s.id, name: `after ${s.number} ${s.title}`.slice(0, 40) })),
      ])}
      <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
        <Button type="submit" variant="contained">
          {several === 1 ? 'Add the sheet' : `Add ${several} sheets`}
        </Button>
        <Button onClick={close}>Cancel</Button>
      </Box>
    </Box>
  )
}
