/** The Harness bench: the tree on its form board and in space, its wires with lengths, connectors with contacts. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import CircularProgress from '@mui/material/CircularProgress'
import Stack from '@mui/material/Stack'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { lazy, Suspense, useState } from 'react'
import { useSearchParams } from 'react-router'
import { client, got } from '../../api/client'
import { Bench, Choice, Empty, Heading } from '../../kit/Bench'
import type { BenchProps } from '../../project/bench'
import { paging, useCommands } from '../../project/commands'
import { usePick, useProject } from '../../project/store'
import { useBench } from '../../project/useBench'
import { LINE, MONO } from '../../theme/theme'
import { Board } from './Board'
import { HarnessPanel } from './HarnessPanel'
import { Ledger } from './Ledger'
import { Schematic } from './Schematic'
import type { HarnessValue, HarnessView } from './shapes'

// three.js is only fetched when somebody looks at the picture in space.
const Space = lazy(() => import('./Space'))

const LOOKS = ['schematic', 'board', 'space'] as const
type Look = (typeof LOOKS)[number]
const LOOK_WORDS = { schematic: 'Schematic', board: 'Board', space: 'Space' }

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
  const [look, setLook] = useState<Look>('board')
  const view = useHarness(search.get('harness') ?? '')
  const codes = (view.data?.harnesses ?? []).map((h) => h.id)
  const choose = (id: string) => {
    setSelected('')
    setSearch({ harness: id })
  }
  useCommands('Harness', paging('harness', codes, view.data?.harness?.id ?? '', choose))
  if (!view.data) return <Empty>Reading the harnesses…</Empty>
  const { harness, free } = view.data
  const shared = { selected, canEdit, onSelect: setSelected }
  return (
    <Bench
      name="Harness"
      list={<List view={view.data} choose={choose} {...shared} />}
      inspector={
        harness && <HarnessPanel key={`${harness.id}${selected}`} harness={harness} free={free} {...shared} />
      }
    >
      {!harness && (
        <Empty>
          No harness yet. Add one on the left, and its connectors by their parts; paste its wires as rows of a
          table. Or draw connectors and the wires between their cavities on a sheet (type “connector”, then
          “cavity” at the caret), and add what is drawn.
        </Empty>
      )}
      {harness && (
        <>
          <Looks look={look} onLook={setLook} />
          <Box sx={{ flex: 1, minHeight: 0, bgcolor: '#EAE4D6' }}>
            <Picture {...{ harness, look }} {...shared} />
          </Box>
          <Ledger harness={harness} {...shared} />
        </>
      )}
    </Bench>
  )
}

function Looks({ look, onLook }: { look: Look; onLook: (look: Look) => void }) {
  return (
    <Stack direction="row" sx={{ px: 1.5, py: 0.5, borderBottom: `1px solid ${LINE}`, bgcolor: '#FBF8F1' }}>
      <ToggleButtonGroup size="small" exclusive value={look} onChange={(_, v: Look | null) => v && onLook(v)}>
        {LOOKS.map((one) => (
          <ToggleButton key={one} value={one}>
            {LOOK_WORDS[one]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </Stack>
  )
}

interface Shared {
  selected: string
  canEdit: boolean
  onSelect: (id: string) => void
}

function Picture({ harness, look, ...shared }: Shared & { harness: HarnessValue; look: Look }) {
  if (look === 'schematic') return <Schematic harness={harness} />
  if (!harness.scene)
    return <Empty>{harness.code} has no segments yet. Add its first two connectors on the right.</Empty>
  if (look === 'board') return <Board harness={harness} {...shared} />
  return (
    <Suspense fallback={<CircularProgress sx={{ m: 4 }} />}>
      <Space harness={harness} {...shared} />
    </Suspense>
  )
}

type ListProps = Shared & { view: HarnessView; choose: (id: string) => void }

/** The harnesses, and what the chosen one joins. */
function List({ view, choose, selected, canEdit, onSelect }: ListProps) {
  const { harness, harnesses } = view
  return (
    <>
      <Heading>Harnesses</Heading>
      {harnesses.map((h) => (
        <Choice key={h.id} chosen={h.id === harness?.id} note={h.text} onClick={() => choose(h.id)}>
          <b style={{ fontFamily: MONO }}>{h.code}</b>
        </Choice>
      ))}
      {canEdit && <NewHarness choose={choose} />}
      {harness && harness.connectors.length > 0 && <Heading>Connectors</Heading>}
      {harness?.connectors.map((c) => {
        const node = harness.nodes.find((n) => n.device_id === c.id)
        const used = c.cavities.filter((v) => v.to.length).length
        return (
          <Choice
            key={c.id}
            chosen={node?.id === selected}
            note={
              node?.splice
                ? `splice, ${legs(c)} legs`
                : [`${used} of ${c.cavities.length}`, c.text].filter(Boolean).join(' · ')
            }
            onClick={() => node && onSelect(node.id)}
          >
            <b style={{ fontFamily: MONO }}>{c.tag}</b>
          </Choice>
        )
      })}
    </>
  )
}

const legs = (c: HarnessValue['connectors'][number]) => c.cavities.reduce((sum, v) => sum + v.wires.length, 0)

function NewHarness({ choose }: { choose: (id: string) => void }) {
  const { send } = usePick('send')
  const [code, setCode] = useState('')
  const add = async () => {
    const answer = await send({ kind: 'add-harness', code, text: '' })
    if (!answer) return
    setCode('')
    choose(answer.placed[0] ?? '')
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
