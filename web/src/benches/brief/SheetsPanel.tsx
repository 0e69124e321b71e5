/** The sheets that are chosen: one value for all of them, duplicate, delete, open. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { Link } from 'react-router'
import { makeEdit } from '../../api/client'
import { QUIET } from '../../theme/theme'
import { Field } from '../../kit/Field'
import type { Places } from '../../project/PlaceChoice'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'
import type { SheetRecord, Sheets } from './shapes'

interface Props {
  table: Sheets
  places: Places | undefined
  picked: string[]
  canEdit: boolean
}

const VARIOUS = 'various'

/** The value all sheets share, or that they differ. */
function shared(sheets: SheetRecord[], key: keyof SheetRecord): string {
  const values = new Set(sheets.map((s) => String(s[key])))
  return values.size === 1 ? [...values][0]! : VARIOUS
}

export function SheetsPanel({ table, places, picked, canEdit }: Props) {
  const { projectId, send } = usePick('projectId', 'send')
  const [number, setNumber] = useState('')
  const sheets = table.sheets.filter((s) => picked.includes(s.id))
  const one = sheets.length === 1 ? sheets[0]! : null
  const set = (values: Record<string, unknown>) =>
    void send(
      makeEdit('change-sheets', {
        sheets: sheets.map((s) => ({ sheet_id: s.id, ...values })),
        follow: true,
      }),
    )
  const choose = (
    label: string,
    key: keyof SheetRecord,
    field: string,
    options: { id: string; name: string }[],
  ) => {
    const value = shared(sheets, key)
    return (
      <TextField
        select
        fullWidth
        margin="dense"
        label={label}
        value={value === VARIOUS || options.some((o) => o.id === value) ? value : ''}
        disabled={!canEdit}
        onChange={(e) => set({ [field]: e.target.value })}
      >
        {value === VARIOUS && (
          <MenuItem value={VARIOUS} disabled>
            various
          </MenuItem>
        )}
        {options.map((o) => (
          <MenuItem key={o.id} value={o.id}>
            {o.name || 'none'}
          </MenuItem>
        ))}
      </TextField>
    )
  }
  const none = { id: '', name: '' }
  const title = shared(sheets, 'title')
  const subject = one ? (table.kinds.find((k) => k.id === one.kind)?.subject ?? '') : ''
  return (
    <>
      <Box sx={{ fontWeight: 600 }}>{one ? `Sheet ${one.number}` : `${sheets.length} sheets`}</Box>
      <Box sx={{ color: QUIET, fontSize: 12 }}>What is set here is set for all of them, as one edit.</Box>
      <Field
        label="Title"
        value={title === VARIOUS ? '' : title}
        placeholder={title === VARIOUS ? VARIOUS : ''}
        disabled={!canEdit}
        onSave={(v) => set({ title: v })}
      />
      {choose('Kind', 'kind', 'sheet_kind', table.kinds)}
      {one && subject && (
        <TextField
          select
          fullWidth
          margin="dense"
          label="Shows"
          value={one[subject]}
          disabled={!canEdit}
          onChange={(e) => set({ [subject]: e.target.value })}
        >
          {[none, ...(table.subjects[one.kind] ?? [])].map((o) => (
            <MenuItem key={o.id} value={o.id}>
              {o.name || 'nothing yet'}
            </MenuItem>
          ))}
        </TextField>
      )}
      {choose(
        'Size',
        'size',
        'size',
        table.sizes.map((s) => ({ id: s, name: s })),
      )}
      {choose('Frame', 'frame', 'frame', [
        { id: 'ladder', name: 'Ladder lines' },
        { id: 'zones', name: 'Zones' },
      ])}
      {choose('Function', 'function_id', 'function_id', [none, ...(places?.functions ?? [])])}
      {choose('Location', 'location_id', 'location_id', [none, ...(places?.locations ?? [])])}
      {choose('Title block', 'title_block_id', 'title_block_id', [
        { id: '', name: 'of the project' },
        ...table.blocks,
      ])}
      {one && (
        <Button component={Link} to={`/p/${projectId}/draw/${one.id}`} sx={{ mt: 1 }}>
          Open sheet {one.number}
        </Button>
      )}
      {canEdit && one && (
        <Section title="Duplicate">
          <Box
            component="form"
            sx={{ display: 'flex', gap: 0.5 }}
            onSubmit={(e: React.FormEvent) => {
              e.preventDefault()
              void send({ kind: 'duplicate-sheet', sheet_id: one.id, number }).then((a) => a && setNumber(''))
            }}
          >
            <TextField label="As number" value={number} onChange={(e) => setNumber(e.target.value)} />
            <Button type="submit" disabled={!number.trim()}>
              Duplicate
            </Button>
          </Box>
          <Box sx={{ color: QUIET, fontSize: 12 }}>With fresh tags and no fixed numbers.</Box>
        </Section>
      )}
      {canEdit && (
        <Button
          color="error"
          sx={{ mt: 2 }}
          onClick={() => void send({ kind: 'delete-sheets', sheet_ids: picked })}
        >
          Delete {one ? `sheet ${one.number}` : `${sheets.length} sheets`}
        </Button>
      )}
    </>
  )
}
