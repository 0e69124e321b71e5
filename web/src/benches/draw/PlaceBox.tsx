/** Type to place: the list of symbols and units at the caret, its first line previewed on the sheet. */
import Box from '@mui/material/Box'
import InputBase from '@mui/material/InputBase'
import Paper from '@mui/material/Paper'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { client, got, wordsOf, type AnyEdit } from '../../api/client'
import { AGAIN_MS } from '../../api/line'
import type { Offer } from '../../api/shapes'
import { COPPER, MONO, QUIET, SNAG } from '../../theme/theme'
import type { Placed } from '../../scene/Surface'
import { boxPlace, IN_FRONT } from './boxPlace'
import { ArtPicture } from '../../kit/ArtPicture'
import { ItemArt } from './ItemArt'
import { useProject, usePick } from '../../project/store'
import { useDraw, now } from './store'
import { cancel, take } from './tools/moments'

const SHOWN = 40
// The line that is typed and the foot stay where they are.
const COLUMN = { display: 'flex', flexDirection: 'column', overflow: 'hidden' } as const
const LIST_PX = 330 // what is further down is scrolled to
const WIDTH = 350
const RECENT = 'spool-recent-symbols'

const recent = (): string[] => JSON.parse(localStorage.getItem(RECENT) ?? '[]') as string[]
function remember(key: string) {
  localStorage.setItem(RECENT, JSON.stringify([key, ...recent().filter((k) => k !== key)].slice(0, 12)))
}

function edit(offer: Offer): AnyEdit | null {
  const s = now()
  const [x, y] = s.caret
  const at = { sheet_id: s.sheetId, x, y }
  if (offer.definition === 'continuation')
    return offer.text ? { kind: 'place-continuation', ...at, name: offer.text, toward: null } : null
  if (offer.definition === 'note') return offer.text ? { kind: 'place-note', ...at, text: offer.text } : null
  const { definition, device_id, part_id } = offer
  if (definition === 'block')
    return { kind: 'place-block', ...at, device_id, part_id: device_id ? '' : part_id, pins: [], text: '' }
  return {
    kind: 'place-symbol',
    unit: 0,
    ...at,
    definition,
    device_id,
    part_id,
    rotation: null,
    mirror: false,
    poles: null,
    text: '',
    wire_type_id: useDraw.getState().wireType,
  }
}

/** What can be placed that is called so. */
function useOffers(text: string) {
  const { projectId, sheetId, revision } = usePick('projectId', 'sheetId', 'revision')
  return useQuery({
    queryKey: ['offers', projectId, sheetId, revision, text],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/offers', {
          params: { path: { project_id: projectId }, query: { q: text, sheet_id: sheetId } },
        }),
      ),
    placeholderData: (before) => before,
    refetchInterval: ({ state }) => (state.status === 'error' ? AGAIN_MS : false),
  })
}

/** The offers in order: with nothing typed, those used lately first. */
function inOrder(all: Offer[], text: string, used: string[]): Offer[] {
  const rank = (o: Offer) => (o.device_id || o.part_id || !used.includes(o.definition) ? 1 : 0)
  return (text.trim() ? all : [...all].sort((a, b) => rank(a) - rank(b))).slice(0, SHOWN)
}

/** Put an offer down at the caret. */
function place(offer: Offer | undefined) {
  const wanted = offer && edit(offer)
  if (!wanted) return
  remember(offer.definition)
  take({ name: 'idle' })
  now().set({ selection: new Set() })
  void now()
    .send(wanted)
    .then((a) => a && useDraw.getState().set({ subject: a.placed[0] ?? '' }))
}

/** Which way a key goes through the list, 0 for none. */
function stepOf(event: React.KeyboardEvent): number {
  if (event.key === 'ArrowDown' || (event.key === 'Tab' && !event.shiftKey)) return 1
  return event.key === 'ArrowUp' || event.key === 'Tab' ? -1 : 0
}

