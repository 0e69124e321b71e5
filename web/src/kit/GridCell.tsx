/** A cell of a Grid while it is edited: a text, or a choice. */
import { useRef, useState } from 'react'
import { shownNow, typedAt } from '../api/typed'
import { COPPER } from '../theme/theme'
import type { Choice } from './gridData'

interface Props {
  label: string
  start: string
  choices?: Choice[] | undefined
  onSave: (value: string, down: boolean) => void
  onCancel: () => void
}

const look = {
  width: '100%',
  height: 24,
  font: 'inherit',
  color: 'inherit',
  border: 0,
  outline: `2px solid ${COPPER}`,
  background: '#fff',
} as const

export function GridCell({ label, start, choices, onSave, onCancel }: Props) {
  const [text, setText] = useState(start)
  // Leaving by a key takes the field away, which leaves it a second time: only the first counts.
  const left = useRef(false)
  const [begun] = useState(shownNow)
  const save = (value: string, down: boolean) => {
    if (left.current) return
    left.current = true
    typedAt(begun, () => onSave(value, down))
  }
  const keys = (event: React.KeyboardEvent) => {
    event.stopPropagation()
    if (event.key === 'Enter') save(text, true)
    if (event.key === 'Tab') {
      event.preventDefault()
      save(text, false)
    }
    if (event.key === 'Escape') {
      left.current = true
      onCancel()
    }
  }
  if (choices)
    return (
      <select
        autoFocus
        aria-label={label}
        value={text}
        style={look}
        onKeyDown={keys}
        onBlur={() => save(text, false)}
        onChange={(e) => {
          setText(e.target.value)
          save(e.target.value, false)
        }}
      >
        {choices.map((c) => (
          <option key={c.id} value={c.id}>
            {c.name || 'none'}
          </option>
        ))}
      </select>
    )
  return (
    <input
      autoFocus
      aria-label={label}
      value={text}
      style={look}
      onFocus={(e) => {
        const end = e.target.value.length
        e.target.setSelectionRange(end, end)
      }}
      onChange={(e) => setText(e.target.value)}
      onKeyDown={keys}
      onBlur={() => save(text, false)}
    />
  )
}
