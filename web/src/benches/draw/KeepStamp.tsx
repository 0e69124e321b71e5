/** Keeping the selection as a stamp: its name, the point that will lie on the caret, and what it shall ask. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { QUIET } from '../../app/theme'
import { Act } from '../../kit/Act'
import type { Question } from './stampShapes'
import { StampQuestions } from './StampQuestions'
import { usePick } from './store'

export function KeepStamp() {
  const { send, set, selection, view, caret } = usePick('send', 'set', 'selection', 'view', 'caret')
  const [name, setName] = useState('')
  const [text, setText] = useState('')
  const [anchored, setAnchored] = useState<[number, number] | null>(null)
  const [questions, setQuestions] = useState<Question[]>([])
  const ids = [...selection].filter((id) => id in view.items)
  const items = ids.map((id) => view.items[id]!)
  const devices = new Map<string, string>()
  for (const i of items) {
    const id = i.facts.device
    if (id && !devices.has(id)) devices.set(id, `${i.facts.tag ?? ''} ${i.facts.text ?? ''}`.trim())
    if (id && i.facts.text) devices.set(id, `${i.facts.tag ?? ''} ${i.facts.text}`.trim())
  }
  const types = new Set(items.filter((i) => i.kind === 'wire').map((i) => i.facts.type ?? ''))
  const things = [
    ...[...devices].map(([id, label]) => ({ id, kind: 'device', label })),
    ...items
      .filter((i) => i.kind === 'note' || i.kind === 'continuation')
      .map((i) => ({ id: i.id, kind: i.kind, label: i.facts.name ?? i.facts.text ?? i.kind })),
    ...[...types].map((id) => ({ id, kind: 'wire-type', label: `Wires of ${nameOfType(id)}` })),
  ]
  function nameOfType(id: string) {
    return Object.values(view.wires).find((w) => view.items[w.wire_id]?.facts.type === id)?.type ?? 'one type'
  }
  const keep = () =>
    void send({
      kind: 'keep-stamp',
      ids,
      name,
      text,
      anchor_x: anchored?.[0] ?? null,
      anchor_y: anchored?.[1] ?? null,
      questions: questions as never,
    }).then((answer) => answer && set({ panel: 'stamps', selection: new Set() }))
  return (
    <Box
      component="form"
      aria-label="Keep as stamp"
      onSubmit={(e: React.FormEvent) => {
        e.preventDefault()
        keep()
      }}
    >
      <Box sx={{ fontWeight: 600 }}>Keep as stamp</Box>
      <Box sx={{ fontSize: 12, color: QUIET }}>
        {ids.length ? `${ids.length} things selected` : 'Select what shall be kept.'}
      </Box>
      <TextField
        autoFocus
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
      <Box sx={{ fontSize: 12.5, display: 'flex', alignItems: 'center', gap: 1 }}>
        <span style={{ flex: 1 }}>
          Caret point: {anchored ? `${anchored[0]}, ${anchored[1]}` : 'upper left corner'}
        </span>
        <Act onClick={() => setAnchored([...caret])} hint="The caret's place on the sheet">
          Caret
        </Act>
      </Box>
      <StampQuestions things={things} questions={questions} onChange={setQuestions} />
      <Box sx={{ display: 'flex', gap: 1, mt: 1.5 }}>
        <Button type="submit" variant="contained" disabled={!name.trim() || !ids.length}>
          Keep
        </Button>
        <Button onClick={() => set({ panel: '' })}>Cancel</Button>
      </Box>
    </Box>
  )
}
