/** The Make bench: the cut list, what the machine has done, spools, rail and duct cuts. */
import { useCommands } from '../../project/commands'
import { makeCommands } from './commands'
import type { BenchProps } from '../../project/bench'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import LinearProgress from '@mui/material/LinearProgress'
import Stack from '@mui/material/Stack'
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query'
import { client, got, wordsOf } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { useLengths } from '../../project/useLengths'
import { COPPER, LINE, MONO, QUIET, SNAG, TEAL } from '../../theme/theme'
import { Bench, Empty, Heading } from '../../kit/Bench'
import { lengthOf } from '../../kit/lengths'
import { Rows } from '../../kit/Rows'
import { Setting } from '../../project/Setting'
import { useProject, usePick } from '../../project/store'
import { counted } from '../../kit/counted'

type MakeView = Schemas['MakeView']
type Wire = MakeView['wires'][number]

const WORDS = { new: 'to give', waiting: 'waiting', done: 'done', refused: 'refused' }
const INKS = { new: QUIET, waiting: COPPER, done: TEAL, refused: SNAG }
const ASK_MS = 1000
const REST_MS = 4000

const counter = (wires: Wire[]) => (state: Wire['state']) => wires.filter((w) => w.state === state).length

/** The cut list with what the machine has done of it, and giving wires to the machine. */
function useMaking() {
  const { projectId, revision } = usePick('projectId', 'revision')
  const queries = useQueryClient()
  const path = { project_id: projectId }
  const key = ['make', projectId, revision]
  const view = useQuery({
    queryKey: key,
    queryFn: () => got(client.GET('/api/projects/{project_id}/make', { params: { path } })),
    placeholderData: keepPreviousData,
    // While the machine works, its progress is asked for; at rest only whether it is there.
    refetchInterval: (query) => (query.state.data?.open_jobs ? ASK_MS : REST_MS),
    enabled: projectId !== '',
  })
  const give = async (again: boolean) => {
    try {
      const answer = await got(
        client.POST('/api/projects/{project_id}/make/jobs', { params: { path }, body: { again } }),
      )
      queries.setQueryData(key, answer)
    } catch (error) {
      useProject.getState().say(wordsOf(error), 'error')
    }
  }
  return { view, give }
}

export function MakeBench({ canEdit }: BenchProps) {
  const { projectId } = usePick('projectId')
  const { view, give } = useMaking()
  const inState = counter(view.data?.wires ?? [])
  useCommands(
    'Make',
    makeCommands({
      give: (again) => void give(again),
      fresh: inState('new'),
      refused: inState('refused'),
    }),
  )
  if (!view.data) return <Empty>Reading the cut list…</Empty>
  const { wires, uncut, vain } = view.data
  const count = counter(wires)
  const base = `/api/projects/${projectId}`
  return (
    <Bench name="Make" inspector={<Stock view={view.data} canEdit={canEdit} />}>
      <Stack
        direction="row"
        spacing={1}
        sx={{ p: 1.5, alignItems: 'center', borderBottom: `1px solid ${LINE}` }}
      >
        <Head base={base} wires={wires} canEdit={canEdit} give={(again) => void give(again)} />
      </Stack>
      {count('waiting') > 0 && (
        <LinearProgress
          variant="determinate"
          aria-label="Done"
          value={(100 * count('done')) / Math.max(1, count('done') + count('waiting'))}
        />
      )}
      <Box sx={{ flex: 1, overflow: 'auto' }}>
        <Warnings {...{ uncut, vain }} />
        {wires.length === 0 ? (
          <Empty>
            Nothing to cut yet: place the devices in the Cabinet, or add a harness, so that wires have a
            length.
          </Empty>
        ) : (
          <CutList wires={wires} />
        )}
      </Box>
    </Bench>
  )
}

function Machine({ machine }: { machine: MakeView['machine'] }) {
  const { said, bare } = useLengths()
  if (machine.problem)
    return (
      <Box sx={{ px: 0.75, fontSize: 12.5 }} data-testid="machine">
        <span style={{ color: SNAG }}>{machine.problem}</span>
        <div style={{ color: QUIET }}>
          Nothing is lost: what was given waits here until it answers at {machine.address}. ./start brings a
          simulated one with it.
        </div>
      </Box>
    )
  const l = machine.limits ?? {}
  return (
    <Box sx={{ px: 0.75, fontSize: 12.5 }} data-testid="machine">
      <b style={{ color: TEAL }}>{machine.name}</b>, {machine.state}
      <div style={{ color: QUIET }}>
        {bare(l['shortest_mm'] ?? 0)} to {said(l['longest_mm'] ?? 0)}, strips {bare(l['strip_min_mm'] ?? 0)}{' '}
        to {said(l['strip_max_mm'] ?? 0)}, {l['area_min_mm2']} to {l['area_max_mm2']} mm²
      </div>
    </Box>
  )
}

interface StockProps {
  view: MakeView
  canEdit: boolean
}

