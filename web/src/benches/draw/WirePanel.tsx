/** Wires in the inspector: number and type. */
import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import type { WireTypeLine } from '../../api/shapes'
import type { Item } from '../../scene/item'
import type { View } from '../../project/view'
import { Field } from '../../kit/Field'
import { NetOrder } from './NetOrder'
import { usePick } from '../../project/store'

interface Props {
  view: View
  wires: Item[]
  types: WireTypeLine[]
  canEdit: boolean
}

export function WirePanel({ view, wires, types, canEdit }: Props) {
  const { send } = usePick('send')
  const [whole, setWhole] = useState(false)
  const first = wires[0]!
  const groups = new Set(wires.map((w) => w.facts.group))
  const kinds = new Set(wires.map((w) => w.facts.type))
  const rows = Object.values(view.wires).filter((r) => r.wires.includes(first.id))
  const fixed = Object.values(view.items).some((i) => i.facts.group === first.facts.group && i.facts.fixed)
  return (
    <>
      <Box sx={{ fontWeight: 600, mb: 1 }}>{wires.length === 1 ? 'Wire' : `${wires.length} wires`}</Box>
      {groups.size === 1 && (
        <Field
          label={fixed ? 'Number, fixed by hand' : 'Number'}
          mono
          value={first.facts.number ?? ''}
          disabled={!canEdit}
          onSave={(number) => send({ kind: 'fix-wire-number', wire_id: first.id, number })}
        />
      )}
      <TextField
        select
        fullWidth
        margin="dense"
        label="Type"
        disabled={!canEdit}
        value={kinds.size === 1 ? (first.facts.type ?? '') : ''}
        onChange={(e) =>
          void send({
            kind: 'set-wire-type',
            ids: wires.map((w) => w.id),
            wire_type_id: e.target.value,
            whole_net: whole,
          })
        }
      >
        {types.map((t) => (
          <MenuItem key={t.id} value={t.id}>
            {t.name} {t.colour}
          </MenuItem>
        ))}
      </TextField>
      {canEdit && (
        <FormControlLabel
          control={<Checkbox size="small" checked={whole} onChange={(e) => setWhole(e.target.checked)} />}
          label="Change the type of the whole net"
          slotProps={{ typography: { sx: { fontSize: 12.5 } } }}
        />
      )}
      {groups.size === 1 && <NetOrder wireId={first.id} rows={rows} canEdit={canEdit} />}
    </>
  )
}
