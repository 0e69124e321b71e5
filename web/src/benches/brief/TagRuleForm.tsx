/** Devices of a class named otherwise, everywhere or at a place: letters, first number, and what would change. */
import { PanelPick, type Option } from '../../kit/Pick'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { makeEdit, type AnyEdit } from '../../api/client'
import { QUIET } from '../../theme/theme'
import { usePlaces } from '../../project/PlaceChoice'
import { useProject } from '../../project/store'

import { ChangeTable } from './ChangeTable'
import type { TagRuleRecord, WiringHabits } from './shapes'

interface Props {
  data: WiringHabits
  rule: TagRuleRecord
  close: () => void
}

export function TagRuleForm({ data, rule, close }: Props) {
  const [values, setValues] = useState(rule)
  const places = usePlaces().data
  const edit = makeEdit('put-tag-rule', {
    part_class: values.part_class,
    function_id: values.function_id,
    location_id: values.location_id,
    letters: values.letters.trim(),
    start: values.start,
  })
  const choose = (label: string, field: 'part_class' | 'function_id' | 'location_id', options: Option[]) => (
    <PanelPick
      label={label}
      value={values[field]}
      options={options}
      onPick={(id) => setValues({ ...values, [field]: id })}
    />
  )
  const everywhere = { id: '', name: 'everywhere' }
  return (
    <>
      <Box sx={{ fontWeight: 600 }}>Name devices otherwise</Box>
      <Box sx={{ fontSize: 12.5, color: QUIET }}>
        A rule for a place goes before one for everywhere. What is inside the place counts, too.
      </Box>
      {choose('Class', 'part_class', data.letters)}
      {choose('In the function', 'function_id', [everywhere, ...(places?.functions ?? [])])}
      {choose('In the location', 'location_id', [everywhere, ...(places?.locations ?? [])])}
      <TextField
        fullWidth
        margin="dense"
        label="Letters, none for the usual"
        value={values.letters}
        onChange={(e) => setValues({ ...values, letters: e.target.value.toUpperCase() })}
      />
      <TextField
        fullWidth
        margin="dense"
        type="number"
        label="First number"
        value={values.start || 1}
        onChange={(e) => setValues({ ...values, start: Math.max(0, Number(e.target.value) || 0) })}
      />
      <ChangeTable edit={edit} />
      <Foot {...{ edit, close }} />
    </>
  )
}

interface FootProps {
  edit: AnyEdit
  close: () => void
}

function Foot({ edit, close }: FootProps) {
  return (
    <Box sx={{ display: 'flex', gap: 1 }}>
      <Button
        variant="contained"
        onClick={() =>
          void useProject
            .getState()
            .send(edit)
            .then((answer) => answer && close())
        }
      >
        Save
      </Button>
      <Button onClick={close}>Cancel</Button>
    </Box>
  )
}
