/** Parts in this project: devices that wait for one, copies that are stale or lack something, where each is used. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useState, type KeyboardEvent, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import { client, got } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { COPPER, MONO, QUIET } from '../../theme/theme'
import { Act } from '../../kit/Act'
import { Bench } from '../../kit/Bench'
import { PartChoice } from '../../project/PartChoice'
import { Rows } from '../../kit/Rows'
import { Section } from '../../kit/Section'
import { useBench } from '../../project/useBench'
import { PartPicker } from '../../project/PartPicker'
import { usePick } from '../../project/store'

type Line = Schemas['ProjectParts']['parts'][number]
type Bare = Schemas['ProjectParts']['bare'][number]

/** What makes a row of a table one that is chosen by a click. */
type RowOf = (id: string) => React.HTMLAttributes<HTMLTableRowElement>

export function ProjectSection({ list, canEdit }: { list: ReactNode; canEdit: boolean }) {
  const { projectId } = usePick('projectId')
  const [chosen, setChosen] = useState('')
  const data = useBench<{ parts: Line[]; bare: Bare[] }>('project-parts', () =>
    got(client.GET('/api/projects/{project_id}/parts', { params: { path: { project_id: projectId } } })),
  ).data
  const parts = data?.parts ?? []
  const bare = data?.bare ?? []
  const part = parts.find((p) => p.id === chosen)
  const device = bare.find((b) => b.id === chosen)
  /** Up and down go through the list, so that it can be worked through from the keyboard. */
  const walk = (event: KeyboardEvent) => {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
    if (!step || (event.target as HTMLElement).tagName === 'INPUT') return
    event.preventDefault()
    const ids = [...bare.map((b) => b.id), ...parts.map((p) => p.id)]
    const next = ids[Math.min(ids.length - 1, Math.max(0, ids.indexOf(chosen) + step))]
    if (next) setChosen(next)
  }
  const row = (id: string) => ({
    onClick: () => setChosen(id),
    style: { cursor: 'pointer', background: id === chosen ? '#F5E3D5' : undefined },
    'aria-selected': id === chosen,
  })
  const inspector = device ? (
    <BareInspector device={device} canEdit={canEdit} next={() => setChosen(nextOf(bare, device.id))} />
  ) : part ? (
    <PartInspector part={part} canEdit={canEdit} />
  ) : (
    <Box sx={{ fontSize: 12.5, color: QUIET }}>
      Choose a line. With the arrow keys one goes from line to line.
    </Box>
  )
  return (
    <Bench name="Parts" list={list} inspector={inspector}>
      <Box
        sx={{ p: 2, overflow: 'auto' }}
        tabIndex={0}
        onKeyDown={walk}
        aria-label="Parts in this project"
        role="region"
      >
        {bare.length > 0 && (
          <>
            <BareList bare={bare} row={row} />
          </>
        )}
        <Copies parts={parts} first={!bare.length} canEdit={canEdit} row={row} />
      </Box>
    </Bench>
  )
}

const stateOf = (p: Line) =>
  p.stale.length ? 'stale' : !p.number ? 'no number' : Object.keys(p.missing).length ? 'lacks' : ''

const toggled = (set: ReadonlySet<string>, id: string) => {
  const next = new Set(set)
  if (!next.delete(id)) next.add(id)
  return next
}

const nextOf = (bare: Bare[], id: string) => bare[bare.findIndex((b) => b.id === id) + 1]?.id ?? ''

function PartInspector({ part, canEdit }: { part: Line; canEdit: boolean }) {
  const { projectId } = usePick('projectId')
  const go = useNavigate()
  return (
    <>
      <Box sx={{ fontWeight: 600, fontFamily: MONO }}>{part.number}</Box>
      <Box sx={{ fontSize: 12.5 }}>{part.text}</Box>
      <Box sx={{ fontSize: 12, color: QUIET }}>{part.units}</Box>
      <Button onClick={() => void go(`/p/${projectId}/parts/library?part=${part.id}`)}>
        Open in the library
      </Button>
      <Findings {...{ part, canEdit }} />
      <Section title={`Where used, ${part.devices.length}`}>
        {part.devices.map((d) => (
          <Box key={d.id} sx={{ fontSize: 12.5 }}>
            <button
              type="button"
              style={{
                font: `12px ${MONO}`,
                border: 0,
                background: 'none',
                padding: 0,
                textDecoration: 'underline',
                cursor: 'pointer',
              }}
              onClick={() => void go(`/p/${projectId}/draw/${d.sheet_id}`)}
            >
              {d.tag}
            </button>
          </Box>
        ))}
      </Section>
      {canEdit && <Replace part={part} />}
    </>
  )
}

interface BareListProps {
  bare: Bare[]
  row: RowOf
}

function BareList({ bare, row }: BareListProps) {
  return (
    <>
      <Box component="h2" sx={{ fontSize: 15, m: 0, mb: 1 }}>
        Devices without a part, {bare.length}
      </Box>
      <Rows label="Devices without a part" columns={['Device', 'What', 'Text', 'Needs']}>
        {bare.map((b) => (
          <tr key={b.id} {...row(b.id)}>
            <td style={{ fontFamily: MONO }}>{b.tag}</td>
            <td>{b.class_name}</td>
            <td>{b.text}</td>
            <td>
              {Object.entries(b.needs)
                .map(([kind, n]) => `${n} ${kind}`)
                .join(', ')}
            </td>
          </tr>
        ))}
      </Rows>
    </>
  )
}

