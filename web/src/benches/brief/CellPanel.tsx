/** A cell of a title block in the inspector: heading, content with fields to choose from, text, picture, place. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import { useState } from 'react'
import { MONO, QUIET, TEAL } from '../../theme/theme'
import { Field } from '../../kit/Field'
import { PanelPick, Pick } from '../../kit/Pick'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'
import type { Blocks, Cell } from './shapes'

interface Props {
  cell: Cell
  blocks: Blocks
  canEdit: boolean
  onRemoved: () => void
}

const ANCHORS = [
  { id: 'start', name: 'left' },
  { id: 'middle', name: 'in the middle' },
  { id: 'end', name: 'right' },
]
const PLACE = [
  ['x', 'From left, mm'],
  ['y', 'From top, mm'],
  ['width', 'Width, mm'],
  ['height', 'Height, mm'],
] as const

export function CellPanel({ cell, blocks, canEdit, onRemoved }: Props) {
  const { send } = usePick('send')
  const put = (values: Partial<Cell>) =>
    send({ kind: 'put-title-cell', block_id: cell.block_id, cell_id: cell.id, ...values })
  return (
    <>
      <Box sx={{ fontWeight: 600 }}>Cell</Box>
      <Field
        label="Heading"
        value={cell.heading}
        disabled={!canEdit}
        onSave={(heading) => put({ heading })}
      />
      <Field
        label="Content"
        value={cell.content}
        disabled={!canEdit}
        mono
        onSave={(content) => put({ content })}
      />
      {canEdit && (
        <Fields blocks={blocks} add={(name) => put({ content: `${cell.content} {${name}}`.trim() })} />
      )}
      <Place {...{ cell, canEdit, put }} />
      <FormControlLabel
        label="Edge around it"
        control={
          <Checkbox
            size="small"
            checked={cell.border}
            disabled={!canEdit}
            onChange={(e) => put({ border: e.target.checked })}
          />
        }
      />
      <PanelPick
        label="Picture"
        value={cell.picture_id}
        options={[{ id: '', name: 'none' }, ...blocks.pictures]}
        disabled={!canEdit}
        onPick={(picture_id) => put({ picture_id })}
      />
      {canEdit && (
        <Section title="Remove">
          <Button
            color="error"
            onClick={() => void send({ kind: 'remove-title-cells', cell_ids: [cell.id] }).then(onRemoved)}
          >
            Take the cell out
          </Button>
        </Section>
      )}
    </>
  )
}

interface FieldsProps {
  blocks: Blocks
  add: (name: string) => void
}

/** The fields a content may have, found by words. */
function Fields({ blocks, add }: FieldsProps) {
  const [words, setWords] = useState('')
  const fields = blocks.fields.filter((f) =>
    `${f.name} ${f.help}`.toLowerCase().includes(words.toLowerCase()),
  )
  return (
    <Box sx={{ border: '1px solid #E3DCCB', borderRadius: 1, bgcolor: '#fff', mt: 0.5, mb: 1 }}>
      <input
        aria-label="Find a field"
        placeholder="Add a field…"
        value={words}
        onChange={(e) => setWords(e.target.value)}
        style={{
          width: '100%',
          border: 0,
          padding: '5px 8px',
          font: 'inherit',
          background: 'transparent',
        }}
      />
      <Box sx={{ maxHeight: 158, overflow: 'auto' }}>
        {fields.map((f) => (
          <Box
            key={f.name}
            component="button"
            type="button"
            title={f.help}
            onClick={() => add(f.name)}
            sx={{
              display: 'flex',
              width: '100%',
              gap: 1,
              border: 0,
              bgcolor: 'transparent',
              font: 'inherit',
              fontSize: 12,
              px: 1,
              py: 0.3,
              cursor: 'pointer',
              textAlign: 'left',
              '&:hover': { bgcolor: '#F5ECE0' },
            }}
          >
            <span style={{ fontFamily: MONO, color: TEAL, whiteSpace: 'nowrap' }}>{f.name}</span>
            <span
              style={{ color: QUIET, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
            >
              {f.text}
            </span>
          </Box>
        ))}
      </Box>
    </Box>
  )
}

interface PlaceProps {
  cell: Cell
  canEdit: boolean
  put: (values: Partial<Cell>) => void
}

/** Size and stand of the text, and where the cell lies. */
function Place({ cell, canEdit, put }: PlaceProps) {
  const { say } = usePick('say')
  const number = (text: string, save: (n: number) => void) => {
    const value = Number(text.replace(',', '.'))
    if (text.trim() === '' || Number.isNaN(value)) say(`“${text}” is no number.`, 'error')
    else save(value)
  }
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
      <Field
        label="Text height, mm"
        value={String(cell.size_mm)}
        disabled={!canEdit}
        onSave={(v) => number(v, (size_mm) => put({ size_mm }))}
      />
      <Pick
        margin="dense"
        label="Text stands"
        value={cell.anchor}
        options={ANCHORS}
        disabled={!canEdit}
        onPick={(anchor) => put({ anchor: anchor as Cell['anchor'] })}
      />
      {PLACE.map(([key, label]) => (
        <Field
          key={key}
          label={label}
          value={String(Math.round(cell[key] * 1000) / 1000)}
          disabled={!canEdit}
          onSave={(v) => number(v, (n) => put({ [key]: n }))}
        />
      ))}
    </Box>
  )
}
