/** One edit of the journal: what it changed, the sheet before and after, taking it back. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { client, got, wordsOf } from '../../api/client'
import { LINE, MONO, QUIET, SNAG } from '../../theme/theme'
import { Drawing } from '../../kit/Drawing'
import { useBench } from '../../project/useBench'
import { useArt } from '../../project/useArt'
import { usePick } from '../../project/store'
import { useSettings } from './FactsSection'
import { when } from './when'
import type { JournalDetail } from './shapes'

interface Props {
  revision: number
  canEdit: boolean
  onClose: () => void
  onOpen: (revision: number) => void
  onObject: (id: string) => void
}

export function JournalEntry({ revision, canEdit, onClose, onOpen, onObject }: Props) {
  const { projectId, say, poll } = usePick('projectId', 'say', 'poll')
  const [sheet, setSheet] = useState('')
  const path = { project_id: projectId, revision }
  const found = useBench<JournalDetail>(
    'journal-entry',
    () => got(client.GET('/api/projects/{project_id}/journal/{revision}', { params: { path } })),
    [revision],
  )
  const data = found.data
  const sheetId = data?.sheets.some((s) => s.id === sheet) ? sheet : (data?.sheets[0]?.id ?? '')
  if (!data) return <Box sx={{ p: 2, color: QUIET }}>{found.error ? wordsOf(found.error) : 'Reading…'}</Box>
  const takeBack = async () => {
    try {
      await got(client.POST('/api/projects/{project_id}/journal/{revision}/take-back', { params: { path } }))
      say(`Taken back: ${data.label}`)
      await poll()
    } catch (error) {
      say(wordsOf(error), 'error')
    }
  }
  return (
    <Box
      component="section"
      aria-label="Edit"
      sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column' }}
    >
      <EntryHead {...{ data, canEdit, onClose, onOpen }} takeBack={() => void takeBack()} />
      <Changes {...{ data, onObject }} />
      {sheetId && <Then data={data} sheetId={sheetId} setSheet={setSheet} />}
    </Box>
  )
}

interface EntryHeadProps {
  data: JournalDetail
  canEdit: boolean
  takeBack: () => void
  onClose: () => void
  onOpen: (revision: number) => void
}

function EntryHead({ data, canEdit, takeBack, onClose, onOpen }: EntryHeadProps) {
  return (
    <Box sx={{ p: 1.5, borderBottom: `1px solid ${LINE}` }}>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
        <Box component="h2" sx={{ fontSize: 15, m: 0, flex: 1 }}>
          {data.label}
        </Box>
        <Button onClick={onClose}>Close</Button>
      </Box>
      <Box sx={{ color: QUIET, fontSize: 12 }}>
        {data.who || 'a command'}, {when(data.at)}, edit {data.revision}
      </Box>
      {canEdit && (
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mt: 0.75 }}>
          <Button variant="outlined" disabled={!data.can} onClick={takeBack}>
            Take this edit back
          </Button>
          {data.why && <Box sx={{ fontSize: 12.5, color: data.later.length ? SNAG : QUIET }}>{data.why}</Box>}
        </Box>
      )}
      {data.later.length > 0 && (
        <Box sx={{ fontSize: 12.5, mt: 0.75 }}>
          Later edits build on it:
          {data.later.map((l) => (
            <Button key={l.revision} onClick={() => onOpen(l.revision)} sx={{ ml: 0.5 }}>
              {l.label}, {l.who}
            </Button>
          ))}
        </Box>
      )}
    </Box>
  )
}

interface ChangesProps {
  data: JournalDetail
  onObject: (id: string) => void
}

function Changes({ data, onObject }: ChangesProps) {
  return (
    <Box sx={{ maxHeight: 190, overflow: 'auto', p: 1.5, fontSize: 12.5, borderBottom: `1px solid ${LINE}` }}>
      {data.changes.slice(0, 60).map((c) => (
        <Box key={`${c.kind}${c.id}`} sx={{ mb: 0.4 }}>
          <span style={{ color: QUIET }}>{c.what} </span>
          <Box
            component="button"
            type="button"
            title="Show all edits of this"
            onClick={() => onObject(c.id)}
            sx={{
              font: `12px ${MONO}`,
              border: 0,
              bgcolor: '#EFE8D8',
              borderRadius: 1,
              px: 0.75,
              cursor: 'pointer',
            }}
          >
            {c.name}
          </Box>
          {c.fields.slice(0, 6).map(([field, before, after]) => (
            <span key={field} style={{ marginLeft: 8 }}>
              {field} <s style={{ color: QUIET }}>{before}</s> {after}
            </span>
          ))}
        </Box>
      ))}
      {(data.more > 0 || data.changes.length > 60) && (
        <Box sx={{ color: QUIET }}>and {data.more + Math.max(0, data.changes.length - 60)} more</Box>
      )}
    </Box>
  )
}

interface ThenProps {
  data: JournalDetail
  sheetId: string
  setSheet: (id: string) => void
}

/** A sheet before and after the edit. */
function Then({ data, sheetId, setSheet }: ThenProps) {
  const { projectId } = usePick('projectId')
  const [side, setSide] = useState<'before' | 'after'>('after')
  const { revision } = data
  const then = useQuery({
    queryKey: ['journal-sheet', projectId, revision, sheetId],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/journal/{revision}/sheets/{sheet_id}', {
          params: { path: { project_id: projectId, revision, sheet_id: sheetId } },
        }),
      ),
    enabled: sheetId !== '',
  })
  const art = useArt(useSettings()['standard'])
  const scene = then.data?.[side]
  return (
    <>
      <Box sx={{ display: 'flex', gap: 1, px: 1.5, py: 0.5, alignItems: 'center' }}>
        <Sides {...{ side, setSide }} />
        {data.sheets.slice(0, 8).map((s) => (
          <Button key={s.id} variant={s.id === sheetId ? 'contained' : 'text'} onClick={() => setSheet(s.id)}>
            {s.number}
          </Button>
        ))}
      </Box>
      <Box sx={{ flex: 1, minHeight: 0, bgcolor: '#EAE4D6' }}>
        {scene ? (
          <Drawing
            scene={scene}
            name={`then-${revision}-${sheetId}`}
            art={art}
            selected={new Set(then.data?.changed)}
          />
        ) : (
          <Box sx={{ p: 3, color: QUIET }}>
            {then.isPending ? 'Working out that day…' : 'The sheet was not there at this moment.'}
          </Box>
        )}
      </Box>
    </>
  )
}

interface SidesProps {
  side: 'before' | 'after'
  setSide: (side: 'before' | 'after') => void
}

function Sides({ side, setSide }: SidesProps) {
  return (
    <ToggleButtonGroup exclusive size="small" value={side} onChange={(_, v) => v && setSide(v as 'before')}>
      <ToggleButton value="before" sx={{ py: 0.2, textTransform: 'none' }}>
        Before
      </ToggleButton>
      <ToggleButton value="after" sx={{ py: 0.2, textTransform: 'none' }}>
        After
      </ToggleButton>
    </ToggleButtonGroup>
  )
}
