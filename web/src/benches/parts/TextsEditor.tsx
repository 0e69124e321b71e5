/** The description in other languages, the numbers of accessories, alternatives and members of a set. */
import Box from '@mui/material/Box'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { Act } from '../../kit/Act'
import { Section } from '../../kit/Section'
import type { PartRecord } from './kinds'

interface Props {
  record: PartRecord
  locked: boolean
  put: (part: Partial<PartRecord>) => void
}

const numbers = (typed: string) =>
  typed
    .split(',')
    .map((n) => n.trim())
    .filter(Boolean)

export function TextsEditor({ record, locked, put }: Props) {
  const [language, setLanguage] = useState('')
  const list = (label: string, key: 'accessories' | 'alternatives' | 'members') => (
    <TextField
      key={key + record[key].join()}
      fullWidth
      margin="dense"
      label={label}
      defaultValue={record[key].join(', ')}
      disabled={locked}
      placeholder="numbers, parted by commas"
      onBlur={(e) => put({ [key]: numbers(e.target.value) })}
      slotProps={{ htmlInput: { style: { fontSize: 12.5 } }, inputLabel: { shrink: true } }}
    />
  )
  return (
    <>
      <Section title="Goes with it">
        {list('Accessories', 'accessories')}
        {list('Alternatives', 'alternatives')}
        {record.part_class === 'part-set' && list('Members of the set, the leading one first', 'members')}
      </Section>
      <Section title="Description in other languages">
        {Object.entries(record.texts).map(([code, words]) => (
          <TextField
            key={code}
            fullWidth
            margin="dense"
            label={code}
            value={words}
            disabled={locked}
            onChange={(e) => put({ texts: { ...record.texts, [code]: e.target.value } })}
          />
        ))}
        {!locked && (
          <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center' }}>
            <TextField
              label="Language, like de"
              value={language}
              onChange={(e) => setLanguage(e.target.value.toLowerCase().slice(0, 5))}
              sx={{ width: 140 }}
            />
            <Act
              disabled={language.length < 2 || language in record.texts}
              onClick={() => {
                put({ texts: { ...record.texts, [language]: '' } })
                setLanguage('')
              }}
            >
              Add
            </Act>
          </Box>
        )}
      </Section>
    </>
  )
}
