/** A class of the house's own, made on the way to its first part: like another one, with a name and letters. */
import Box from '@mui/material/Box'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import type { Kinds } from './kinds'

export interface OwnClass {
  class_name: string
  like: string
  iec: string
  na: string
}

interface Props {
  kinds: Kinds
  own: OwnClass
  set: (own: OwnClass) => void
}

export function NewClass({ kinds, own, set }: Props) {
  const letters = (label: string, key: 'iec' | 'na') => (
    <TextField
      label={label}
      value={own[key]}
      placeholder="as that one"
      onChange={(e) => set({ ...own, [key]: e.target.value.toUpperCase().slice(0, 4) })}
      slotProps={{ inputLabel: { shrink: true } }}
    />
  )
  return (
    <Box
      sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1, mt: 1.5 }}
      role="group"
      aria-label="New class"
    >
      <TextField
        label="Name of the class"
        value={own.class_name}
        onChange={(e) => set({ ...own, class_name: e.target.value })}
      />
      <TextField
        select
        label="It is like"
        value={own.like}
        onChange={(e) => set({ ...own, like: e.target.value })}
      >
        {kinds.classes
          .filter((c) => !c.key.startsWith('own:'))
          .map((c) => (
            <MenuItem key={c.key} value={c.key}>
              {c.name}
            </MenuItem>
          ))}
      </TextField>
      {letters('Letters, IEC', 'iec')}
      {letters('Letters, North America', 'na')}
    </Box>
  )
}
