/** The Cables bench: cables, what each core serves, spare cores, length and voltage drop. */
import { paging, useCommands } from '../../project/commands'
import type { BenchProps } from '../../project/bench'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { client, got } from '../../api/client'
import { COPPER, MONO, QUIET, SNAG } from '../../theme/theme'
import { Bench, Choice, Empty, Heading } from '../../kit/Bench'
import { Field } from '../../kit/Field'
import { PartChoice } from '../../project/PartChoice'
import { Rows } from '../../kit/Rows'
import { Section } from '../../kit/Section'
import { SheetLink } from '../../project/SheetLink'
import { TagChip } from '../../kit/TagChip'
import { useBench } from '../../project/useBench'
import { Why } from '../../kit/Why'
import { wirePaint } from '../../theme/paints'
import { useProject, usePick } from '../../project/store'

interface Core {
  ordinal: number
  name: string
  kind: string
  chosen: boolean
  from: string
  to: string
  number: string
  type: string
  sheet_id: string
  place: string
  wire_id: string
}

interface Cable {
  id: string
  tag: string
  text: string
  part: { id: string; number: string; text: string } | null
  /** The sheet or page that shows its cores. */
  plan_id: string
  length_m: number
  load_a: number
  voltage_v: number
  power_factor: number
  drop: { volts: number; percent: number; why: string } | null
  drop_missing: string
  capacity: { carried_a: number; load_a: number; enough: boolean; why: string } | null
  cores: Core[]
  sheets: { id: string; number: string }[]
}

export function CablesBench({ canEdit }: BenchProps) {
  const projectId = useProject((s) => s.projectId)
  const [search, setSearch] = useSearchParams()
  const view = useBench<{ cables: Cable[] }>('cables', () =>
    got(client.GET('/api/projects/{project_id}/cables', { params: { path: { project_id: projectId } } })),
  )
  const cables = view.data?.cables ?? []
  const cable = cables.find((c) => c.id === search.get('cable')) ?? cables[0]
  useCommands(
    'Cables',
    paging(
      'cable',
      cables.map((x) => x.id),
      cable?.id ?? '',
      (id) => setSearch({ cable: id }),
    ),
  )
  if (!view.data) return <Empty>Reading the cables…</Empty>
  if (!cable)
    return (
      <Bench name="Cables">
        <Empty>
          No cable is drawn yet. On a sheet press <kbd>Shift+C</kbd> and draw a band across the wires that
          leave the panel; they become its cores. <Link to={`/p/${projectId}/draw`}>To the sheets</Link>
        </Empty>
      </Bench>
    )
  return (
    <Bench
      name="Cables"
      list={
        <>
          <Heading>Cables</Heading>
          {cables.map((c) => (
            <Choice
              key={c.id}
              chosen={c.id === cable.id}
              onClick={() => setSearch({ cable: c.id })}
              note={c.part ? c.part.text : 'no cable part yet'}
            >
              <b style={{ fontFamily: MONO }}>{c.tag}</b> {c.text}
            </Choice>
          ))}
        </>
      }
      inspector={<CablePanel key={cable.id} cable={cable} canEdit={canEdit} />}
    >
      <CoreTable cable={cable} canEdit={canEdit} />
    </Bench>
  )
}

function CoreTable({ cable, canEdit }: { cable: Cable; canEdit: boolean }) {
  const [lifted, setLifted] = useState<number | null>(null)
  const [over, setOver] = useState<number | null>(null)
  const swap = (first: number, second: number) =>
    void useProject.getState().send({ kind: 'swap-cores', device_id: cable.id, first, second })
  const drop = (ordinal: number) => {
    if (lifted !== null && ordinal && lifted !== ordinal) swap(lifted, ordinal)
    setLifted(null)
    setOver(null)
  }
  const spare = cable.cores.filter((c) => c.kind === 'core' && !c.from).length
  return (
    <Box sx={{ flex: 1, overflow: 'auto', p: 1.5 }}>
      <Rows
        label={`Cores of ${cable.tag}`}
        columns={[
          { name: 'No', width: 32 },
          { name: 'Core', width: 84 },
          'From',
          'To',
          { name: 'Wire', width: 64 },
          { name: 'Type', width: 110 },
          { name: 'Sheet', width: 64 },
        ]}
      >
        {cable.cores.map((core, n) => (
          <CoreRow
            key={core.ordinal || `none${n}`}
            {...{ core, canEdit, drop }}
            over={lifted !== null && over === core.ordinal}
            lift={setLifted}
            hover={setOver}
            step={(by) => {
              if (cable.cores.some((c) => c.ordinal === core.ordinal + by))
                swap(core.ordinal, core.ordinal + by)
            }}
          />
        ))}
      </Rows>
      <Box sx={{ mt: 1, fontSize: 12, color: QUIET }}>
        {spare} spare. Drag a row onto another to exchange their cores, or use the arrow keys; dots mark cores
        put there by hand.
      </Box>
    </Box>
  )
}

