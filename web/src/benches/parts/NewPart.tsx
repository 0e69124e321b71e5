/** A new part: pasted from a table, or of a class with the units such parts usually have. */
import { Pick } from '../../kit/Pick'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { wordsOf } from '../../api/client'
import { COPPER, LINE, QUIET, SNAG } from '../../theme/theme'
import { draftStep, type Draft, type Kinds, type Shelf } from './kinds'
import { NewClass } from './NewClass'
import { PartForm } from './PartForm'

const NEW_CLASS = '+'

interface Props {
  kinds: Kinds | undefined
  shelves: Shelf[]
  close: () => void
  done: (id: string) => void
}

const ASIDE = {
  width: 470,
  flexShrink: 0,
  borderLeft: `1px solid ${LINE}`,
  bgcolor: '#FBF8F1',
  p: 2,
  overflow: 'auto',
} as const

export function NewPart({ kinds, shelves, close, done }: Props) {
  const [draft, setDraft] = useState<Draft | null>(null)
  const [text, setText] = useState('')
  const [cls, setCls] = useState('')
  const [own, setOwn] = useState({ class_name: '', like: '', iec: '', na: '' })
  const [problem, setProblem] = useState('')
  if (!kinds) return null
  const begin = (step: Parameters<typeof draftStep>[0]) => {
    setProblem('')
    draftStep(step).then(setDraft, (error: unknown) => setProblem(wordsOf(error)))
  }
  if (draft)
    return (
      <PartForm
        title="New part"
        note={draft.left?.length ? `Not understood: ${draft.left.join(' · ')}` : ''}
        start={draft}
        kinds={kinds}
        shelves={shelves}
        close={close}
        done={done}
      />
    )
  const classes = [
    { id: '', name: 'from the text' },
    { id: NEW_CLASS, name: 'a new class…' },
    ...kinds.classes.map((c) => ({ id: c.key, name: c.name })),
  ]
  const of = cls === NEW_CLASS ? own : { part_class: cls }
  return (
    <Box component="aside" aria-label="New part" sx={ASIDE}>
      <Box sx={{ fontWeight: 600, mb: 1 }}>New part</Box>
      <Pick
        fullWidth
        label="Class"
        value={cls}
        options={classes}
        onPick={setCls}
        helperText="Its usual units come with it. With pasted text, leave it open and it is guessed."
      />
      {cls === NEW_CLASS && <NewClass kinds={kinds} own={own} set={setOwn} />}
      <Pasted {...{ text, setText }} />
      {problem && <Box sx={{ color: SNAG, fontSize: 12.5, mb: 1 }}>{problem}</Box>}
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button
          variant="contained"
          disabled={!text.trim() && !cls}
          onClick={() => begin({ act: text.trim() ? 'text' : 'new', text, ...of })}
        >
          {text.trim() ? 'Read the text' : 'Begin'}
        </Button>
        <Button onClick={close}>Cancel</Button>
      </Box>
      <Box sx={{ fontSize: 12, color: QUIET, mt: 2 }}>
        To make one like another, open that one and choose <b style={{ color: COPPER }}>Make one like it</b>.
      </Box>
    </Box>
  )
}

interface PastedProps {
  text: string
  setText: (text: string) => void
}

function Pasted({ text, setText }: PastedProps) {
  return (
    <TextField
      fullWidth
      multiline
      minRows={9}
      margin="normal"
      label="Text from a page or data sheet"
      placeholder={'Manufacturer\t…\nArticle number\t…\nWidth\t22.5 mm'}
      value={text}
      onChange={(e) => setText(e.target.value)}
      helperText="One property a line: its name, then a tab, colon or two spaces, then its value."
    />
  )
}
