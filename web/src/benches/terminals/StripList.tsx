/** The strips by their places with what they count, and the tray: what stands on no strip, what is not drawn yet. */
import Box from '@mui/material/Box'
import { Link } from 'react-router'
import { Act, Acts } from '../../kit/Act'
import { Choice, Heading } from '../../kit/Bench'
import { SheetLink } from '../../project/SheetLink'
import { useProject } from '../../project/store'
import { useLengths } from '../../project/useLengths'
import { MONO, SNAG } from '../../theme/theme'
import type { Form } from './useHeld'
import type { StripLine, TerminalsView } from './shapes'

interface Props {
  view: TerminalsView
  chosen: string
  canEdit: boolean
  go: (id: string) => void
  open: (form: Form) => void
}

/** The strips by place, those without one last. */
function byPlace(strips: StripLine[]): [string, StripLine[]][] {
  const found = new Map<string, StripLine[]>()
  for (const strip of strips) found.set(strip.place, [...(found.get(strip.place) ?? []), strip])
  return [...found].sort(([a], [b]) => Number(a === '') - Number(b === ''))
}

export function StripList({ view, chosen, canEdit, go, open }: Props) {
  return (
    <>
      {canEdit && (
        <Acts>
          <Act onClick={() => open('make')} hint="Make a strip, with terminals that are drawn later">
            New strip…
          </Act>
        </Acts>
      )}
      {byPlace(view.strips).map(([place, strips]) => (
        <Box key={place}>
          <Heading>{place ? `Strips of ${place}` : 'Strips without a location'}</Heading>
          {strips.map((s) => (
            <Line key={s.id} strip={s} chosen={s.id === chosen} go={go} />
          ))}
        </Box>
      ))}
      <Tray view={view} go={go} />
    </>
  )
}

function Line({ strip: s, chosen, go }: { strip: StripLine; chosen: boolean; go: (id: string) => void }) {
  const counts = [
    `${s.count}`,
    s.free ? `${s.free} free` : '',
    s.spare ? `${s.spare} spare` : '',
    s.waiting ? `${s.waiting} not drawn` : '',
  ]
  const { bare, said } = useLengths()
  const room = s.room_mm ? `${bare(s.width_mm)} of ${said(s.room_mm)}` : said(s.width_mm)
  const tight = s.room_mm > 0 && s.width_mm > s.room_mm
  return (
    <Choice
      chosen={chosen}
      onClick={() => go(s.id)}
      note={
        <>
          {s.text && <div>{s.text}</div>}
          {counts.filter(Boolean).join(' · ')} ·{' '}
          <span style={{ color: tight ? SNAG : undefined }}>{room}</span>
          {s.snags > 0 && (
            <span style={{ color: SNAG }}>
              {' '}
              · {s.snags} snag{s.snags > 1 ? 's' : ''}
            </span>
          )}
        </>
      }
    >
      <b style={{ fontFamily: MONO }}>{s.tag}</b>
    </Choice>
  )
}

function Tray({ view, go }: { view: TerminalsView; go: (id: string) => void }) {
  const projectId = useProject((s) => s.projectId)
  const waiting = view.strips.filter((s) => s.waiting)
  if (!waiting.length && !view.loose.length) return null
  return (
    <Box component="section" aria-label="Tray">
      <Heading>Tray</Heading>
      {waiting.map((s) => (
        <Choice key={s.id} chosen={false} onClick={() => go(s.id)} note="planned, on no sheet yet">
          <b style={{ fontFamily: MONO }}>{s.tag}</b> {s.waiting} to draw
        </Choice>
      ))}
      {waiting.length > 0 && (
        <Box sx={{ px: 1, py: 0.5, fontSize: 12.5 }}>
          <Link to={`/p/${projectId}/draw?panel=planned`}>Draw them on a sheet</Link>
        </Box>
      )}
      {view.loose.map((t) => (
        <Box key={t.symbol_id} sx={{ px: 1, py: 0.3, fontSize: 12.5, color: SNAG }}>
          {t.name} on no strip{' '}
          <SheetLink sheetId={t.sheet_id} select={t.symbol_id}>
            {t.place}
          </SheetLink>
        </Box>
      ))}
    </Box>
  )
}
