/** Choosing a part: type part of a number or any words; what matched is shown, and whether it has enough units. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { client, got, type PartOut } from '../../api/client'
import type { DeviceCard } from '../../api/shapes'
import { COPPER, LINE, MONO, QUIET } from '../../app/theme'
import { useSheet } from './store'

interface Props {
  card: DeviceCard
  close: () => void
}

export function PartPicker({ card, close }: Props) {
  const [words, setWords] = useState('')
  const [entered, setEntered] = useState(false)
  const needs = Object.entries(card.needs)
    .map(([kind, count]) => `${kind}:${count}`)
    .join(',')
  // A bare coil may be a contactor's, a relay's or a timer's, so that its class is not asked for.
  const open = card.part === null && card.class === 'relay'
  const found = useQuery({
    queryKey: ['parts', words, card.class, needs, open],
    queryFn: () =>
      got(
        client.GET('/api/library/parts', {
          params: { query: { q: words, part_class_key: open ? '' : card.class, needs, limit: 12 } },
        }),
      ),
    placeholderData: (before) => before,
  })
  const choose = (part: PartOut | undefined) => {
    if (!part) return
    void useSheet.getState().send({ kind: 'assign-part', device_id: card.id, part_id: part.id })
    close()
  }
  const answered = found.isSuccess && !found.isPlaceholderData
  const first = found.data?.[0]
  useEffect(() => {
    if (!entered || !answered) return
    setEntered(false)
    choose(first)
    // What is chosen depends on nothing else.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [entered, answered, first])
  return (
    <Box sx={{ mt: 1 }}>
      <TextField
        fullWidth
        autoFocus
        label="Find a part"
        placeholder="number, maker, rating, words"
        value={words}
        onChange={(e) => setWords(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Escape') close()
          // A fast hand is ahead of the list: Enter waits for the answer to what was typed.
          if (e.key === 'Enter') setEntered(true)
        }}
      />
      <Box
        role="listbox"
        aria-label="Parts found"
        sx={{ mt: 0.5, border: `1px solid ${LINE}`, bgcolor: '#fff' }}
      >
        {found.data?.map((part) => (
          <Box
            key={part.id}
            role="option"
            aria-selected={part.id === card.part?.id}
            tabIndex={0}
            onClick={() => choose(part)}
            onKeyDown={(e) => e.key === 'Enter' && choose(part)}
            sx={{
              px: 1,
              py: 0.5,
              cursor: 'pointer',
              borderBottom: `1px solid ${LINE}`,
              '&:hover': { bgcolor: '#F5E9DF' },
            }}
          >
            <div style={{ fontFamily: MONO, fontSize: 12.5, fontWeight: 600 }}>
              <Marked text={part.number} words={words} />
            </div>
            <div style={{ fontSize: 12 }}>
              <Marked text={part.text} words={words} />
            </div>
            <div style={{ fontSize: 11, color: QUIET }}>
              {part.maker} ·{' '}
              {Object.entries(part.units)
                .map(([kind, n]) => `${n} ${kind.length === 2 ? kind.toUpperCase() : kind}`)
                .join(', ')}
            </div>
          </Box>
        ))}
        {found.data?.length === 0 && (
          <Box sx={{ p: 1, color: 'text.secondary' }}>No part has these words and enough units.</Box>
        )}
      </Box>
      <Button onClick={close}>Cancel</Button>
      {card.part && (
        <Button
          onClick={() => {
            void useSheet.getState().send({ kind: 'assign-part', device_id: card.id, part_id: '' })
            close()
          }}
        >
          No part
        </Button>
      )}
    </Box>
  )
}

/** A text with what was typed set off. */
function Marked({ text, words }: { text: string; words: string }) {
  const tokens = words.trim().split(/\s+/).filter(Boolean)
  const hit = tokens.map((t) => ({ at: text.toLowerCase().indexOf(t.toLowerCase()), length: t.length }))
  const first = hit.filter((h) => h.at >= 0).sort((a, b) => a.at - b.at)[0]
  if (!first) return <>{text}</>
  return (
    <>
      {text.slice(0, first.at)}
      <mark style={{ background: '#F5DCC7', color: COPPER }}>
        {text.slice(first.at, first.at + first.length)}
      </mark>
      {text.slice(first.at + first.length)}
    </>
  )
}
