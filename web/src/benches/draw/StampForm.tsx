/** A stamp's name, what it is for, and what it asks: filled in when it is kept, and when it is changed. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState, type ReactNode } from 'react'
import type { Question } from './stampShapes'
import { StampQuestions, type StampThing } from './StampQuestions'

export interface StampWords {
  name: string
  text: string
  questions: Question[]
}

interface Props {
  title: string
  /** On the button that ends it. */
  verb: string
  first: StampWords
  things: StampThing[]
  ready?: boolean
  /** Beside name and questions. */
  children?: ReactNode
  onSave: (words: StampWords) => void
  onCancel: () => void
}

export function StampForm({ title, verb, first, things, ready = true, children, onSave, onCancel }: Props) {
  const [words, setWords] = useState(first)
  const put = (part: Partial<StampWords>) => setWords({ ...words, ...part })
  return (
    <Box
      component="form"
      aria-label={title}
      onSubmit={(e: React.FormEvent) => {
        e.preventDefault()
        onSave(words)
      }}
    >
      <Box sx={{ fontWeight: 600 }}>{title}</Box>
      <TextField
        autoFocus
        fullWidth
        margin="dense"
        label="Name"
        value={words.name}
        onChange={(e) => put({ name: e.target.value })}
      />
      <TextField
        fullWidth
        margin="dense"
        label="What it is for"
        value={words.text}
        onChange={(e) => put({ text: e.target.value })}
      />
      {children}
      <StampQuestions
        things={things}
        questions={words.questions}
        onChange={(questions) => put({ questions })}
      />
      <Box sx={{ display: 'flex', gap: 1, mt: 1.5 }}>
        <Button type="submit" variant="contained" disabled={!words.name.trim() || !ready}>
          {verb}
        </Button>
        <Button onClick={onCancel}>Cancel</Button>
      </Box>
    </Box>
  )
}