interface CopiesProps {
  parts: Line[]
  first: boolean
  canEdit: boolean
  row: RowOf
}

function Copies({ parts, first, canEdit, row }: CopiesProps) {
  const { send } = usePick('send')
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set())
  const stale = parts.filter((p) => p.stale.length)
  const chosenStale = stale.filter((p) => ticked.has(p.id)).map((p) => p.id)
  const refresh = (ids: string[]) => void send({ kind: 'refresh-parts', part_ids: ids })
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', mt: first ? 0 : 3, mb: 1 }}>
        <Box component="h2" sx={{ fontSize: 15, m: 0, flex: 1 }}>
          Copies in this project, {parts.length}
        </Box>
        {canEdit && chosenStale.length > 0 && (
          <Button sx={{ mr: 1 }} variant="outlined" onClick={() => refresh(chosenStale)}>
            Refresh {chosenStale.length} ticked
          </Button>
        )}
        {canEdit && stale.length > 0 && (
          <Button variant="contained" onClick={() => refresh([])}>
            Refresh all {stale.length} stale
          </Button>
        )}
      </Box>
      <Rows
        label="Copies in this project"
        columns={['Number', 'Maker', 'Class', 'Description', 'Need', 'State']}
      >
        {parts.map((p) => (
          <tr key={p.id} {...row(p.id)}>
            <td style={{ fontFamily: MONO, whiteSpace: 'nowrap' }}>{p.number || '—'}</td>
            <td>{p.maker}</td>
            <td>{p.class_name}</td>
            <td>{p.text}</td>
            <td style={{ textAlign: 'right' }}>{p.quantity === '0' ? '' : p.quantity}</td>
            <td style={{ color: COPPER, whiteSpace: 'nowrap' }}>
              {p.stale.length > 0 && canEdit && (
                <input
                  type="checkbox"
                  aria-label={`Refresh ${p.number}`}
                  checked={ticked.has(p.id)}
                  onClick={(e) => e.stopPropagation()}
                  onChange={() => setTicked(toggled(ticked, p.id))}
                />
              )}
              {stateOf(p)}
            </td>
          </tr>
        ))}
      </Rows>
    </>
  )
}

interface BareInspectorProps {
  device: Bare
  canEdit: boolean
  next: () => void
}

function BareInspector({ device, canEdit, next }: BareInspectorProps) {
  const { projectId } = usePick('projectId')
  const go = useNavigate()
  return (
    <>
      <Box sx={{ fontWeight: 600 }}>{device.tag}</Box>
      <Box sx={{ fontSize: 12.5, color: QUIET }}>
        {[device.class_name, device.text].filter(Boolean).join(' · ')}
      </Box>
      {canEdit && <PartPicker key={device.id} deviceId={device.id} partId="" close={next} />}
      <Button onClick={() => void go(`/p/${projectId}/draw/${device.sheet_id}`)} disabled={!device.sheet_id}>
        Show it on its sheet
      </Button>
    </>
  )
}

interface FindingsProps {
  part: Line
  canEdit: boolean
}

/** What the library has otherwise, and what the part lacks. */
function Findings({ part, canEdit }: FindingsProps) {
  const { send } = usePick('send')
  return (
    <>
      {part.stale.length > 0 && (
        <Section title="Stale: the library has it otherwise">
          {part.stale.map((d) => (
            <Box key={d.field} sx={{ fontSize: 12.5 }}>
              <b>{d.field}</b>: {d.before || 'nothing'} → {d.after || 'nothing'}
            </Box>
          ))}
          {canEdit && (
            <Act onClick={() => void send({ kind: 'refresh-parts', part_ids: [part.id] })}>Refresh</Act>
          )}
        </Section>
      )}
      {Object.keys(part.missing).length > 0 && (
        <Section title="Lacks">
          {Object.entries(part.missing).map(([purpose, words]) => (
            <Box key={purpose} sx={{ fontSize: 12.5 }}>
              for {purpose}: {words.join(', ')}
            </Box>
          ))}
        </Section>
      )}
    </>
  )
}

interface ReplaceProps {
  part: Line
}

function Replace({ part }: ReplaceProps) {
  const { send } = usePick('send')
  const [misfits, setMisfits] = useState<string[][]>([])
  return (
    <Section title="Replace everywhere by">
      <PartChoice
        label="Another part"
        partClass={part.class}
        onChoose={(other) =>
          void send({ kind: 'replace-part', part_id: part.id, by_id: other.id, device_ids: [] }).then(
            (answer) => setMisfits((answer?.table ?? []).slice(1)),
          )
        }
      />
      {misfits.map((m, i) => (
        <Box key={i} sx={{ fontSize: 12.5, color: COPPER }}>
          {m.join(': ')}
        </Box>
      ))}
    </Section>
  )
}
