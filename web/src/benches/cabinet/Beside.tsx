/** Which enclosure stands open on the left of this one, and where the opening is: wires pass there without terminals. */
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { Field } from '../../kit/Field'
import { usePick } from '../../project/store'
import type { EnclosureValue } from './shapes'

interface Props {
  enclosure: EnclosureValue
  others: { id: string; tag: string }[]
  canEdit: boolean
}

export function Beside({ enclosure, others, canEdit }: Props) {
  const { send, say } = usePick('send', 'say')
  const change = (values: { left_id?: string; opening_mm?: number }) =>
    void send({ kind: 'change-enclosure', enclosure_id: enclosure.id, ...values })
  return (
    <>
      <TextField
        select
        fullWidth
        margin="normal"
        label="Open to the one on its left"
        value={others.some((o) => o.id === enclosure.left_id) ? enclosure.left_id : ''}
        disabled={!canEdit}
        onChange={(e) => change({ left_id: e.target.value })}
      >
        <MenuItem value="">no opening</MenuItem>
        {others.map((o) => (
          <MenuItem key={o.id} value={o.id}>
            {o.tag}
          </MenuItem>
        ))}
      </TextField>
      {enclosure.left_id !== '' && (
        <Field
          label="Opening below the upper edge, mm"
          value={String(enclosure.opening_mm)}
          disabled={!canEdit}
          onSave={(typed) => {
            const value = Number(typed.replace(',', '.'))
            if (Number.isNaN(value)) say(`“${typed}” is no number.`, 'error')
            else change({ opening_mm: value })
          }}
        />
      )}
    </>
  )
}
