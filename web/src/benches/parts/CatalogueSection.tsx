/** The makers' catalogue: looked through by words, class and maker, up to four parts compared, chosen ones taken in. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { keepPreviousData, useInfiniteQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { client, got, wordsOf } from '../../api/client'
import { LINE, QUIET, SNAG } from '../../theme/theme'
import { Bench } from '../../kit/Bench'
import { Pick, type Option } from '../../kit/Pick'
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

/** What of the catalogue is looked for. */
interface Asked {
  words: string
  cls: string
  maker: string
}

const useCatalogue = ({ words, cls, maker }: Asked) =>
  useInfiniteQuery({
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

/** Taking chosen parts into a library. */
function useTaking(done: () => void) {
  const [busy, setBusy] = useState(false)
  const queries = useQueryClient()
  const take = (ids: string[], shelf: Option) => {
    setBusy(true)
    got(client.POST('/api/library/catalogue/take', { body: { ids, shelf: shelf.id } }))
      .then(
        (count) => {
          for (const key of ['catalogue', 'library', 'makers', 'shelves'])
            void queries.invalidateQueries({ queryKey: [key] })
          useProject.getState().say(`${count} ${count === 1 ? 'part is' : 'parts are'} in ${shelf.name}.`)
          done()
        },
        (error: unknown) => useProject.getState().say(wordsOf(error), 'error'),
      )
      .finally(() => setBusy(false))
  }
  return { busy, take }
}

export function CatalogueSection({ list }: { list: ReactNode }) {
  const [asked, setAsked] = useState<Asked>({ words: '', cls: '', maker: '' })
  const [chosen, setChosen] = useState<Card[]>([])
  const [comparing, setComparing] = useState(false)
  const found = useCatalogue(asked)
  const { busy, take } = useTaking(() => {
    setChosen([])
    setComparing(false)
  })
  const pages = found.data?.pages ?? []
  const last = pages.at(-1)
  const cards = pages.flatMap((p) => p.parts)
  const ids = new Set(chosen.map((c) => c.id))
  const toggle = (card: Card) =>
    setChosen(ids.has(card.id) ? chosen.filter((c) => c.id !== card.id) : [...chosen, card])
  const ask = (part: Partial<Asked>) => setAsked({ ...asked, ...part })
  return (
    <Bench name="Parts" list={list}>
      <Asking asked={asked} ask={ask} classes={last?.classes ?? []} makers={last?.makers ?? []} />
      {found.error && (
        <Box role="alert" sx={{ px: 2, color: SNAG }}>
          {wordsOf(found.error)} <Button onClick={() => void found.refetch()}>Try again</Button>
        </Box>
      )}
      {comparing && chosen.length > 1 ? (
        <Compared ids={[...ids].slice(0, MOST_COMPARED)} close={() => setComparing(false)} />
      ) : (
        <Cards
          {...{ cards, ids, toggle }}
          none={last?.total === 0}
          more={found.hasNextPage ? () => void found.fetchNextPage() : undefined}
          busy={found.isFetching}
        />
      )}
      <TakeIn
        words={last ? `${cards.length} of ${last.total} parts shown` : ''}
        {...{ chosen, comparing, busy }}
        none={() => setChosen([])}
        compare={() => setComparing(true)}
        take={(shelf) => take([...ids], shelf)}
      />
    </Bench>
  )
}

interface AskingProps {
  asked: Asked
  ask: (part: Partial<Asked>) => void
  classes: Counted[]
  makers: Counted[]
}

function Asking({ asked, ask, classes, makers }: AskingProps) {
  const options = (list: Counted[]) => [
    { id: '', name: 'all' },
    ...list.map((o) => ({ id: o.key, name: `${o.name}, ${o.count}` })),
  ]
  return (
    <Box sx={{ p: 2, pb: 1, display: 'flex', gap: 1, flexWrap: 'wrap' }}>
      <TextField
        autoFocus
        label="Words, part of a number, a rating"
        value={asked.words}
        onChange={(e) => ask({ words: e.target.value })}
        sx={{ flex: 1, minWidth: 200 }}
      />
      <Pick
        label="Class"
        value={asked.cls}
        options={options(classes)}
        onPick={(cls) => ask({ cls })}
        sx={{ width: 190 }}
      />
      <Pick
        label="Maker"
        value={asked.maker}
        options={options(makers)}
        onPick={(maker) => ask({ maker })}
        sx={{ width: 190 }}
      />
    </Box>
  )
}

interface CardsProps {
  cards: Card[]
  ids: Set<string>
  toggle: (card: Card) => void
  none: boolean
  more?: () => void
  busy: boolean
}

const CARDS = {
  display: 'grid',
  gridTemplateColumns: 'repeat(auto-fill, minmax(215px, 1fr))',
  gap: 1,
  pb: 2,
} as const

function Cards({ cards, ids, toggle, none, more, busy }: CardsProps) {
  return (
    <Box sx={{ flex: 1, minHeight: 0, overflow: 'auto', px: 2 }}>
      <Box role="list" aria-label="Parts of the catalogue" sx={CARDS}>
        {cards.map((card) => (
          <CatalogueCard key={card.id} card={card} chosen={ids.has(card.id)} toggle={() => toggle(card)} />
        ))}
      </Box>
      {none && (
        <Box sx={{ color: QUIET, py: 3 }}>No part of the catalogue has all of this. Take a word away.</Box>
      )}
      {more && (
        <Box sx={{ pb: 2 }}>
          <Button disabled={busy} onClick={more}>
            Show more
          </Button>
        </Box>
      )}
    </Box>
  )
}

interface TakeInProps {
  words: string
  chosen: Card[]
  comparing: boolean
  busy: boolean
  none: () => void
  compare: () => void
  take: (shelf: Option) => void
}

const FOOT = {
  display: 'flex',
  gap: 1,
  alignItems: 'center',
  px: 2,
  py: 1,
  borderTop: `1px solid ${LINE}`,
  bgcolor: '#FBF8F1',
} as const

/** What is chosen, and what is done with it. */
function TakeIn({ words, chosen, comparing, busy, none, compare, take }: TakeInProps) {
  const [target, setTarget] = useState('')
  const shelves = (useShelves() ?? []).filter((s) => s.may_change)
  const shelf = shelves.find((s) => s.id === target) ?? shelves[0]
  const few = chosen.length < 2 || chosen.length > MOST_COMPARED
  return (
    <Box sx={FOOT}>
      <span style={{ fontSize: 12.5, color: QUIET, flex: 1 }} aria-live="polite">
        {words}
        {chosen.length ? `, ${chosen.length} chosen` : ''}
      </span>
      <Button disabled={!chosen.length} onClick={none}>
        Choose none
      </Button>
      <Button
        variant="outlined"
        disabled={few || comparing}
        onClick={compare}
        title="Two to four parts beside each other"
      >
        Compare
      </Button>
      <Pick
        label="Library"
        value={shelf?.id ?? ''}
        options={shelves}
        onPick={setTarget}
        sx={{ width: 160 }}
      />
      <Button
        variant="contained"
        disabled={!chosen.length || busy || !shelf}
        onClick={() => shelf && take(shelf)}
      >
        Take {chosen.length || ''} in
      </Button>
    </Box>
  )
}
