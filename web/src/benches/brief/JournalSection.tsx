/** The journal: every edit by who, what, where and when; one opened shows the sheet before and after. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { useSearchParams } from 'react-router'
import { client, got } from '../../api/client'
import { LINE, MONO, QUIET } from '../../theme/theme'
import { Bench, Empty } from '../../kit/Bench'
import { Pick } from '../../kit/Pick'
import { useSheetTable } from '../../project/useSheetTable'
import { usePick } from '../../project/store'
import { JournalEntry } from './JournalEntry'
import { when } from './when'
import type { JournalLine } from './shapes'

const PAGE = 60

interface Filter {
  who: string
  sheet_id: string
  since: string
  until: string
  words: string
}

/** The edits that fit, newest first, page by page. */
function usePages(filter: Filter, object: string) {
  const { projectId, revision } = usePick('projectId', 'revision')
  return useInfiniteQuery({
    queryKey: ['journal', projectId, revision, filter, object],
    queryFn: ({ pageParam }) =>
      got(
        client.GET('/api/projects/{project_id}/journal', {
          params: {
            path: { project_id: projectId },
            query: {
              who: filter.who,
              sheet_id: filter.sheet_id,
              words: filter.words,
              object_id: object,
              ...(filter.since ? { since: new Date(`${filter.since}T00:00`).toISOString() } : {}),
              ...(filter.until ? { until: new Date(`${filter.until}T24:00`).toISOString() } : {}),
              before: pageParam,
            },
          },
        }),
      ),
    initialPageParam: 0,
    getNextPageParam: (last) => (last.length === PAGE ? last.at(-1)!.revision : undefined),
    placeholderData: (before) => before,
    enabled: projectId !== '',
  })
}

const LINES = { flexShrink: 0, overflow: 'auto', borderRight: `1px solid ${LINE}` } as const

export function JournalSection({ list, canEdit }: { list: ReactNode; canEdit: boolean }) {
  const [search, setSearch] = useSearchParams()
  const [filter, setFilter] = useState<Filter>({ who: '', sheet_id: '', since: '', until: '', words: '' })
  const object = search.get('object') ?? ''
  const open = Number(search.get('edit') ?? 0)
  const pages = usePages(filter, object)
  const lines = pages.data?.pages.flat() ?? []
  const set = (values: Partial<Filter>) => setFilter({ ...filter, ...values })
  const choose = (values: Record<string, string>) => {
    const next = new URLSearchParams(search)
    for (const [key, value] of Object.entries(values)) {
      if (value) next.set(key, value)
      else next.delete(key)
    }
    setSearch(next)
  }
  return (
    <Bench name="Brief" list={list}>
      <Filters filter={filter} set={set} everything={object ? () => choose({ object: '' }) : undefined} />
      <Box sx={{ flex: 1, minHeight: 0, display: 'flex' }}>
        <Box role="list" aria-label="Edits" sx={{ ...LINES, width: open ? 330 : '100%' }}>
          {lines.map((line) => (
            <Line
              key={line.revision}
              {...{ line, wide: !open, onOpen: choose }}
              open={line.revision === open}
            />
          ))}
          {pages.data && lines.length === 0 && (
            <Empty>
              No edit fits. Every edit of the project is kept here: by whom, when, and what it changed.
            </Empty>
          )}
          {pages.hasNextPage && (
            <Button sx={{ m: 1 }} onClick={() => void pages.fetchNextPage()}>
              Earlier edits
            </Button>
          )}
        </Box>
        {open > 0 && (
          <JournalEntry
            revision={open}
            canEdit={canEdit}
            onClose={() => choose({ edit: '' })}
            onOpen={(r) => choose({ edit: String(r) })}
            onObject={(id) => choose({ object: id })}
          />
        )}
      </Box>
    </Bench>
  )
}

interface LineProps {
  line: JournalLine
  open: boolean
  wide: boolean
  onOpen: (values: Record<string, string>) => void
}