/** What would be placed is shown on the sheet. */
function useShown(chosen: Offer | undefined) {
  const key = chosen ? `${chosen.definition}|${chosen.device_id}|${chosen.part_id}|${chosen.text}` : ''
  useEffect(() => {
    useProject.getState().ask(chosen ? edit(chosen) : null)
    // The key says all that the preview depends on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key])
}

export function PlaceBox({ at, first }: { at: Placed; first: string }) {
  const { preview } = usePick('preview')
  const [text, setText] = useState(first)
  const [line, setLine] = useState(0)
  const [entered, setEntered] = useState(false)
  const found = useOffers(text)
  const used = recent()
  const offers = inOrder(found.data ?? [], text, used)
  const chosen = offers[Math.min(line, offers.length - 1)]
  useShown(chosen)

  const answered = found.isSuccess && !found.isPlaceholderData
  useEffect(() => {
    if (!entered || !answered) return
    setEntered(false)
    place(chosen)
  }, [entered, answered, chosen])
  const onKey = (event: React.KeyboardEvent) => {
    const step = stepOf(event)
    if (event.key === 'Escape') cancel()
    // A fast hand is ahead of the list: Enter waits for the answer to what was typed.
    else if (event.key === 'Enter') setEntered(true)
    else if (step) setLine((n) => (n + step + offers.length) % Math.max(1, offers.length))
    else return
    event.preventDefault()
    event.stopPropagation()
  }
  return (
    <Paper
      data-overlay
      data-testid="place-box"
      elevation={6}
      sx={{ ...IN_FRONT, ...boxPlace(at, WIDTH, 30), width: WIDTH, ...COLUMN }}
    >
      <InputBase
        autoFocus
        fullWidth
        value={text}
        inputProps={{ 'aria-label': 'Symbol to place' }}
        onChange={(e) => {
          setText(e.target.value)
          setLine(0)
        }}
        onKeyDown={onKey}
        sx={TYPED}
      />
      <Box role="listbox" aria-label="Symbols" sx={{ maxHeight: LIST_PX, minHeight: 0, overflow: 'auto' }}>
        <Offers offers={offers} chosen={chosen} used={used} point={setLine} place={place} />
        <Nothing text={text} error={found.error} none={found.data?.length === 0} />
      </Box>
      <Foot problem={preview?.problem} />
    </Paper>
  )
}

/** Why there is no list: nothing is called so, or the server cannot be asked. */
function Nothing({ text, error, none }: { text: string; error: Error | null; none: boolean }) {
  if (error)
    return (
      <Box role="alert" sx={{ px: 1.5, py: 1, color: SNAG }}>
        What is called so cannot be looked up: {wordsOf(error)} It is asked for again by itself.
      </Box>
    )
  return none ? (
    <Box sx={{ px: 1.5, py: 1, color: QUIET }}>No symbol is called “{text}”. Try coil, no, nc, lamp.</Box>
  ) : null
}

interface OffersProps {
  offers: Offer[]
  chosen: Offer | undefined
  used: string[]
  point: (n: number) => void
  place: (offer: Offer) => void
}

const TYPED = {
  px: 1.5,
  py: 0.75,
  fontFamily: MONO,
  color: COPPER,
  borderBottom: '1px solid',
  borderColor: 'divider',
}

const intoView = (line: Element | null) => line?.scrollIntoView({ block: 'nearest' })

function Offers({ offers, chosen, used, point, place }: OffersProps) {
  return (
    <>
      {offers.map((offer, i) => (
        <Box
          key={`${offer.definition}${offer.device_id}${offer.part_id}${offer.text}`}
          role="option"
          aria-selected={offer === chosen}
          ref={offer === chosen ? intoView : undefined}
          onMouseEnter={() => point(i)}
          onMouseDown={(e) => {
            e.preventDefault()
            place(offer)
          }}
          sx={{
            display: 'flex',
            alignItems: 'center',
            gap: 1,
            px: 1.25,
            py: 0.4,
            cursor: 'pointer',
            bgcolor: offer === chosen ? '#F5E9DF' : undefined,
          }}
        >
          {offer.art ? (
            <ArtPicture art={offer.art} width={38} height={24} />
          ) : (
            <ItemArt definition={offer.definition} />
          )}
          <Box sx={{ flex: 1, minWidth: 0 }}>
            <span style={{ fontWeight: 500 }}>{offer.name}</span>
            {offer.tag && (
              <>
                {' of '}
                <b style={{ fontFamily: MONO }}>{offer.tag}</b>
              </>
            )}
            {offer.text && <div style={{ fontSize: 11, color: QUIET }}>{offer.text}</div>}
          </Box>
          <span style={{ fontSize: 11, color: QUIET, whiteSpace: 'nowrap' }}>
            {used.includes(offer.definition) && !offer.device_id && !offer.part_id ? 'recent' : offer.note}
          </span>
        </Box>
      ))}
    </>
  )
}

interface FootProps {
  problem: string | undefined
}

function Foot({ problem }: FootProps) {
  return (
    <>
      {problem && <Box sx={{ px: 1.5, py: 0.5, color: SNAG, fontSize: 12 }}>{problem}</Box>}
      <Box
        sx={{ px: 1.5, py: 0.5, fontSize: 11, color: QUIET, borderTop: '1px solid', borderColor: 'divider' }}
      >
        Enter places · ↑ ↓ choose · Esc · also: cont 24 V, note …
      </Box>
    </>
  )
}
