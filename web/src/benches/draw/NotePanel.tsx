/** A note in the inspector: its words, how it stands, and what it is in the project's other languages. */
import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import type { Item } from '../../scene/item'
import { makeEdit, type Edit } from '../../api/client'
import { Field } from '../../kit/Field'
import { PanelPick } from '../../kit/Pick'
import { usePick } from '../../project/store'
import { SaidIn } from './SaidIn'

/** Heights of letters of ISO 3098, and the usual one. */
const SIZES = [1.8, 2.5, 3, 3.5, 5, 7, 10, 14, 20]
const ALIGN = [
  { id: 'start', name: 'from its point on' },
  { id: 'middle', name: 'about its point' },
  { id: 'end', name: 'up to its point' },
]

export function NotePanel({ item, canEdit }: { item: Item; canEdit: boolean }) {
  const { send } = usePick('send')
  const { text = '', size = 3, turned = false, align = 'start' } = item.facts
  const change = (values: Omit<Edit<'change-note'>, 'kind' | 'note_id'>) =>
    send(makeEdit('change-note', { note_id: item.id, ...values }))
  const sizes = [...new Set([...SIZES, size])].sort((a, b) => a - b)
  return (
    <>
      <Box sx={{ fontWeight: 600, mb: 0.5 }}>Note</Box>
      <Field
        label="Words"
        lines
        value={text}
        disabled={!canEdit}
        onSave={(typed) => change({ text: typed })}
      />
      <PanelPick
        label="Height of letters"
        value={String(size)}
        options={sizes.map((mm) => ({ id: String(mm), name: `${mm} mm` }))}
        disabled={!canEdit}
        onPick={(id) => change({ size_mm: Number(id) })}
      />
      <PanelPick
        label="Runs"
        value={align}
        options={ALIGN}
        disabled={!canEdit}
        onPick={(id) => change({ align: id as 'start' | 'middle' | 'end' })}
      />
      <FormControlLabel
        control={
          <Checkbox
            size="small"
            checked={turned}
            disabled={!canEdit}
            onChange={(e) => change({ turned: e.target.checked })}
          />
        }
        label="Read from the right"
        slotProps={{ typography: { sx: { fontSize: 12.5 } } }}
      />
      <SaidIn words={text} canEdit={canEdit} />
    </>
  )
}
