/** A stamp of the project changed after it was kept: its name, what it is for, and what it asks. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import type { StampLine } from './stampShapes'
import { StampQuestions } from './StampQuestions'
import { usePick } from './store'

export function ChangeStamp({ stamp, close }: { stamp: StampLine; close: () => void }) {
  const { send } = usePick('send')
  const [name, setName] = useState(stamp.name)
  const [text, setText] = useState(stamp.text)
  const [questions, setQuestions] = useState(stamp.questions)
  const save = () =>
    void send({
      kind: 'change-stamp',
      stamp_id: stamp.id,
      name,
      text,
      questions: questions as never,
    }).then((answer) => answer && close())
  return (
    <Box
      component="form"
      aria-label="Change the stamp"
      onSubmit={(e: React.FormEvent) => {
        e.preventDefault()
        save()
      }}
    >
      <Box sx={{ fontWeight: 600 }}>Change the stamp</Box>
      <TextField
        fullWidth
        margin="dense"
        label="Name"
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <TextField
        fullWidth
        margin="dense"
        label="What it is for"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <StampQuestions
        things={stamp.things.map((t) => ({ id: t.id, kind: t.kind, label: t.name }))}
        questions={questions}
        onChange={setQuestions}
      />
      <Box sx={{ display: 'flex', gap: 1, mt: 1.5 }}>
        <Button type="submit" variant="contained" disabled={!name.trim()}>
          Save
        </Button>
        <Button onClick={close}>Cancel</Button>
      </Box>
    </Box>
  )
}
