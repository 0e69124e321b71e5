/** The questions a stamp asks: their words, what the answer sets, and for which things of it. */
import { PanelPick } from '../../kit/Pick'
import Box from '@mui/material/Box'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { Act } from '../../kit/Act'
import { Section } from '../../kit/Section'
import { QUESTION_KINDS, type Question } from './stampShapes'

/** What questions may concern. */
export interface StampThing {
  id: string
  kind: string
  label: string
}

interface Props {
  things: StampThing[]
  questions: Question[]
  onChange: (questions: Question[]) => void
}

export function StampQuestions({ things, questions, onChange }: Props) {
  const change = (n: number, part: Partial<Question>) =>
    onChange(questions.map((q, i) => (i === n ? { ...q, ...part } : q)))
  return (
    <Section title="It asks">
      {questions.map((q, n) => {
        const kind = QUESTION_KINDS.find((k) => k.id === q.kind)!
        const options = things.filter((t) => kind.on.includes(t.kind))
        return (
          <Box key={n} sx={{ borderLeft: '2px solid #E3DCCB', pl: 1, mb: 1 }}>
            <TextField
              fullWidth
              margin="dense"
              label={`Question ${n + 1}`}
              value={q.name}
              onChange={(e) => change(n, { name: e.target.value })}
            />
            <PanelPick
              label="The answer is a"
              value={q.kind}
              options={QUESTION_KINDS}
              onPick={(id) => change(n, { kind: id, targets: [] })}
            />
            {kind.on.length > 0 && (
              <TextField
                select
                fullWidth
                margin="dense"
                label="For"
                value={q.targets}
                onChange={(e) => change(n, { targets: [e.target.value].flat() })}
                slotProps={{ select: { multiple: true } }}
              >
                {options.map((t) => (
                  <MenuItem key={t.id} value={t.id}>
                    {t.label}
                  </MenuItem>
                ))}
              </TextField>
            )}
            <TextField
              fullWidth
              margin="dense"
              label="Suggested answer"
              value={q.suggestion}
              onChange={(e) => change(n, { suggestion: e.target.value })}
            />
            <Act onClick={() => onChange(questions.filter((_, i) => i !== n))}>Take out</Act>
          </Box>
        )
      })}
      <Act onClick={() => onChange([...questions, { name: '', kind: 'text', targets: [], suggestion: '' }])}>
        Add a question
      </Act>
    </Section>
  )
}
