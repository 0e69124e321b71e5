/** Several things selected: what can be done with all of them. */
import Box from '@mui/material/Box'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import type { Item } from '../../scene/item'
import { Act, Acts } from '../../kit/Act'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'
import { useTools } from './store'
import { lockSelected, repeatSelected } from './acts'
import { copySelected } from './clipboard'
import { startCopy } from './tools'

const ALIGN = [
  ['left', 'Left'],
  ['right', 'Right'],
  ['top', 'Top'],
  ['bottom', 'Bottom'],
  ['column', 'Column'],
  ['row', 'Row'],
] as const
const TEXTS = [
  ['text', 'texts'],
  ['pin', 'pins'],
  ['reference', 'references'],
  ['tag', 'tags'],
] as const

export function SelectionPanel({ items }: { items: Item[] }) {
  const { send, set } = { ...usePick('send'), ...useTools('set') }
  const [count, setCount] = useState('4')
  const [dx, setDx] = useState('0')
  const [dy, setDy] = useState('9')
  const ids = items.map((i) => i.id)
  const symbols = items.filter((i) => i.kind === 'symbol')
  const off = (name: string) => symbols.every((s) => s.facts.texts?.[name] === 'off')
  const number = (label: string, value: string, put: (v: string) => void) => (
    <TextField
      label={label}
      value={value}
      margin="dense"
      onChange={(e) => put(e.target.value)}
      slotProps={{ htmlInput: { inputMode: 'numeric' } }}
    />
  )
  const repeat = () => void repeatSelected(Number(count) || 1, Number(dx) || 0, Number(dy) || 0)
  return (
    <>
      <Box sx={{ fontWeight: 600 }}>{items.length} things selected</Box>
      <Acts>
        <Act onClick={startCopy} hint="D">
          Duplicate
        </Act>
        <Act onClick={() => void copySelected(false)} hint="Ctrl+C">
          Copy
        </Act>
        <Act onClick={() => void copySelected(true)} hint="Ctrl+X">
          Cut
        </Act>
        <Act onClick={lockSelected} hint="L">
          {items.every((i) => i.facts.locked !== false) ? 'Unlock' : 'Lock'}
        </Act>
        <Act onClick={() => set({ panel: 'keep' })} hint="Shift+K">
          Keep as stamp
        </Act>
      </Acts>
      <Section title="Line up">
        <Acts>
          {ALIGN.map(([how, words]) => (
            <Act key={how} onClick={() => void send({ kind: 'align-selection', ids, how })}>
              {words}
            </Act>
          ))}
        </Acts>
        <Acts>
          <Act onClick={() => void send({ kind: 'distribute-selection', ids, along: 'across' })}>
            Spread across
          </Act>
          <Act onClick={() => void send({ kind: 'distribute-selection', ids, along: 'down' })}>
            Spread down
          </Act>
        </Acts>
      </Section>
      <Section title="Repeat">
        <Box
          component="form"
          aria-label="Repeat"
          onSubmit={(e: React.FormEvent) => {
            e.preventDefault()
            repeat()
          }}
        >
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 0.75 }}>
            {number('Times', count, setCount)}
            {number('Across', dx, setDx)}
            {number('Down', dy, setDy)}
          </Box>
          <Act onClick={repeat}>Repeat</Act>
        </Box>
      </Section>
      {symbols.length > 0 && (
        <Section title="Texts of the symbols">
          <Acts>
            {TEXTS.map(([name, words]) => (
              <Act
                key={name}
                onClick={() =>
                  void send({
                    kind: 'show-texts',
                    ids: symbols.map((s) => s.id),
                    texts: [name],
                    shown: off(name),
                  })
                }
              >
                {off(name) ? `Show ${words}` : `Hide ${words}`}
              </Act>
            ))}
          </Acts>
        </Section>
      )}
    </>
  )
}
