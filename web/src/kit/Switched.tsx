/** Something that is on or off, with its words beside it. */
import FormControlLabel from '@mui/material/FormControlLabel'
import Switch from '@mui/material/Switch'

interface Props {
  label: string
  on: boolean
  canEdit: boolean
  onSwitch: (on: boolean) => void
}

export function Switched({ label, on, canEdit, onSwitch }: Props) {
  const control = (
    <Switch size="small" checked={on} disabled={!canEdit} onChange={(_, value) => onSwitch(value)} />
  )
  return (
    <FormControlLabel
      sx={{ ml: 0 }}
      control={control}
      label={label}
      slotProps={{ typography: { variant: 'body2' } }}
    />
  )
}
