/** A choice from a few: what is chosen is shown by its name; what is no more among them shows as nothing. */
import MenuItem from '@mui/material/MenuItem'
import TextField, { type TextFieldProps } from '@mui/material/TextField'

export interface Option {
  id: string
  name: string
}

/** Words that are their own ids as options. */
export const plain = (words: readonly string[]): Option[] => words.map((id) => ({ id, name: id }))

type Props = Omit<TextFieldProps, 'value' | 'onChange' | 'select' | 'label'> & {
  label: string
  value: string
  options: readonly Option[]
  onPick: (id: string) => void
}

export function Pick({ label, value, options, onPick, ...rest }: Props) {
  return (
    <TextField
      select
      label={label}
      value={options.some((o) => o.id === value) ? value : ''}
      onChange={(e) => onPick(e.target.value)}
      {...rest}
    >
      {options.map((o) => (
        <MenuItem key={o.id} value={o.id}>
          {o.name || 'none'}
        </MenuItem>
      ))}
    </TextField>
  )
}

/** The same, as wide as its panel and close to its neighbours. */
export const PanelPick = (props: Props) => <Pick fullWidth margin="dense" {...props} />
