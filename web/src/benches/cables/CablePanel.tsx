/** A cable: text, part, length, shield, which end is its source, voltage drop and capacity, what is wrong. */
import Box from '@mui/material/Box'
import { useState } from 'react'
import { Link } from 'react-router'
import { client, got, makeEdit, wordsOf, type AnyEdit } from '../../api/client'
import { Act, Acts } from '../../kit/Act'
import { Field } from '../../kit/Field'
import { PanelPick } from '../../kit/Pick'
import { Section } from '../../kit/Section'
import { SnagWords } from '../../kit/SnagWords'
import { TagChip } from '../../kit/TagChip'
import { Why } from '../../kit/Why'
import { LengthField } from '../../project/LengthField'
import { PartChoice } from '../../project/PartChoice'
import { useProject, usePick } from '../../project/store'
import { QUIET, SNAG } from '../../theme/theme'
import { FillActs } from './FillActs'
import { LAYINGS, type Laying } from './laying'
import { OwnPart } from './OwnPart'
import type { Cable, CablePicture } from './shapes'

interface Props {
  cable: Cable
  canEdit: boolean
  larger: CablePicture['larger']
}

/** What is typed of a cable. */
type Quantity = 'load_a' | 'voltage_v' | 'power_factor' | 'grouped'

const shown = (value: number) => (value ? String(value) : '')

const CALLED = [
  { id: 'colour', name: 'the colours of the part' },
  { id: 'number', name: 'their numbers' },
]

const LAID = [{ id: 'project', name: 'as the project says' }, ...LAYINGS]

type Landing = '' | 'source' | 'destination' | 'both'

const LANDINGS = [
  { id: 'none', name: 'at neither end' },
  { id: 'source', name: 'at the source' },
  { id: 'destination', name: 'at the destination' },
  { id: 'both', name: 'at both ends' },
]

export function CablePanel({ cable, canEdit, larger }: Props) {
  const { send, projectId } = usePick('send', 'projectId')
  const set = (field: Quantity, typed: string) => {
    const value = typed.trim() === '' ? 0 : Number(typed.replace(',', '.'))
    if (Number.isNaN(value)) useProject.getState().say(`“${typed}” is no number.`, 'error')
    else void send(makeEdit('set-cable', { device_id: cable.id, [field]: value }))
  }
  return (
    <>
      <TagChip tag={cable.tag} />
      <Field
        label="Text"
        value={cable.text}
        disabled={!canEdit}
        onSave={(text) => send({ kind: 'set-text', device_id: cable.id, text })}
      />
      <CablePart {...{ cable, canEdit, larger }} />
      {canEdit && <OwnPart cable={cable} />}
      <LengthField
        long
        mayLack
        label="Length"
        placeholder={cable.length_how && cable.length_how !== 'typed' ? cable.length_how : ''}
        value={cable.length_m}
        disabled={!canEdit}
        onSave={(length_m) => send(makeEdit('set-cable', { device_id: cable.id, length_m }))}
      />
      <Ends {...{ cable, canEdit }} />
      <Drop {...{ cable, canEdit, set }} />
      <SnagWords messages={cable.snags} />
      <Box sx={{ mt: 2 }}>
        <Link to={`/p/${projectId}/draw/${cable.plan_id}`}>Core plan as a sheet</Link>
      </Box>
    </>
  )
}

/** Where the shield is landed, which end is the source, and the order of the cores. */
function Ends({ cable, canEdit }: { cable: Cable; canEdit: boolean }) {
  const { send } = usePick('send')
  const set = (values: { shield_landed?: Landing; turned?: boolean; numbered?: boolean }) =>
    send(makeEdit('set-cable', { device_id: cable.id, ...values }))
  const landed = cable.shield_landed || 'none'
  return (
    <>
      {cable.shielded && (
        <PanelPick
          {...{ label: 'Shield landed', value: landed, options: LANDINGS, disabled: !canEdit }}
          onPick={(id) => set({ shield_landed: id === 'none' ? '' : (id as Landing) })}
        />
      )}
      <PanelPick
        {...{ label: 'Cores are called by', value: cable.numbered ? 'number' : 'colour', options: CALLED }}
        disabled={!canEdit}
        onPick={(id) => set({ numbered: id === 'number' })}
      />
      {canEdit && (
        <Acts>
          <Act onClick={() => set({ turned: !cable.turned })}>Turn source and destination</Act>
        </Acts>
      )}
      {canEdit && (
        <FillActs
          ids={[cable.id]}
          back={cable.cores.some((c) => c.chosen) ? 'All cores back in order' : ''}
        />
      )}
    </>
  )
}

