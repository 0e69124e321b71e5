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
  const { set } = useTools('set')
  const symbols = items.filter((i) => i.kind === 'symbol')
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
      <LineUp ids={items.map((i) => i.id)} />
      <Repeat />
      {symbols.length > 0 && <Texts symbols={symbols} />}
    </>
  )
}

function Repeat() {
  const [count, setCount] = useState('4')
  const [dx, setDx] = useState('0')
  const [dy, setDy] = useState('9')
  const repeat = () => void repeatSelected(Number(count) || 1, Number(dx) || 0, Number(dy) || 0)
  return (
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
          <Amount label="Times" value={count} put={setCount} />
          <Amount label="Across" value={dx} put={setDx} />
          <Amount label="Down" value={dy} put={setDy} />
        </Box>
        <Act onClick={repeat}>Repeat</Act>
      </Box>
    </Section>
  )
}

interface TextsProps {
  symbols: Item[]
}

function Texts({ symbols }: TextsProps) {
  const { send } = usePick('send')
  const off = (name: string) => symbols.every((s) => s.facts.texts?.[name] === 'off')
  return (
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
  )
}

interface AmountProps {
  label: string
  value: string
  put: (value: string) => void
}

function Amount({ label, value, put }: AmountProps) {
  return (
    <TextField
      label={label}
      value={value}
      margin="dense"
      onChange={(e) => put(e.target.value)}
      slotProps={{ htmlInput: { inputMode: 'numeric' } }}
    />
  )
}

interface LineUpProps {
  ids: string[]
}

function LineUp({ ids }: LineUpProps) {
  const { send } = usePick('send')
  return (
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
        <Act onClick={() => void send({ kind: 'distribute-selection', ids, along: 'down' })}>Spread down</Act>
      </Acts>
    </Section>
  )
}
