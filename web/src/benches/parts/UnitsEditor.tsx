/** The units of a part with their pins and facts; more are added with the usual markings that are free. */
import Box from '@mui/material/Box'
import type { Dispatch, SetStateAction } from 'react'
import { wordsOf } from '../../api/client'
import { LINE, MONO, QUIET } from '../../theme/theme'
import { Act, Acts } from '../../kit/Act'
import { Section } from '../../kit/Section'
import { useProject } from '../../project/store'
import { draftStep, type ClassSpec, type Draft, type Kinds, type PartRecord } from './kinds'

interface Props {
  record: PartRecord
  of: ClassSpec
  kinds: Kinds
  locked: boolean
  put: (part: Partial<PartRecord>) => void
  set: Dispatch<SetStateAction<Draft>>
}

const cell = {
  font: `12px ${MONO}`,
  border: `1px solid ${LINE}`,
  borderRadius: 3,
  padding: '1px 4px',
  background: '#fff',
  minWidth: 0,
} as const

/** What is done with the units of a part and the facts of each. */
function useUnits(record: Props['record'], put: Props['put'], set: Props['set']) {
  const details = (index: number) => record.details[index] ?? {}
  const more = (kind: string) =>
    draftStep({ act: 'units', record, kind }).then(
      (d) => set((old) => ({ ...old, ...d })),
      (error: unknown) => useProject.getState().say(wordsOf(error), 'error'),
    )
  const pins = (index: number, typed: string) =>
    put({
      units: record.units.map(([kind, old], i) =>
        i === index ? [kind, typed.split(/[\s,-]+/).filter((p, n) => p || n === 0)] : [kind, old],
      ),
    })
  const fact = (index: number, key: string, value: string) =>
    put({
      details: record.units.map((_, i) => (i === index ? { ...details(i), [key]: value } : details(i))),
    })
  const drop = (index: number) =>
    put({
      units: record.units.filter((_, i) => i !== index),
      details: record.units.map((_, i) => details(i)).filter((_, i) => i !== index),
    })
  /** The facts of the row above, for this one and all below of its kind. */
  const fillDown = (index: number) => {
    const [kind] = record.units[index]!
    put({
      details: record.units.map(([k], i) => (i > index && k === kind ? { ...details(index) } : details(i))),
    })
  }
  return { details, more, pins, fact, drop, fillDown }
}

export function UnitsEditor({ record, of, kinds, locked, put, set }: Props) {
  const { details, more, pins, fact, drop, fillDown } = useUnits(record, put, set)
  return (
    <Section title={`Units ${record.units.length}`}>
      <Box sx={{ maxHeight: 250, overflow: 'auto' }}>
        {record.units.map(([kind, names], i) => {
          const spec = kinds.units[kind]
          const facts = of.details[kind] ?? []
          return (
            <Box key={i} sx={{ display: 'flex', gap: 0.5, alignItems: 'center', py: 0.2 }}>
              <span style={{ width: 66, fontSize: 12, color: QUIET }}>{spec?.name ?? kind}</span>
              <PinsCell
                label={`Pins of ${spec?.name ?? kind} ${i + 1}`}
                value={names.join(' ')}
                locked={locked}
                save={(typed) => pins(i, typed)}
              />
              {facts.map((key) => (
                <input
                  key={key}
                  style={{ ...cell, width: 58, flex: 1 }}
                  aria-label={`${kinds.facts[key]?.name ?? key} of ${i + 1}`}
                  title={kinds.facts[key]?.name ?? key}
                  placeholder={(kinds.facts[key]?.name ?? key).toLowerCase()}
                  value={details(i)[key] ?? ''}
                  disabled={locked}
                  onChange={(e) => fact(i, key, e.target.value)}
                />
              ))}
              {!locked && (
                <>
                  {facts.length > 0 && i + 1 < record.units.length && (
                    <Act hint="The same facts for all below" onClick={() => fillDown(i)}>
                      ↓
                    </Act>
                  )}
                  <Act hint="Take it away" onClick={() => drop(i)}>
                    ×
                  </Act>
                </>
              )}
            </Box>
          )
        })}
      </Box>
      {!locked && (
        <Acts>
          {of.units.map((kind) => (
            <Act key={kind} hint="With the usual marking that is free" onClick={() => void more(kind)}>
              + {kinds.units[kind]?.name ?? kind}
            </Act>
          ))}
        </Acts>
      )}
    </Section>
  )
}

interface PinsProps {
  label: string
  value: string
  locked: boolean
  save: (typed: string) => void
}

function PinsCell({ label, value, locked, save }: PinsProps) {
  return (
    <input
      key={value}
      style={{ ...cell, width: 110, flex: 2 }}
      aria-label={label}
      title="Pins, parted by spaces"
      defaultValue={value}
      disabled={locked}
      onBlur={(e) => e.target.value !== value && save(e.target.value)}
      onKeyDown={(e) => e.key === 'Enter' && (e.target as HTMLElement).blur()}
    />
  )
}
