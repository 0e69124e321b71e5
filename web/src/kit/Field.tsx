/** A text that is saved when it is left or Enter is pressed; Escape puts the old one back. */
import TextField from '@mui/material/TextField'
import { useEffect, useState } from 'react'

interface Props {
  label: string
  value: string
  disabled?: boolean
  placeholder?: string
  mono?: boolean
  onSave: (value: string) => void
}

export function Field({ label, value, disabled, placeholder, mono, onSave }: Props) {
  const [text, setText] = useState(value)
  useEffect(() => setText(value), [value])
  const save = () => {
    if (text !== value) onSave(text)
  }
  return (
    <TextField
      fullWidth
      label={label}
      value={text}
      disabled={disabled ?? false}
      placeholder={placeholder ?? ''}
      margin="dense"
      onChange={(e) => setText(e.target.value)}
      onBlur={save}
      onKeyDown={(e) => {
        if (e.key === 'Enter') (e.target as HTMLElement).blur()
        if (e.key === 'Escape') setText(value)
      }}
      slotProps={{
        inputLabel: placeholder ? { shrink: true } : {},
        htmlInput: { style: mono ? { fontFamily: '"IBM Plex Mono"' } : undefined },
      }}
    />
  )
}
