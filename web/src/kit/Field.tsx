/** A text that is saved when it is left or Enter is pressed; Escape puts the old one back. */
import TextField from '@mui/material/TextField'
import { useEffect, useRef, useState } from 'react'

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
  // Whether a text was sent whose answer has not come yet, and whether the next is being typed already.
  const sent = useRef(false)
  const typing = useRef(false)
  useEffect(() => {
    const echo = sent.current && typing.current
    sent.current = false
    if (!echo) setText(value)
  }, [value])
  const save = () => {
    typing.current = false
    if (text === value) return
    sent.current = true
    onSave(text)
  }
  return (
    <TextField
      fullWidth
      label={label}
      value={text}
      disabled={disabled ?? false}
      placeholder={placeholder ?? ''}
      margin="dense"
      onChange={(e) => {
        typing.current = true
        setText(e.target.value)
      }}
      onBlur={save}
      onKeyDown={(e) => {
        if (e.key === 'Enter') (e.target as HTMLElement).blur()
        if (e.key !== 'Escape') return
        typing.current = false
        setText(value)
      }}
      slotProps={{
        inputLabel: placeholder ? { shrink: true } : {},
        htmlInput: { style: mono ? { fontFamily: '"IBM Plex Mono"' } : undefined },
      }}
    />
  )
}
