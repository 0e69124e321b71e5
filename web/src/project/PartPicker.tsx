/** Choosing a part: the likeliest first with the reasons, and how the units drawn would be mapped before it is taken. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import TextField from '@mui/material/TextField'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { client, got } from '../api/client'
import type { Schemas } from '../api/shapes'
import { COPPER, LINE, MONO, QUIET, SNAG, TEAL } from '../theme/theme'
import { useProject } from './store'

interface Props {
  deviceId: string
  /** The part it has, "" for none. */
  partId: string
  close: () => void
}

type Choice = Schemas['PartChoice']

const assigning = (device: string, part: string, own: boolean) =>
  ({ kind: 'assign-part', device_id: device, part_id: part, own_symbols: own }) as const

/** Parts that have all the words, the likeliest first. */
function useChoices(deviceId: string, words: string) {
  const projectId = useProject((s) => s.projectId)
  const revision = useProject((s) => s.revision)
  return useQuery({
    queryKey: ['part-choices', projectId, deviceId, revision, words],
    queryFn: async () =>
      await got(
        client.GET('/api/projects/{project_id}/devices/{device_id}/parts', {
          params: { path: { project_id: projectId, device_id: deviceId }, query: { q: words } },
        }),
      ),
    placeholderData: (before) => before,
  })
}

/** What a device will be drawn as is shown on the sheet before the part is taken. */
function useShown(deviceId: string, partId: string) {
  useEffect(() => {
    useProject.getState().ask(partId ? assigning(deviceId, partId, true) : null)
    return () => useProject.getState().ask(null)
  }, [deviceId, partId])
}

export function PartPicker({ deviceId, partId, close }: Props) {
  const [words, setWords] = useState('')
  const [at, setAt] = useState(0)
  const [entered, setEntered] = useState(false)
  const [own, setOwn] = useState(true)
  const found = useChoices(deviceId, words)
  const choose = (part: Choice | undefined) => {
    if (!part) return
    void useProject.getState().send(assigning(deviceId, part.id, own && part.own_symbols > 0))
    close()
  }
  const answered = found.isSuccess && !found.isPlaceholderData
  const shown = found.data ?? []
  const chosen = shown[Math.min(at, shown.length - 1)]
  useShown(deviceId, chosen && own && chosen.own_symbols > 0 ? chosen.id : '')
  useEffect(() => {
    if (!entered || !answered) return
    setEntered(false)
    choose(chosen)
    // What is chosen depends on nothing else.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [entered, answered, chosen])
  const onKey = (event: React.KeyboardEvent) => {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
    if (step) event.preventDefault()
    if (event.key === 'Escape') close()
    // A fast hand is ahead of the list: Enter waits for the answer to what was typed.
    else if (event.key === 'Enter') setEntered(true)
    else if (step) setAt(Math.max(0, Math.min(shown.length - 1, at + step)))
  }
  return (
    <Box sx={{ mt: 1 }}>
      <TextField
        fullWidth
        autoFocus
        label="Find a part"
        placeholder="number, maker, rating, words"
        value={words}
        onChange={(e) => {
          setWords(e.target.value)
          setAt(0)
        }}
        onKeyDown={onKey}
      />
      <Found {...{ shown, chosen, partId, words, answered, choose }} point={setAt} />
      {chosen && chosen.mapping.length > 0 && <Mapping part={chosen} />}
      {chosen && chosen.own_symbols > 0 && (
        <FormControlLabel
          control={<Checkbox size="small" checked={own} onChange={(e) => setOwn(e.target.checked)} />}
          label={<span style={{ fontSize: 12.5 }}>Draw it with the symbol of {chosen.number}</span>}
        />
      )}
      <Foot {...{ deviceId, partId, close }} />
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

interface FoundProps {
  shown: Choice[]
  chosen: Choice | undefined
  partId: string
  words: string
  answered: boolean
  point: (n: number) => void
  choose: (part: Choice) => void
}

function Found({ shown, chosen, partId, words, answered, point, choose }: FoundProps) {
  return (
    <Box
      role="listbox"
      aria-label="Parts found"
      sx={{ mt: 0.5, border: `1px solid ${LINE}`, bgcolor: '#fff', maxHeight: 360, overflow: 'auto' }}
    >
      {shown.map((part) => (
        <Box
          key={part.id}
          role="option"
          aria-selected={part.id === chosen?.id}
          tabIndex={0}
          onClick={() => choose(part)}
          onMouseEnter={() => point(shown.indexOf(part))}
          onKeyDown={(e) => e.key === 'Enter' && choose(part)}
          sx={{
            px: 1,
            py: 0.5,
            cursor: 'pointer',
            borderBottom: `1px solid ${LINE}`,
            bgcolor: part.id === chosen?.id ? '#F5E9DF' : undefined,
          }}
        >
          <div style={{ fontFamily: MONO, fontSize: 12.5, fontWeight: 600 }}>
            <Marked text={part.number} words={words} />
            {part.id === partId && <span style={{ fontWeight: 400, color: QUIET }}> now</span>}
          </div>
          <div style={{ fontSize: 12 }}>
            <Marked text={part.text} words={words} />
          </div>
          <div style={{ fontSize: 11, color: QUIET }}>
            {part.maker} · {part.units}
          </div>
          {part.reasons.map((r) => (
            <div key={r.words} style={{ fontSize: 11, color: r.good ? TEAL : SNAG }}>
              {r.good ? '✓' : '✗'} {r.words}
            </div>
          ))}
        </Box>
      ))}
      {shown.length === 0 && answered && (
        <Box sx={{ p: 1, color: 'text.secondary' }}>No part has these words and enough units.</Box>
      )}
    </Box>
  )
}

interface MappingProps {
  part: Choice
}

function Mapping({ part }: MappingProps) {
  return (
    <Box aria-label="Units then" role="group" sx={{ fontSize: 11.5, mt: 0.5 }}>
      With {part.number}:
      {part.mapping.map((m, i) => (
        <div key={i} style={{ fontFamily: MONO, color: m.then ? undefined : SNAG }}>
          {m.kind} {m.now && m.now !== m.then ? `${m.now} → ` : ''}
          {m.then || 'none free'}
        </div>
      ))}
    </Box>
  )
}

interface FootProps {
  deviceId: string
  partId: string
  close: () => void
}

function Foot({ deviceId, partId, close }: FootProps) {
  return (
    <>
      <Button onClick={close}>Cancel</Button>
      {partId && (
        <Button
          onClick={() => {
            void useProject.getState().send({ kind: 'assign-part', device_id: deviceId, part_id: '' })
            close()
          }}
        >
          No part
        </Button>
      )}
    </>
  )
}