function Line({ line, open, wide, onOpen }: LineProps) {
  const chips = line.objects.slice(0, wide ? 5 : 2)
  return (
    <Box role="listitem">
      <Box
        component="button"
        type="button"
        aria-current={open}
        onClick={() => onOpen({ edit: String(line.revision) })}
        sx={{
          display: 'flex',
          flexWrap: wide ? 'nowrap' : 'wrap',
          gap: wide ? 1.5 : 0.5,
          alignItems: 'baseline',
          width: '100%',
          textAlign: 'left',
          font: 'inherit',
          color: 'inherit',
          border: 0,
          borderBottom: `1px solid ${LINE}`,
          bgcolor: open ? '#F3E3D6' : '#fff',
          px: 1.5,
          py: 0.7,
          cursor: 'pointer',
          '&:hover': { bgcolor: open ? '#F3E3D6' : '#FBF6EE' },
        }}
      >
        <span style={{ width: wide ? 130 : 'auto', color: QUIET, fontSize: 12, flexShrink: 0 }}>
          {when(line.at)}
        </span>
        <span style={{ width: wide ? 110 : 'auto', fontSize: 12, flexShrink: 0 }}>
          {line.who || 'a command'}
        </span>
        <span style={{ flex: wide ? 1 : '1 0 100%', textDecoration: line.live ? undefined : 'line-through' }}>
          {line.act === 'undo' ? 'took back: ' : line.act === 'redo' ? 'did again: ' : ''}
          {line.label}
        </span>
        <span style={{ display: 'flex', gap: 4, flexWrap: 'wrap' }}>
          {chips.map((o) => (
            <span
              key={o.id}
              style={{ font: `11.5px ${MONO}`, background: '#EFE8D8', borderRadius: 4, padding: '1px 5px' }}
            >
              {o.name}
            </span>
          ))}
          {line.objects.length > chips.length && <span style={{ color: QUIET, fontSize: 12 }}>…</span>}
        </span>
      </Box>
    </Box>
  )
}

interface FiltersProps {
  filter: Filter
  set: (values: Partial<Filter>) => void
  everything?: () => void
}

function Filters({ filter, set, everything }: FiltersProps) {
  const { projectId } = usePick('projectId')
  const table = useSheetTable()
  const members = useQuery({
    queryKey: ['members', projectId],
    queryFn: () =>
      got(client.GET('/api/projects/{project_id}/members', { params: { path: { project_id: projectId } } })),
    enabled: projectId !== '',
  })
  const people = (members.data ?? []).map((m) => ({ id: m.name, name: m.full_name }))
  const sheets = (table.data?.sheets ?? []).map((s) => ({ id: s.id, name: `${s.number} ${s.title}` }))
  return (
    <Box
      sx={{
        display: 'flex',
        gap: 1,
        px: 1.5,
        pt: 1.25,
        pb: 0.75,
        borderBottom: `1px solid ${LINE}`,
        bgcolor: '#FBF8F1',
        '& .MuiTextField-root': { bgcolor: '#fff' },
      }}
    >
      <TextField
        label="Words"
        value={filter.words}
        onChange={(e) => set({ words: e.target.value })}
        sx={{ flex: 1, minWidth: 90 }}
      />
      <Pick
        label="By"
        value={filter.who}
        options={[{ id: '', name: 'everybody' }, ...people]}
        onPick={(who) => set({ who })}
        sx={{ width: 130 }}
      />
      <Pick
        label="On sheet"
        value={filter.sheet_id}
        options={[{ id: '', name: 'all' }, ...sheets]}
        onPick={(sheet_id) => set({ sheet_id })}
        sx={{ width: 130 }}
      />
      {(['since', 'until'] as const).map((key) => (
        <TextField
          key={key}
          type="date"
          label={key === 'since' ? 'From' : 'To'}
          value={filter[key]}
          onChange={(e) => set({ [key]: e.target.value })}
          sx={{ width: 140 }}
        />
      ))}
      {everything && <Button onClick={everything}>One object ×</Button>}
    </Box>
  )
}
