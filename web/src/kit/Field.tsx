/** A text that is saved when it is left or Enter is pressed; Escape puts the old one back. */
import TextField from '@mui/material/TextField'
import { useEffect, useLayoutEffect, useRef, useState } from 'react'

interface Props {
  label: string
  value: string
  disabled?: boolean
  placeholder?: string
  mono?: boolean
  /** It may have several lines; it is saved when it is left, or with Ctrl and Enter. */
  lines?: boolean
  onSave: (value: string) => void
}

function isMarked(input: HTMLInputElement | null): boolean {
  if (!input || input !== document.activeElement) return false
  return input.value !== '' && input.selectionStart === 0 && input.selectionEnd === input.value.length
}

export function Field({ label, value, disabled, placeholder, mono, lines, onSave }: Props) {
  const [text, setText] = useState(value)
  // Whether something is being typed that has not been saved: whatever is stored meanwhile does not replace it.
  const typing = useRef(false)
  const input = useRef<HTMLInputElement>(null)
  // Whether all of it was marked, to be typed over, when another text came: then all of that is marked.
  const marked = useRef(false)
  useEffect(() => {
    if (typing.current) return
    marked.current = input.current?.value !== value && isMarked(input.current)
    setText(value)
  }, [value])
  useLayoutEffect(() => {
    if (marked.current) input.current?.select()
    marked.current = false
  }, [text])
  const save = () => {
    typing.current = false
    if (text !== value) onSave(text)
  }
  return (
    <TextField
      fullWidth
      multiline={lines ?? false}
      inputRef={input}
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
        if (e.key === 'Enter' && (!lines || e.ctrlKey)) (e.target as HTMLElement).blur()
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
