/** The cables with what they lead, and the tray: field wires in no cable, by where they run. */
import Box from '@mui/material/Box'
import { Choice, Heading } from '../../kit/Bench'
import { useLengths } from '../../project/useLengths'
import { type Lengths } from '../../kit/lengths'
import { MONO, SNAG } from '../../theme/theme'
import { ALL, WAYS } from './pages'
import type { Cable, CablesView } from './shapes'

interface Props {
  view: CablesView
  chosen: string
  go: (id: string) => void
  goGroup: (key: string) => void
}

/** A space at which no line is broken. */
const UNBROKEN = '\u00a0'

function note(c: Cable, lengths: Lengths) {
  const ends = [c.source, c.destination].filter(Boolean).join(' to ')
  const spare = c.spare ? `, ${c.spare} spare` : ''
  const facts = [
    c.part?.number ?? 'no part yet',
    `${c.used} used${spare}`,
    c.length ? lengths.saidLong(c.length).replace(' ', UNBROKEN) : '',
    c.drop ? `${c.drop.percent.toFixed(1)}${UNBROKEN}%` : '',
  ]
  return (
    <>
      {c.text && <div>{c.text}</div>}
      {ends && <div>{ends}</div>}
      {facts.filter(Boolean).join(' · ')}
      {c.snags.length > 0 && (
        <span style={{ color: SNAG }}>
          {' '}
          · {c.snags.length} snag{c.snags.length > 1 ? 's' : ''}
        </span>
      )}
    </>
  )
}

export function CableList({ view, chosen, go, goGroup }: Props) {
  const lengths = useLengths()
  return (
    <>
      {view.tray.length > 0 && (
        <Box component="section" aria-label="Tray">
          <Heading>In no cable yet</Heading>
          {view.tray.map((g) => (
            <Choice
              key={g.key}
              chosen={g.key === chosen}
              onClick={() => goGroup(g.key)}
              note={`${g.source} to ${g.destination}`}
            >
              <b>{g.wires.length}</b> {g.use} wire{g.wires.length > 1 ? 's' : ''}
            </Choice>
          ))}
        </Box>
      )}
      <Heading>Cables</Heading>
      {view.cables.map((c) => (
        <Choice key={c.id} chosen={c.id === chosen} onClick={() => go(c.id)} note={note(c, lengths)}>
          <b style={{ fontFamily: MONO }}>{c.tag}</b>
        </Choice>
      ))}
      <Heading>All of them</Heading>
      {view.cables.length > 0 && (
        <Choice chosen={chosen === ALL} onClick={() => go(ALL)} note="lengths, drops; cores filled for many">
          Table of cables
        </Choice>
      )}
      <Choice
        chosen={chosen === WAYS}
        onClick={() => go(WAYS)}
        note="from location to location, allowance, limits"
      >
        Table of ways
      </Choice>
    </>
  )
}
