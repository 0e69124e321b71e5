/** A boundary, line, picture or note in the inspector. */
import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import type { Item } from '../../scene/item'
import { Act, Acts } from '../../kit/Act'
import { Field } from '../../kit/Field'
import { usePlaces } from '../../project/PlaceChoice'
import { usePick } from '../../project/store'
import { lockSelected } from './acts'

export function FigurePanel({ item, canEdit }: { item: Item; canEdit: boolean }) {
  const { send } = usePick('send')
  const places = usePlaces()
  const { figure, text = '', location = '', dashed = false, locked } = item.facts
  const lock = canEdit && (
    <Acts>
      <Act onClick={lockSelected}>{locked ? 'Unlock' : 'Lock'}</Act>
    </Acts>
  )
  if (item.kind === 'note')
    return (
      <>
        <Box sx={{ fontWeight: 600, mb: 0.5 }}>Note</Box>
        <Field
          label="Words"
          value={text}
          disabled={!canEdit}
          onSave={(typed) => void send({ kind: 'change-note', note_id: item.id, text: typed })}
        />
        {lock}
      </>
    )
  const options = places.data?.locations ?? []
  return (
    <>
      <Box sx={{ fontWeight: 600, mb: 0.5, textTransform: 'capitalize' }}>{figure}</Box>
      {figure === 'boundary' && (
        <>
          <Field
            label="Title"
            value={text}
            disabled={!canEdit}
            onSave={(typed) => void send({ kind: 'change-figure', figure_id: item.id, text: typed })}
          />
          <TextField
            select
            fullWidth
            margin="dense"
            label="Stands for the location"
            value={options.some((o) => o.id === location) ? location : ''}
            disabled={!canEdit}
            helperText="What lies inside is there."
            onChange={(e) =>
              void send({ kind: 'change-figure', figure_id: item.id, location_id: e.target.value })
            }
          >
            <MenuItem value="">none</MenuItem>
            {options.map((o) => (
              <MenuItem key={o.id} value={o.id}>
                {o.name} {o.text}
              </MenuItem>
            ))}
          </TextField>
        </>
      )}
      {figure !== 'picture' && (
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={dashed}
              disabled={!canEdit}
              onChange={(e) =>
                void send({ kind: 'change-figure', figure_id: item.id, dashed: e.target.checked })
              }
            />
          }
          label="Broken line"
          slotProps={{ typography: { sx: { fontSize: 12.5 } } }}
        />
      )}
      {lock}
    </>
  )
}
