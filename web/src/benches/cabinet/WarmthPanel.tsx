/** How warm it gets inside, what gives it off, and what of the library would hold it. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { Field } from '../../kit/Field'
import { PanelPick } from '../../kit/Pick'
import { Section } from '../../kit/Section'
import { Why } from '../../kit/Why'
import { usePick } from '../../project/store'
import { MONO, QUIET, SNAG, TEAL } from '../../theme/theme'
import { STANDINGS } from './EnclosurePanel'
import { numberIn, type EnclosureValue } from './shapes'
import type { State } from './useCabinet'

interface Props {
  enclosure: EnclosureValue
  state: State
  canEdit: boolean
}

type Heat = NonNullable<EnclosureValue['heat']>
const LIMITS = [
  ['ambient_c', 'Around, max. °C'],
  ['inside_max_c', 'Inside, max. °C'],
  ['coldest_c', 'Around, min. °C'],
  ['inside_min_c', 'Inside, min. °C'],
] as const

export function WarmthPanel({ enclosure, state, canEdit }: Props) {
  const { send, say } = usePick('send', 'say')
  const { heat, id } = enclosure
  if (!heat) return null
  const save = (field: (typeof LIMITS)[number][0]) => (typed: string) => {
    const value = numberIn(typed)
    if (value === null) say(`“${typed}” is no temperature.`, 'error')
    else void send({ kind: 'change-enclosure', enclosure_id: id, [field]: value })
  }
  return (
    <Section title="Warmth">
      <Box sx={{ fontSize: 20, fontWeight: 600 }}>+{heat.rise_k.toFixed(1)} K</Box>
      <Box sx={{ fontSize: 12.5 }}>
        {heat.loss_w} W inside: {heat.inside_c} °C at {enclosure.ambient_c} °C around
      </Box>
      <Box sx={{ fontSize: 12.5, color: heat.calm ? TEAL : SNAG, fontWeight: 600 }}>{heat.words}</Box>
      <Helps {...{ heat, state, canEdit }} />
      <Why text={heat.why} />
      <Losses heat={heat} />
      <PanelPick
        label="It stands"
        value={enclosure.standing}
        options={STANDINGS}
        disabled={!canEdit}
        onPick={(standing) =>
          void send({
            kind: 'change-enclosure',
            enclosure_id: id,
            standing: standing as (typeof STANDINGS)[number]['id'],
          })
        }
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 0.5 }}>
        {LIMITS.map(([field, label]) => (
          <Field
            key={field}
            label={label}
            value={String(enclosure[field])}
            disabled={!canEdit}
            onSave={save(field)}
          />
        ))}
      </Box>
    </Section>
  )
}

interface HelpsProps {
  heat: Heat
  state: State
  canEdit: boolean
}

/** Parts of the library that would hold the temperature; each is placed with a click. */
function Helps({ heat, state, canEdit }: HelpsProps) {
  return heat.helps.map((h) => (
    <Box key={h.part_id} sx={{ fontSize: 12.5 }}>
      {h.what} <b>{h.number}</b>, {h.why}
      {canEdit && (
        <Button
          onClick={() => {
            state.setLook(h.surface)
            state.setTool({ name: 'plan', part: h.part_id })
          }}
        >
          Place it
        </Button>
      )}
    </Box>
  ))
}

/** What gives off how much; what no part says is named. */
function Losses({ heat }: { heat: Heat }) {
  const unknown = heat.losses.filter((l) => l.watts === null)
  return (
    <details style={{ fontSize: 12, color: QUIET }}>
      <summary style={{ cursor: 'pointer' }}>
        {heat.losses.length - unknown.length} devices give it off
        {unknown.length ? `, ${unknown.length} say nothing` : ''}
      </summary>
      <Box component="table" aria-label="Losses" sx={{ width: '100%', fontSize: 12 }}>
        <tbody>
          {heat.losses.map((l) => (
            <tr key={l.tag}>
              <td style={{ fontFamily: MONO }}>{l.tag}</td>
              <td>{l.part}</td>
              <td style={{ textAlign: 'right' }}>{l.watts === null ? '?' : `${l.watts} W`}</td>
            </tr>
          ))}
        </tbody>
      </Box>
    </details>
  )
}
