/** What is chosen on a strip: what it has in common, and what can be done with it. */
import Box from '@mui/material/Box'
import { makeEdit } from '../../api/client'
import { Act, Acts } from '../../kit/Act'
import { Field } from '../../kit/Field'
import { PanelPick } from '../../kit/Pick'
import { Section } from '../../kit/Section'
import { SnagWords } from '../../kit/SnagWords'
import { TagChip } from '../../kit/TagChip'
import { PartChoice } from '../../project/PartChoice'
import { PlaceChoice } from '../../project/PlaceChoice'
import { usePick } from '../../project/store'
import { SNAG } from '../../theme/theme'
import { bridge, step, takeOff, uncabled } from './commands'
import { KINDS, terminalsOf, type Bridge, type Row, type Strip } from './shapes'
import type { Held } from './useHeld'

interface Props {
  strip: Strip
  chosen: Row[]
  canEdit: boolean
  held: Held
}

const MIXED = ''

/** The value that all have in common, "" when they differ. */
function common<K extends keyof Row>(rows: Row[], key: K): Row[K] | '' {
  const first = rows[0]?.[key]
  return first !== undefined && rows.every((r) => r[key] === first) ? first : MIXED
}

const short = (tag: string) => tag.slice(Math.max(0, tag.lastIndexOf('-')))

function titleOf(strip: Strip, chosen: Row[]): string {
  const numbers = chosen.map((r) => r.number)
  const tag = short(strip.tag)
  if (numbers.length === 1) return `${tag}:${numbers[0]}`
  return `${tag}:${numbers[0]}…${numbers.at(-1)}`
}

export function ItemsPanel({ strip, chosen, canEdit, held }: Props) {
  const terminals = terminalsOf(chosen)
  const what = terminals.length === chosen.length ? 'terminal' : 'place'
  return (
    <>
      <TagChip tag={titleOf(strip, chosen)} />
      <Box sx={{ fontSize: 12.5, mb: 0.5 }}>
        {chosen.length} {what}
        {chosen.length > 1 ? 's' : ''} of {strip.tag}
      </Box>
      {terminals.length > 0 && <Facts {...{ strip, terminals, canEdit }} />}
      {terminals.length === 0 && <AccessoryPart {...{ strip, chosen, canEdit }} />}
      <Unknown rows={terminals} canEdit={canEdit} />
      {canEdit && <Doing {...{ strip, chosen, terminals, held }} />}
      <Bridges {...{ strip, chosen, canEdit }} />
      <SnagWords messages={chosen.flatMap((r) => r.snags)} />
    </>
  )
}

interface FactsProps {
  strip: Strip
  terminals: Row[]
  canEdit: boolean
}

const JOINTS = [
  { id: 'as-drawn', name: 'as its symbol' },
  { id: 'carry', name: 'carried through' },
  { id: 'part', name: 'parted here' },
]
const FACINGS = [
  { id: 'by-place', name: 'by place' },
  { id: 'first', name: 'first pin on panel side' },
  { id: 'second', name: 'second pin on panel side' },
]
const USES = [
  { id: 'no', name: 'used' },
  { id: 'yes', name: 'spare, kept free' },
]

function Facts({ strip, terminals, canEdit }: FactsProps) {
  const { send } = usePick('send')
  const units = terminals.map((r) => r.unit)
  const set = (values: Record<string, unknown>) =>
    send(makeEdit('set-terminals', { strip_id: strip.id, units, ...values }))
  const kind = common(terminals, 'terminal_kind')
  const parts = new Set(terminals.map((r) => r.part?.id ?? ''))
  const one = terminals.length === 1 ? terminals[0] : undefined
  const disabled = !canEdit
  return (
    <>
      <PartChoice
        label={terminals.length > 1 ? `Part of these ${terminals.length}` : 'Part'}
        partClass="terminal"
        filters={kind && kind !== 'feed-through' ? `terminal_kind=${kind}` : ''}
        value={parts.size === 1 ? [...parts][0]! : ''}
        now={terminals[0]?.part}
        onChoose={(p) => set({ part_id: p.id })}
      />
      <PanelPick
        {...{ label: 'Kind', value: kind, options: KINDS, disabled }}
        onPick={(id) => set({ terminal_kind: id })}
      />
      {one && (
        <Field
          label="Number"
          value={one.number}
          disabled={disabled}
          mono
          onSave={(number) =>
            void send({ kind: 'number-terminal', strip_id: strip.id, unit: one.unit, number })
          }
        />
      )}
      <Choices {...{ terminals, disabled, set }} />
      <Field
        label="Remark"
        value={common(terminals, 'remark')}
        disabled={disabled}
        onSave={(remark) => set({ remark })}
      />
    </>
  )
}

interface ChoicesProps {
  terminals: Row[]
  disabled: boolean
  set: (values: Record<string, unknown>) => void
}

