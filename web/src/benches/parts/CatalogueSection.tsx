/** The makers' catalogue: looked through by words, class and maker, up to four parts compared, chosen ones taken in. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { keepPreviousData, useInfiniteQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { client, got, wordsOf } from '../../api/client'
import { LINE, QUIET, SNAG } from '../../theme/theme'
import { Bench } from '../../kit/Bench'
import { useProject } from '../../project/store'
import { CatalogueCard, type Card } from './CatalogueCard'
import { Compared } from './Compared'
import { useShelves } from './kinds'

interface Counted {
  key: string
  name: string
  count: number
}

const MOST_COMPARED = 4

export function CatalogueSection({ list }: { list: ReactNode }) {
  const [words, setWords] = useState('')
  const [cls, setCls] = useState('')
  const [maker, setMaker] = useState('')
  const [chosen, setChosen] = useState<Card[]>([])
  const [comparing, setComparing] = useState(false)
  const [target, setTarget] = useState('')
  const [busy, setBusy] = useState(false)
  const shelves = (useShelves() ?? []).filter((s) => s.may_change)
  const queries = useQueryClient()
  const found = useInfiniteQuery({
    queryKey: ['catalogue', words, cls, maker],
    queryFn: async ({ pageParam }) =>
      await got(
        client.GET('/api/library/catalogue', {
          params: { query: { q: words, part_class_key: cls, maker, start: pageParam } },
        }),
      ),
    initialPageParam: 0,
    getNextPageParam: (last) =>
      last.start + last.parts.length < last.total ? last.start + last.parts.length : undefined,
    placeholderData: keepPreviousData,
    retry: false,
  })
  const pages = found.data?.pages ?? []
  const last = pages.at(-1)
  const cards = pages.flatMap((p) => p.parts)
  const ids = new Set(chosen.map((c) => c.id))
  const shelf = target || (shelves[0]?.id ?? '')
  const toggle = (card: Card) =>
    setChosen(ids.has(card.id) ? chosen.filter((c) => c.id !== card.id) : [...chosen, card])
  const take = () => {
    setBusy(true)
    got(client.POST('/api/library/catalogue/take', { body: { ids: [...ids], shelf } }))
      .then(
        (count) => {
          for (const key of ['catalogue', 'library', 'makers', 'shelves'])
            void queries.invalidateQueries({ queryKey: [key] })
          const name = shelves.find((s) => s.id === shelf)?.name ?? 'the library'
          useProject.getState().say(`${count} ${count === 1 ? 'part is' : 'parts are'} in ${name}.`)
          setChosen([])
          setComparing(false)
        },
        (error: unknown) => useProject.getState().say(wordsOf(error), 'error'),
      )
      .finally(() => setBusy(false))
  }
  const pick = (label: string, value: string, set: (v: string) => void, options: Counted[]) => (
    <TextField select label={label} value={value} onChange={(e) => set(e.target.value)} sx={{ width: 190 }}>
      <MenuItem value="">all</MenuItem>
      {options.map((o) => (
        <MenuItem key={o.key} value={o.key}>
          {o.name}, {o.count}
        </MenuItem>
      ))}
    </TextField>
  )
  return (
    <Bench name="Parts" list={list}>
      <Box sx={{ p: 2, pb: 1, display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <TextField
          autoFocus
          label="Words, part of a number, a rating"
          value={words}
          onChange={(e) => setWords(e.target.value)}
          sx={{ flex: 1, minWidth: 200 }}
        />
        {pick('Class', cls, setCls, last?.classes ?? [])}
        {pick('Maker', maker, setMaker, last?.makers ?? [])}
      </Box>
      {found.error && (
        <Box role="alert" sx={{ px: 2, color: SNAG }}>
          {wordsOf(found.error)} <Button onClick={() => void found.refetch()}>Try again</Button>
        </Box>
      )}
      {comparing && chosen.length > 1 ? (
        <Compared ids={[...ids].slice(0, MOST_COMPARED)} close={() => setComparing(false)} />
      ) : (
        <Box sx={{ flex: 1, minHeight: 0, overflow: 'auto', px: 2 }}>
          <Box
            role="list"
            aria-label="Parts of the catalogue"
            sx={{
              display: 'grid',
              gridTemplateColumns: 'repeat(auto-fill, minmax(215px, 1fr))',
              gap: 1,
              pb: 2,
            }}
          >
            {cards.map((card) => (
              <CatalogueCard
                key={card.id}
                card={card}
                chosen={ids.has(card.id)}
                toggle={() => toggle(card)}
              />
            ))}
          </Box>
          {last?.total === 0 && (
            <Box sx={{ color: QUIET, py: 3 }}>
              No part of the catalogue has all of this. Take a word away.
            </Box>
          )}
          {found.hasNextPage && (
            <Box sx={{ pb: 2 }}>
              <Button disabled={found.isFetching} onClick={() => void found.fetchNextPage()}>
                Show more
              </Button>
            </Box>
          )}
        </Box>
      )}
      <Box
        sx={{
          display: 'flex',
          gap: 1,
          alignItems: 'center',
          px: 2,
          py: 1,
          borderTop: `1px solid ${LINE}`,
          bgcolor: '#FBF8F1',
        }}
      >
        <span style={{ fontSize: 12.5, color: QUIET, flex: 1 }} aria-live="polite">
          {last ? `${cards.length} of ${last.total} parts shown` : ''}
          {chosen.length ? `, ${chosen.length} chosen` : ''}
        </span>
        <Button disabled={!chosen.length} onClick={() => setChosen([])}>
          Choose none
        </Button>
        <Button
          variant="outlined"
          disabled={chosen.length < 2 || chosen.length > MOST_COMPARED || comparing}
          onClick={() => setComparing(true)}
          title="Two to four parts beside each other"
        >
          Compare
        </Button>
        <TextField
          select
          label="Library"
          value={shelf}
          onChange={(e) => setTarget(e.target.value)}
          sx={{ width: 160 }}
        >
          {shelves.map((s) => (
            <MenuItem key={s.id} value={s.id}>
              {s.name}
            </MenuItem>
          ))}
        </TextField>
        <Button variant="contained" disabled={!chosen.length || busy} onClick={take}>
          Take {chosen.length || ''} in
        </Button>
      </Box>
    </Bench>
  )
}
