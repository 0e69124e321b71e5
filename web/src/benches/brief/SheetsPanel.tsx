/** The sheets that are chosen: one value for all of them, duplicate, delete, open. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { Link } from 'react-router'
import { makeEdit } from '../../api/client'
import { QUIET } from '../../theme/theme'
import { Field } from '../../kit/Field'
import { PanelPick, plain, type Option } from '../../kit/Pick'
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

const FRAMES = [
  { id: 'ladder', name: 'Ladder lines' },
  { id: 'zones', name: 'Zones' },
]

export function SheetsPanel({ table, places, picked, canEdit }: Props) {
  const { projectId, send } = usePick('projectId', 'send')
  const sheets = table.sheets.filter((s) => picked.includes(s.id))
  const one = sheets.length === 1 ? sheets[0]! : null
  const set = (values: Record<string, unknown>) =>
    send(
      makeEdit('change-sheets', {
        sheets: sheets.map((s) => ({ sheet_id: s.id, ...values })),
        follow: true,
      }),
    )
  const choose = (label: string, key: keyof SheetRecord, field: string, options: Option[]) => {
    const value = shared(sheets, key)
    return (
      <PanelPick
        label={label}
        value={value}
        options={value === VARIOUS ? [{ id: VARIOUS, name: 'various' }, ...options] : options}
        disabled={!canEdit}
        onPick={(id) => id !== VARIOUS && set({ [field]: id })}
      />
    )
  }
  const none = { id: '', name: '' }
  const blocks = [{ id: '', name: 'of the project' }, ...table.blocks]
  const title = shared(sheets, 'title')
  const subject = one ? (table.kinds.find((k) => k.id === one.kind)?.subject ?? '') : ''
  return (
    <>
      <Box sx={{ fontWeight: 600 }}>{one ? `Sheet ${one.number}` : `${sheets.length} sheets`}</Box>
      <Box sx={{ color: QUIET, fontSize: 12 }}>What is set here is set for all of them, as one edit.</Box>
      <Title {...{ title, canEdit, set }} />
      {choose('Kind', 'kind', 'sheet_kind', table.kinds)}
      {one && subject && (
        <PanelPick
          label="Shows"
          value={one[subject]}
          options={[{ id: '', name: 'nothing yet' }, ...(table.subjects[one.kind] ?? [])]}
          disabled={!canEdit}
          onPick={(id) => set({ [subject]: id })}
        />
      )}
      {choose('Size', 'size', 'size', plain(table.sizes))}
      {choose('Frame', 'frame', 'frame', FRAMES)}
      {choose('Function', 'function_id', 'function_id', [none, ...(places?.functions ?? [])])}
      {choose('Location', 'location_id', 'location_id', [none, ...(places?.locations ?? [])])}
      {choose('Title block', 'title_block_id', 'title_block_id', blocks)}
      {one && (
        <Button component={Link} to={`/p/${projectId}/draw/${one.id}`} sx={{ mt: 1 }}>
          Open sheet {one.number}
        </Button>
      )}
      {canEdit && one && <Duplicate sheetId={one.id} />}
      {canEdit && <Remove picked={picked} words={one ? `sheet ${one.number}` : `${sheets.length} sheets`} />}
    </>
  )
}

interface DuplicateProps {
  sheetId: string
}

function Duplicate({ sheetId }: DuplicateProps) {
  const { send } = usePick('send')
  const [number, setNumber] = useState('')
  return (
    <Section title="Duplicate">
      <Box
        component="form"
        sx={{ display: 'flex', gap: 0.5 }}
        onSubmit={(e: React.FormEvent) => {
          e.preventDefault()
          void send({ kind: 'duplicate-sheet', sheet_id: sheetId, number }).then((a) => a && setNumber(''))
        }}
      >
        <TextField label="As number" value={number} onChange={(e) => setNumber(e.target.value)} />
        <Button type="submit" disabled={!number.trim()}>
          Duplicate
        </Button>
      </Box>
      <Box sx={{ color: QUIET, fontSize: 12 }}>With fresh tags and no fixed numbers.</Box>
    </Section>
  )
}

interface RemoveProps {
  picked: string[]
  words: string
}

function Remove({ picked, words }: RemoveProps) {
  const { send } = usePick('send')
  return (
    <Button
      color="error"
      sx={{ mt: 2 }}
      onClick={() => void send({ kind: 'delete-sheets', sheet_ids: picked })}
    >
      Delete {words}
    </Button>
  )
}

interface TitleProps {
  title: string
  canEdit: boolean
  set: (values: { title: string }) => void
}

function Title({ title, canEdit, set }: TitleProps) {
  return (
    <Field
      label="Title"
      value={title === VARIOUS ? '' : title}
      placeholder={title === VARIOUS ? VARIOUS : ''}
      disabled={!canEdit}
      onSave={(v) => set({ title: v })}
    />
  )
}