function CoreSwatch({ name }: { name: string }) {
  if (!/^([A-Z]{2}){1,2}$/.test(name)) return null
  const paint = wirePaint(name)
  return (
    <span
      style={{
        display: 'inline-block',
        width: 18,
        height: 7,
        borderRadius: 3,
        border: '1px solid #14213D55',
        background: paint.second
          ? `linear-gradient(90deg, ${paint.first} 50%, ${paint.second} 50%)`
          : paint.first,
      }}
    />
  )
}

/** What is typed of a cable. */
type Quantity = 'length_m' | 'load_a' | 'voltage_v' | 'power_factor'

const shown = (value: number) => (value ? String(value) : '')

function CablePanel({ cable, canEdit }: { cable: Cable; canEdit: boolean }) {
  const { send, projectId } = usePick('send', 'projectId')
  const set = (field: Quantity, typed: string) => {
    const value = typed.trim() === '' ? 0 : Number(typed.replace(',', '.'))
    if (Number.isNaN(value)) useProject.getState().say(`“${typed}” is no number.`, 'error')
    else void send({ kind: 'set-cable', device_id: cable.id, [field]: value })
  }
  const chosen = cable.cores.some((c) => c.chosen)
  return (
    <>
      <TagChip tag={cable.tag} />
      <Field
        label="Text"
        value={cable.text}
        disabled={!canEdit}
        onSave={(text) => void send({ kind: 'set-text', device_id: cable.id, text })}
      />
      <PartChoice
        label="Cable part"
        partClass="cable"
        value={cable.part?.id ?? ''}
        onChoose={(p) => void send({ kind: 'assign-part', device_id: cable.id, part_id: p.id })}
      />
      <Field
        label="Length, m"
        value={shown(cable.length_m)}
        disabled={!canEdit}
        onSave={(v) => set('length_m', v)}
      />
      <Drop {...{ cable, canEdit, set }} />
      {canEdit && chosen && (
        <Button variant="outlined" onClick={() => void send({ kind: 'default-cores', device_id: cable.id })}>
          All cores back in order
        </Button>
      )}
      <Box sx={{ mt: 2 }}>
        <Link to={`/p/${projectId}/draw/${cable.plan_id}`}>Core plan as a sheet</Link>
      </Box>
    </>
  )
}

interface CoreCellsProps {
  core: Cable['cores'][number]
}

function CoreCells({ core }: CoreCellsProps) {
  return (
    <>
      {core.from ? (
        <>
          <td style={{ fontFamily: MONO }}>{core.from}</td>
          <td style={{ fontFamily: MONO }}>{core.to}</td>
          <td style={{ fontFamily: MONO }}>{core.number}</td>
          <td>
            {core.type}
            {core.chosen && (
              <span title="Put here by hand" style={{ color: COPPER }}>
                {' '}
                ●
              </span>
            )}
          </td>
          <td>
            <SheetLink sheetId={core.sheet_id} select={core.wire_id}>
              {core.place}
            </SheetLink>
          </td>
        </>
      ) : (
        <td colSpan={5} style={{ color: QUIET }}>
          {core.kind === 'shield' ? 'shield' : 'spare'}
        </td>
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
          {cable.capacity.carried_a} A
          <Why text={cable.capacity.why} />
        </Box>
      )}
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

interface CoreRowProps {
  core: Cable['cores'][number]
  canEdit: boolean
  over: boolean
  lift: (ordinal: number | null) => void
  hover: (ordinal: number) => void
  drop: (ordinal: number) => void
  step: (by: number) => void
}

function CoreRow({ core, canEdit, over, lift, hover, drop, step }: CoreRowProps) {
  return (
    <tr
      data-testid={`core-${core.name}`}
      draggable={canEdit && core.from !== '' && core.ordinal > 0}
      onDragStart={() => lift(core.ordinal)}
      onDragOver={(e) => {
        e.preventDefault()
        hover(core.ordinal)
      }}
      onDrop={() => drop(core.ordinal)}
      onDragEnd={() => lift(null)}
      tabIndex={canEdit && core.from && core.ordinal ? 0 : -1}
      onKeyDown={(e) => {
        const by = e.key === 'ArrowUp' ? -1 : e.key === 'ArrowDown' ? 1 : 0
        if (by && canEdit && core.from) {
          e.preventDefault()
          step(by)
        }
      }}
      style={{
        cursor: canEdit && core.from ? 'grab' : 'default',
        outline: over ? `2px solid ${COPPER}` : undefined,
        background: core.ordinal ? undefined : '#FBE9E7',
      }}
    >
      <td style={{ fontFamily: MONO }}>{core.ordinal || ''}</td>
      <td style={{ whiteSpace: 'nowrap' }}>
        <CoreSwatch name={core.name} /> <b style={{ fontFamily: MONO }}>{core.name || 'none left'}</b>
      </td>
      <CoreCells core={core} />
    </tr>
  )
}
