/** Search and replace: every place with what it is now and would be then, before anything is changed. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { makeEdit, type Edit, wordsOf } from '../../api/client'
import { LINE, MONO, QUIET } from '../../theme/theme'
import { usePick } from '../../project/store'
import { usePreview } from '../../project/usePreview'
import { useTools } from './store'
import { counted } from '../../kit/counted'

const WHERE = [
  ['texts', 'texts of devices'],
  ['tags', 'fixed tags'],
  ['notes', 'notes'],
  ['continuations', 'continuations'],
  ['sheets', 'titles of sheets'],
  ['parts', 'part numbers'],
] as const

/** In which texts is looked, and how exactly. */
interface Asked {
  where: NonNullable<Edit<'replace-texts'>['where']>
  matchCase: boolean
  whole: boolean
  here: boolean
}

const USUAL: Asked = {
  where: ['texts', 'notes', 'continuations', 'sheets'],
  matchCase: false,
  whole: false,
  here: false,
}

export function ReplacePanel() {
  const { sheetId, send, set, say } = { ...usePick('sheetId', 'send', 'say'), ...useTools('set') }
  const [find, setFind] = useState('')
  const [by, setBy] = useState('')
  const [asked, setAsked] = useState(USUAL)
  const { where } = asked
  const [left, setLeft] = useState<Set<string>>(new Set())
  const edit = makeEdit('replace-texts', {
    find,
    replace: by,
    where,
    match_case: asked.matchCase,
    whole_words: asked.whole,
    sheet_ids: asked.here ? [sheetId] : [],
  })
  const preview = usePreview(edit, find !== '' && where.length > 0)
  const rows = find && !preview.error ? (preview.data?.table ?? []).slice(1) : []
  const chosen = rows.filter((r) => !left.has(r[0]!))
  const replace = () =>
    void send({ ...edit, only: chosen.map((r) => r[0]!) }).then((answer) => {
      if (answer) say(`${counted(chosen.length, 'place')} replaced.`)
    })
  return (
    <Box
      component="form"
      aria-label="Search and replace"
      onSubmit={(e: React.FormEvent) => {
        e.preventDefault()
        replace()
      }}
    >
      <Box sx={{ fontWeight: 600 }}>Search and replace</Box>
      <TextField
        autoFocus
        fullWidth
        margin="dense"
        label="Find"
        value={find}
        onChange={(e) => setFind(e.target.value)}
      />
      <TextField
        fullWidth
        margin="dense"
        label="Replace by"
        value={by}
        onChange={(e) => setBy(e.target.value)}
      />
      <Conditions asked={asked} ask={(part) => setAsked({ ...asked, ...part })} />
      {preview.error && find && <Box sx={{ color: QUIET, fontSize: 12.5 }}>{wordsOf(preview.error)}</Box>}
      {rows.length > 0 && <Places rows={rows} left={left} setLeft={setLeft} />}
      <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
        <Button type="submit" variant="contained" disabled={!chosen.length}>
          Replace {chosen.length || ''}
        </Button>
        <Button onClick={() => set({ panel: '' })}>Close</Button>
      </Box>
    </Box>
  )
}

interface CheckProps {
  label: string
  on: boolean
  put: (on: boolean) => void
}

function Check({ label, on, put }: CheckProps) {
  return (
    <FormControlLabel
      control={
        <Checkbox size="small" checked={on} onChange={(e) => put(e.target.checked)} sx={{ py: 0.2 }} />
      }
      label={label}
      slotProps={{ typography: { sx: { fontSize: 12.5 } } }}
      sx={{ display: 'flex', mr: 0 }}
    />
  )
}

interface PlacesProps {
  rows: string[][]
  left: Set<string>
  setLeft: (left: Set<string>) => void
}

function Places({ rows, left, setLeft }: PlacesProps) {
  return (
    <Box
      component="ul"
      aria-label="Places"
      sx={{ listStyle: 'none', p: 0, m: 0, my: 0.5, maxHeight: 260, overflow: 'auto', bgcolor: '#fff' }}
    >
      {rows.map(([key, place, now, then]) => (
        <Box
          component="li"
          key={key}
          sx={{ display: 'flex', gap: 0.5, fontSize: 12, borderBottom: `1px solid ${LINE}` }}
        >
          <Checkbox
            size="small"
            checked={!left.has(key!)}
            sx={{ p: 0.3, alignSelf: 'flex-start' }}
            slotProps={{ input: { 'aria-label': `${place}: ${now}` } }}
            onChange={(e) => {
              const next = new Set(left)
              if (e.target.checked) next.delete(key!)
              else next.add(key!)
              setLeft(next)
            }}
          />
          <span>
            <span style={{ fontFamily: MONO, color: QUIET }}>{place}</span>
            <br />
            {now} → <b>{then || 'nothing'}</b>
          </span>
        </Box>
      ))}
    </Box>
  )
}

interface ConditionsProps {
  asked: Asked
  ask: (part: Partial<Asked>) => void
}

function Conditions({ asked, ask }: ConditionsProps) {
  return (
    <>
      {WHERE.map(([key, words]) => (
        <Check
          key={key}
          label={words}
          on={asked.where.includes(key)}
          put={(on) => ask({ where: on ? [...asked.where, key] : asked.where.filter((w) => w !== key) })}
        />
      ))}
      <Box sx={{ borderTop: `1px solid ${LINE}`, mt: 0.5 }}>
        <Check
          label="upper and lower case matter"
          on={asked.matchCase}
          put={(matchCase) => ask({ matchCase })}
        />
        <Check label="whole words only" on={asked.whole} put={(whole) => ask({ whole })} />
        <Check label="on this sheet only" on={asked.here} put={(here) => ask({ here })} />
      </Box>
    </>
  )
}