/** A part that was thought of, and whose core each wire would lose by it. */
interface Thought {
  id: string
  lost: string[][]
}

/** What giving a cable a part would take from its wires. */
async function lostBy(projectId: string, edit: AnyEdit): Promise<string[][]> {
  const body = { edit, sheet_id: '', since: -1, key: '' }
  const path = { project_id: projectId }
  const answer = await got(client.POST('/api/projects/{project_id}/preview', { params: { path }, body }))
  return (answer.table ?? []).filter((row) => row[1]?.endsWith('loses its core'))
}

/** The part of a cable; one that leaves wires without a core says which before it is taken. */
function CablePart({ cable, canEdit, larger }: Props) {
  const { send, say, projectId } = usePick('send', 'say', 'projectId')
  const [thought, think] = useState<Thought | null>(null)
  const giving = (part_id: string) => makeEdit('assign-part', { device_id: cable.id, part_id })
  const choose = (id: string) => {
    if (id === cable.part?.id) return think(null)
    lostBy(projectId, giving(id)).then(
      (lost) => {
        if (lost.length) think({ id, lost })
        else void send(giving(id)).then(() => think(null))
      },
      (error: unknown) => say(wordsOf(error), 'error'),
    )
  }
  return (
    <>
      <PartChoice
        label="Cable part"
        partClass="cable"
        value={thought?.id ?? cable.part?.id ?? ''}
        now={cable.part}
        onChoose={(p) => choose(p.id)}
      />
      {thought && (
        <Box
          role="alert"
          sx={{ fontSize: 12.5, color: SNAG, border: `1px solid ${SNAG}55`, borderRadius: 1, p: 0.75 }}
        >
          {thought.lost.map(([core, words]) => (
            <div key={words}>{`${words} (${core}).`}</div>
          ))}
          <Acts>
            <Act onClick={() => void send(giving(thought.id)).then(() => think(null))}>
              Take it all the same
            </Act>
            <Act onClick={() => think(null)}>Leave the part</Act>
          </Acts>
        </Box>
      )}
      {canEdit && larger.length > 0 && (
        <Section title="Larger ones">
          {larger.map((p) => (
            <Box key={p.id} sx={{ fontSize: 12.5, color: QUIET, mb: 0.25 }}>
              <Act onClick={() => choose(p.id)}>{p.number}</Act> {p.text}
            </Box>
          ))}
        </Section>
      )}
    </>
  )
}

interface DropProps {
  cable: Cable
  canEdit: boolean
  set: (field: Quantity, typed: string) => void
}

function Drop({ cable, canEdit, set }: DropProps) {
  const { send } = usePick('send')
  return (
    <Section title="Voltage drop">
      {cable.drop ? (
        <>
          <Box sx={{ fontSize: 20, fontWeight: 600 }}>
            {cable.drop.volts.toFixed(2)} V = {cable.drop.percent.toFixed(2)} %
          </Box>
          <Why text={cable.drop.why} />
        </>
      ) : (
        <Box sx={{ color: SNAG, fontSize: 12.5 }}>{cable.drop_missing}</Box>
      )}
      {cable.capacity && (
        <Box sx={{ fontSize: 12.5, my: 0.5, color: cable.capacity.enough ? undefined : SNAG }}>
          {cable.capacity.load_a ? `Loaded with ${cable.capacity.load_a} A; its` : 'Its'} cores carry{' '}
          {cable.capacity.carried_a} A{cable.protection && `; in front of it is ${cable.protection}`}
          <Why text={cable.capacity.why} />
        </Box>
      )}
      <PanelPick
        {...{ label: 'Laid', value: cable.laid || 'project', options: LAID, disabled: !canEdit }}
        onPick={(id) => {
          const laid = id === 'project' ? '' : (id as Laying)
          void send(makeEdit('set-cable', { device_id: cable.id, laid }))
        }}
      />
      <Field
        label="Loaded circuits together"
        value={String(cable.grouped)}
        disabled={!canEdit}
        onSave={(v) => set('grouped', v || '1')}
      />
      <Field
        label="Load, A"
        placeholder="from the part at its end"
        value={shown(cable.load_a)}
        disabled={!canEdit}
        onSave={(v) => set('load_a', v)}
      />
      <Field
        label="Voltage, V"
        placeholder="from the part at its end"
        value={shown(cable.voltage_v)}
        disabled={!canEdit}
        onSave={(v) => set('voltage_v', v)}
      />
      <Field
        label="Power factor"
        placeholder="from the part at its end"
        value={shown(cable.power_factor)}
        disabled={!canEdit}
        onSave={(v) => set('power_factor', v)}
      />
    </Section>
  )
}
