/** Which enclosure stands open on the left of this one, and where the opening is: wires pass there without terminals. */
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { LengthField } from '../../project/LengthField'
import { usePick } from '../../project/store'
import type { EnclosureValue } from './shapes'

interface Props {
  enclosure: EnclosureValue
  others: { id: string; tag: string }[]
  canEdit: boolean
}

export function Beside({ enclosure, others, canEdit }: Props) {
  const { send } = usePick('send')
  const change = (values: { left_id?: string; opening_mm?: number }) =>
    send({ kind: 'change-enclosure', enclosure_id: enclosure.id, ...values })
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
        <LengthField
          label="Opening below the upper edge"
          value={enclosure.opening_mm}
          disabled={!canEdit}
          onSave={(opening_mm) => change({ opening_mm })}
        />
      )}
    </>
  )
}