/** Sides, wire number and use: what is by itself where nobody says otherwise. */
function Choices({ terminals, disabled, set }: ChoicesProps) {
  const spare = common(terminals, 'spare')
  const facing = common(terminals, 'facing') || 'by-place'
  const joint = common(terminals, 'joint') || 'as-drawn'
  return (
    <>
      <PanelPick
        {...{ label: 'Sides', value: facing, options: FACINGS, disabled }}
        onPick={(id) => set({ facing: id === 'by-place' ? '' : id })}
      />
      <PanelPick
        {...{ label: 'Wire number', value: joint, options: JOINTS, disabled }}
        onPick={(id) => set({ joint: id === 'as-drawn' ? '' : id })}
      />
      {terminals.every((r) => r.planned) && (
        <PanelPick
          {...{ label: 'Use', value: spare === '' ? '' : spare ? 'yes' : 'no', options: USES, disabled }}
          onPick={(id) => set({ spare: id === 'yes' })}
        />
      )}
    </>
  )
}

function AccessoryPart({ strip, chosen, canEdit }: Omit<Props, 'held'>) {
  const { send } = usePick('send')
  if (!canEdit) return null
  const keys = chosen.map((r) => r.key)
  return (
    <PartChoice
      label="Part"
      partClass="strip-accessory"
      value={chosen[0]?.part?.id ?? ''}
      now={chosen[0]?.part}
      onChoose={(p) => void send({ kind: 'set-accessory-part', strip_id: strip.id, keys, part_id: p.id })}
    />
  )
}

/** Devices that land here and have no location: the side is known when they have one. */
function Unknown({ rows, canEdit }: { rows: Row[]; canEdit: boolean }) {
  const lost = [...new Map(rows.flatMap((r) => r.unknown).map((t) => [t.device_id, t])).values()]
  return lost.map((t) => (
    <Box key={t.device_id} sx={{ fontSize: 12.5, color: SNAG, mt: 1 }}>
      {t.name} has no location
      <PlaceChoice
        deviceId={t.device_id}
        functionId={t.function_id}
        locationId=""
        canEdit={canEdit}
        label="Say where it is"
      />
    </Box>
  ))
}

interface DoingProps {
  strip: Strip
  chosen: Row[]
  terminals: Row[]
  held: Held
}

function Doing({ strip, chosen, terminals, held }: DoingProps) {
  return (
    <Section title="Do">
      <Acts>
        <Act hint="Insert" onClick={() => held.open('put-in')}>
          Put in…
        </Act>
        <Act hint="B" disabled={terminals.length < 2} onClick={() => bridge(strip, chosen)}>
          Bridge across
        </Act>
        <Act hint="N" disabled={!terminals.length} onClick={() => held.open('number')}>
          Number…
        </Act>
        <Act hint="S" disabled={terminals.length < 2} onClick={() => held.open('sort')}>
          Sort…
        </Act>
        <Act hint="M" disabled={!terminals.length} onClick={() => held.open('move')}>
          Move to…
        </Act>
        <Act hint="C" disabled={!uncabled(terminals).length} onClick={() => held.open('gather')}>
          Gather into a cable…
        </Act>
        <Act hint="Alt+ArrowUp" onClick={() => step(strip, chosen, -1)}>
          Up
        </Act>
        <Act hint="Alt+ArrowDown" onClick={() => step(strip, chosen, 1)}>
          Down
        </Act>
        <Act hint="Delete" onClick={() => takeOff(strip, chosen)}>
          Take off
        </Act>
      </Acts>
    </Section>
  )
}

function Bridges({ strip, chosen, canEdit }: Omit<Props, 'held'>) {
  const here = strip.laid.filter((b) => chosen.some((r) => b.units.includes(r.unit)))
  if (!here.length) return null
  const load = chosen.find((r) => r.load)?.load
  return (
    <Section title="Bridges">
      {load && <Box sx={{ fontSize: 12.5, mb: 0.5 }}>Known load on its potential: {load}</Box>}
      {here.map((b) => (
        <BridgeLine key={b.id} {...{ strip, bridge: b, canEdit }} />
      ))}
    </Section>
  )
}

function BridgeLine({ strip, bridge: b, canEdit }: { strip: Strip; bridge: Bridge; canEdit: boolean }) {
  const { send } = usePick('send')
  const numbers = strip.rows.filter((r) => b.units.includes(r.unit)).map((r) => r.number)
  return (
    <Box sx={{ fontSize: 12.5, mb: 1 }}>
      {numbers.join(', ')} in slot {b.slot}
      {b.reach > b.units.length && `, reaching over ${b.reach}`}
      {canEdit && (
        <>
          <PartChoice
            label="Part of the bridge"
            partClass="strip-accessory"
            filters={`bridge_poles>=${b.reach}`}
            value={b.part?.id ?? ''}
            now={b.part}
            onChoose={(p) => void send({ kind: 'set-bridge', bridge_id: b.id, part_id: p.id })}
          />
          <Act onClick={() => void send(makeEdit('remove-bridge', { bridge_id: b.id }))}>
            Take the bridge away
          </Act>
        </>
      )}
    </Box>
  )
}
