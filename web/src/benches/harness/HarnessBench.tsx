/** The Harness bench: the tree on its form board at true scale, wires with lengths, connectors with contacts. */
import { paging, useCommands } from '../../project/commands'
import type { BenchProps } from '../../project/bench'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import Tab from '@mui/material/Tab'
import Tabs from '@mui/material/Tabs'
import TextField from '@mui/material/TextField'
import { useRef, useState } from 'react'
import { useSearchParams } from 'react-router'
import { client, got } from '../../api/client'
import { COPPER, LINE, MONO, QUIET, SNAG } from '../../theme/theme'
import { Bench, Choice, Empty, Heading } from '../../kit/Bench'
import { Drawing, itemUnder } from '../../kit/Drawing'
import { Rows } from '../../kit/Rows'
import { SheetLink } from '../../project/SheetLink'
import { useBench } from '../../project/useBench'
import type { At } from '../../scene/Surface'
import { useProject } from '../../project/store'
import { HarnessPanel } from './HarnessPanel'
import type { HarnessValue, HarnessView } from './shapes'

const KINDS = new Set(['segment', 'node', 'table'])

function useHarness(wanted: string) {
  const projectId = useProject((s) => s.projectId)
  return useBench<HarnessView>(
    'harness',
    () =>
      got(
        client.GET('/api/projects/{project_id}/harness', {
          params: { path: { project_id: projectId }, query: { harness_id: wanted } },
        }),
      ),
    [wanted],
  )
}

export function HarnessBench({ canEdit }: BenchProps) {
  const [search, setSearch] = useSearchParams()
  const [selected, setSelected] = useState('')
  const view = useHarness(search.get('harness') ?? '')
  const codes = (view.data?.harnesses ?? []).map((h) => h.id)
  useCommands(
    'Harness',
    paging('harness', codes, view.data?.harness?.id ?? '', (id) => setSearch({ harness: id })),
  )
  if (!view.data) return <Empty>Reading the harnesses…</Empty>
  const { harness, harnesses, free } = view.data
  return (
    <Bench
      name="Harness"
      list={
        <>
          <Heading>Harnesses</Heading>
          {harnesses.map((h) => (
            <Choice
              key={h.id}
              chosen={h.id === harness?.id}
              note={h.text}
              onClick={() => setSearch({ harness: h.id })}
            >
              <b style={{ fontFamily: MONO }}>{h.code}</b>
            </Choice>
          ))}
          {canEdit && <NewHarness />}
        </>
      }
      inspector={
        harness && (
          <HarnessPanel
            key={`${harness.id}${selected}`}
            harness={harness}
            free={free}
            selected={selected}
            canEdit={canEdit}
            onSelect={setSelected}
          />
        )
      }
    >
      {!harness && (
        <Empty>
          No harness yet. Draw connectors and the wires between their cavities on a sheet (type “connector”,
          then “cavity” at the caret), add a harness on the left, and add its connectors.
        </Empty>
      )}
      {harness && <Shown harness={harness} selected={selected} canEdit={canEdit} onSelect={setSelected} />}
    </Bench>
  )
}

function NewHarness() {
  const [code, setCode] = useState('')
  const add = async () => {
    if (await useProject.getState().send({ kind: 'add-harness', code, text: '' })) setCode('')
  }
  return (
    <Stack direction="row" spacing={0.5} sx={{ mt: 1, px: 0.5 }}>
      <TextField label="New harness" value={code} onChange={(e) => setCode(e.target.value)} />
      <Button disabled={!code.trim()} onClick={() => void add()}>
        Add
      </Button>
    </Stack>
  )
}

interface BoardProps {
  harness: HarnessValue
  selected: string
  canEdit: boolean
  onSelect: (id: string) => void
}

/** The form board. An end is dragged along its segment to give that another length. */
/** An end of the harness that is dragged out or in: where its segment begins, which way it runs, how long it was. */
interface Drag {
  segment: string
  from: [number, number]
  unit: [number, number]
  length: number
}

function Board({ harness, selected, canEdit, onSelect }: BoardProps) {
  const drag = useRef<Drag | null>(null)
  const [length, setLength] = useState<number | null>(null)
  const down = (at: At) => {
    const id = itemUnder(at, KINDS)
    onSelect(id)
    const beside = harness.segments.filter((s) => s.a === id || s.b === id)
    const item = (harness.scene?.items ?? []).find((i) => i.id === beside[0]?.id)
    if (!canEdit || beside.length !== 1 || !item?.facts.from || !item.facts.to) return
    const segment = beside[0]!
    const [near, far] = segment.a === id ? [item.facts.from, item.facts.to] : [item.facts.to, item.facts.from]
    const run = Math.hypot(near[0] - far[0], near[1] - far[1]) || 1
    const unit: [number, number] = [(near[0] - far[0]) / run, (near[1] - far[1]) / run]
    drag.current = { segment: segment.id, from: far, unit, length: segment.length_mm }
  }
  const move = (at: At) => {
    const d = drag.current
    if (!d) return
    const along = (at.x - d.from[0]) * d.unit[0] + (at.y - d.from[1]) * d.unit[1]
    setLength(Math.max(10, Math.round(along / 10) * 10))
  }
  const up = () => {
    const d = drag.current
    drag.current = null
    if (d && length !== null && Math.abs(length - d.length) >= 10)
      void useProject.getState().send({ kind: 'set-segment', segment_id: d.segment, length_mm: length })
    setLength(null)
  }
  const d = drag.current
  return (
    <Drawing
      scene={harness.scene!}
      name={harness.id}
      selected={new Set([selected])}
      onDown={down}
      onMove={move}
      onUp={up}
    >
      {d && length !== null && <Stretch drag={d} length={length} />}
    </Drawing>
  )
}