function Stock({ view, canEdit }: StockProps) {
  const { said, long } = useLengths()
  const { machine, spools, stock } = view
  return (
    <>
      <Heading>Machine</Heading>
      <Machine machine={machine} />
      <Heading>Spools</Heading>
      <Rows
        label="Spools"
        columns={[
          'Type',
          { name: long === 'm' ? 'Metres' : 'Feet', align: 'right' },
          { name: 'Spools', align: 'right' },
        ]}
      >
        {spools.map((s) => (
          <tr key={s.type_name}>
            <td title={`${counted(s.wires, 'wire')}, ${s.size}`}>
              {s.type_name} {s.colour}
            </td>
            <td style={{ textAlign: 'right' }}>
              {(long === 'm' ? s.metres : Number(lengthOf(s.metres * 1000, long))).toFixed(2)}
            </td>
            <td style={{ textAlign: 'right', fontWeight: 600 }}>{s.spools}</td>
          </tr>
        ))}
      </Rows>
      <Setting name="spool_m" label="Wire on a spool" canEdit={canEdit} />
      <Heading>Rails and ducts to saw</Heading>
      <Rows label="Rails and ducts" columns={['Part', { name: 'Length', align: 'right' }, 'Qty']}>
        {stock.map((s, i) => (
          <tr key={i}>
            <td style={{ fontFamily: MONO }}>{s.number}</td>
            <td style={{ textAlign: 'right' }}>{said(s.length_mm)}</td>
            <td>{s.quantity}</td>
          </tr>
        ))}
      </Rows>
    </>
  )
}

interface HeadProps {
  base: string
  wires: Wire[]
  canEdit: boolean
  give: (again: boolean) => void
}

function Head({ base, wires, canEdit, give }: HeadProps) {
  const count = counter(wires)
  return (
    <>
      <Box component="h1" sx={{ fontSize: 16, m: 0 }}>
        Cut list
      </Box>
      <Box data-testid="counts" sx={{ flex: 1, fontSize: 12.5, color: QUIET }}>
        {counted(wires.length, 'wire')}: {count('done')} done, {count('waiting')} waiting, {count('refused')}{' '}
        refused, {count('new')} to give
      </Box>
      <Button href={`${base}/reports/cut/csv`}>CSV</Button>
      <Button href={`${base}/cut-list.json`}>JSON</Button>
      <Button href={`${base}/reports/labels/csv`}>Labels</Button>
      {canEdit && count('refused') > 0 && <Button onClick={() => give(true)}>Try the refused again</Button>}
      {canEdit && (
        <Button variant="contained" disabled={!count('new')} onClick={() => give(false)}>
          {count('new') ? `Give ${count('new')} to the machine` : 'Everything is given'}
        </Button>
      )}
    </>
  )
}

interface WarningsProps {
  uncut: MakeView['uncut']
  vain: MakeView['vain']
}

function Warnings({ uncut, vain }: WarningsProps) {
  const { said } = useLengths()
  return (
    <>
      {uncut.length > 0 && (
        <Box role="status" sx={{ p: 1.5, color: SNAG, fontSize: 12.5 }}>
          {uncut.length === 1 ? 'One wire has' : `${uncut.length} wires have`} no length yet, for example{' '}
          {uncut[0]!.number} {uncut[0]!.from} to {uncut[0]!.to}: {uncut[0]!.why}
        </Box>
      )}
      {vain.length > 0 && (
        <Box component="details" data-testid="vain" sx={{ p: 1.5, color: COPPER, fontSize: 12.5 }}>
          <Box component="summary" sx={{ cursor: 'pointer' }}>
            {vain.length === 1 ? 'One piece was' : `${vain.length} pieces were`} cut in vain: the drawing has
            changed since
          </Box>
          {vain.map((w, n) => (
            <Box key={n} sx={{ fontFamily: MONO, pl: 2 }}>
              {w.number} {w.start} – {w.end}, {w.type_name}, {said(w.length_mm)}
            </Box>
          ))}
        </Box>
      )}
    </>
  )
}

interface CutListProps {
  wires: Wire[]
}

function CutList({ wires }: CutListProps) {
  const { said, bare } = useLengths()
  return (
    <Rows
      label="Cut list"
      columns={[
        { name: 'State', width: 92 },
        { name: 'Wire', width: 60 },
        'Type',
        { name: 'Length', align: 'right', width: 74 },
        'From',
        { name: 'Strip', width: 92 },
        'To',
        { name: 'Strip', width: 92 },
        'Runs in',
      ]}
    >
      {wires.map((w) => (
        <tr key={w.id} data-state={w.state}>
          <td style={{ color: INKS[w.state], fontWeight: 600 }} title={w.reasons}>
            {WORDS[w.state]}
            {w.reasons && <div style={{ fontWeight: 400, fontSize: 11.5 }}>{w.reasons}</div>}
            {w.stale && <div style={{ fontWeight: 400, fontSize: 11.5 }}>changed since it was cut</div>}
          </td>
          <td style={{ fontFamily: MONO }}>{w.number}</td>
          <td>
            {w.type_name} {w.colour} {w.size}
          </td>
          <td style={{ textAlign: 'right' }}>{said(w.length_mm)}</td>
          <td style={{ fontFamily: MONO }}>{w.start}</td>
          <td style={{ fontSize: 11.5 }}>
            {bare(w.start_strip_mm)} {w.start_termination}
          </td>
          <td style={{ fontFamily: MONO }}>{w.end}</td>
          <td style={{ fontSize: 11.5 }}>
            {bare(w.end_strip_mm)} {w.end_termination}
          </td>
          <td style={{ fontFamily: MONO, fontSize: 11.5 }}>{w.run}</td>
        </tr>
      ))}
    </Rows>
  )
}