function Tables({ harness }: { harness: HarnessValue }) {
  const [tab, setTab] = useState<'wires' | 'segments' | 'connectors'>('wires')
  return (
    <Box
      component="section"
      aria-label="Ledger"
      sx={{
        height: 230,
        borderTop: `1px solid ${LINE}`,
        bgcolor: '#fff',
        display: 'flex',
        flexDirection: 'column',
      }}
    >
      <Tabs
        value={tab}
        onChange={(_, v: typeof tab) => setTab(v)}
        sx={{ minHeight: 34, '& .MuiTab-root': { minHeight: 34, py: 0 } }}
      >
        <Tab value="wires" label={`Wires ${harness.wires.length}`} />
        <Tab value="segments" label={`Segments ${harness.segments.length}`} />
        <Tab value="connectors" label={`Connectors ${harness.connectors.length}`} />
      </Tabs>
      <Box sx={{ flex: 1, overflow: 'auto' }}>
        {tab === 'wires' && <WireRows harness={harness} />}
        {tab === 'segments' && (
          <Rows label="Segments" columns={['From', 'To', 'Length', 'Wires', 'Bundle']}>
            {harness.segments.map((s) => (
              <tr key={s.id}>
                <td>{harness.nodes.find((n) => n.id === s.a)?.name}</td>
                <td>{harness.nodes.find((n) => n.id === s.b)?.name}</td>
                <td>{s.length_mm} mm</td>
                <td>{s.wires}</td>
                <td title="1.2 × the root of the sum of the squares of the wires' outer diameters">
                  ⌀ {s.diameter_mm} mm
                </td>
              </tr>
            ))}
          </Rows>
        )}
        {tab === 'connectors' && <ConnectorRows harness={harness} />}
      </Box>
    </Box>
  )
}

interface WireRowsProps {
  harness: HarnessValue
}

function WireRows({ harness }: WireRowsProps) {
  return (
    <Rows label="Wires" columns={['Wire', 'From', 'To', 'Type', { name: 'Length', align: 'right' }, 'Sheet']}>
      {harness.wires.map((w) => (
        <tr key={w.key}>
          <td style={{ fontFamily: MONO }}>{w.number}</td>
          <td style={{ fontFamily: MONO }}>{w.from}</td>
          <td style={{ fontFamily: MONO }}>{w.to}</td>
          <td>
            {w.type} {w.colour}
          </td>
          <td style={{ textAlign: 'right' }} title={w.why || w.missing}>
            {w.length_mm === null ? <span style={{ color: SNAG }}>{w.missing}</span> : `${w.length_mm} mm`}
          </td>
          <td>
            <SheetLink sheetId={w.sheet_id} select={w.wire_id}>
              {w.place}
            </SheetLink>
          </td>
        </tr>
      ))}
    </Rows>
  )
}

interface ConnectorRowsProps {
  harness: HarnessValue
}

function ConnectorRows({ harness }: ConnectorRowsProps) {
  return (
    <Rows label="Connectors" columns={['Connector', 'Cavity', 'Wire', 'To', 'Contact', 'Strip']}>
      {harness.connectors.flatMap((c) =>
        c.cavities.map((v) => (
          <tr key={c.id + v.cavity}>
            <td style={{ fontFamily: MONO }}>{c.tag}</td>
            <td style={{ fontFamily: MONO }}>{v.cavity}</td>
            <td style={{ fontFamily: MONO }}>{v.wires.join(', ')}</td>
            <td style={{ fontFamily: MONO, color: v.to.length ? undefined : QUIET }}>
              {v.to.join(', ') || 'empty'}
            </td>
            <td style={{ fontFamily: MONO }}>{v.to.length ? v.contact : ''}</td>
            <td>{v.to.length ? `${v.strip_mm} mm` : ''}</td>
          </tr>
        )),
      )}
    </Rows>
  )
}

interface ShownProps {
  harness: HarnessValue
  selected: string
  canEdit: boolean
  onSelect: (id: string) => void
}

function Shown({ harness, selected, canEdit, onSelect }: ShownProps) {
  return (
    <>
      <Box sx={{ flex: 1, minHeight: 0, bgcolor: '#EAE4D6' }}>
        {harness.scene ? (
          <Board harness={harness} selected={selected} canEdit={canEdit} onSelect={onSelect} />
        ) : (
          <Empty>{harness.code} has no segments yet. Add its first two connectors on the right.</Empty>
        )}
      </Box>
      <Tables harness={harness} />
    </>
  )
}

interface StretchProps {
  drag: Drag
  length: number
}

function Stretch({ drag: d, length }: StretchProps) {
  return (
    <>
      <line
        x1={d.from[0]}
        y1={d.from[1]}
        x2={d.from[0] + d.unit[0] * length}
        y2={d.from[1] + d.unit[1] * length}
        stroke={COPPER}
        strokeWidth={2}
      />
      <text
        x={d.from[0] + d.unit[0] * length}
        y={d.from[1] + d.unit[1] * length - 8}
        fontSize={10}
        fontFamily={MONO}
        fill={COPPER}
      >
        {length} mm
      </text>
    </>
  )
}
