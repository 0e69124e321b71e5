/** The Harness bench: the tree on its form board and in space, its wires with lengths, connectors with contacts. */
import Box from '@mui/material/Box'
import CircularProgress from '@mui/material/CircularProgress'
import Stack from '@mui/material/Stack'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useCallback, useDeferredValue, useMemo, useState, type ReactNode } from 'react'
import { Link, useSearchParams } from 'react-router'
import { fetched } from '../../kit/fetched'
import { client, got } from '../../api/client'
import { Bench, Empty } from '../../kit/Bench'
import { Pick } from '../../kit/Pick'
import { Switched } from '../../kit/Switched'
import type { BenchProps } from '../../project/bench'
import { paging, useCommands } from '../../project/commands'
import { useProject } from '../../project/store'
import { useBench } from '../../project/useBench'
import { LINE } from '../../theme/theme'
import { BlockPanel } from './BlockPanel'
import { Blocks } from './Blocks'
import { Board } from './Board'
import { HarnessList } from './HarnessList'
import { HarnessPanel } from './HarnessPanel'
import { Ledger } from './Ledger'
import { Schematic } from './Schematic'
import { useHarness } from './useHarness'
import type { BlocksView, HarnessValue, HarnessView } from './shapes'

// three.js is only fetched when somebody looks at the picture in space.
const Space = fetched(() => import('./Space').then((m) => m.Space), <CircularProgress sx={{ m: 4 }} />)

const LOOKS = ['blocks', 'schematic', 'board', 'space'] as const
type Look = (typeof LOOKS)[number]
const LOOK_WORDS = { blocks: 'Blocks', schematic: 'Schematic', board: 'Board', space: 'Space' }

function useBlocks() {
  const projectId = useProject((s) => s.projectId)
  return useBench<BlocksView>('blocks', () =>
    got(
      client.GET('/api/projects/{project_id}/harness/blocks', {
        params: { path: { project_id: projectId } },
      }),
    ),
  )
}

export function HarnessBench({ canEdit }: BenchProps) {
  const [search, setSearch] = useSearchParams()
  const [selected, setSelected] = useState('')
  const [wanted, setLook] = useState<Look | ''>('')
  const view = useHarness(search.get('harness') ?? '', search.get('variant') ?? '')
  const codes = (view.data?.harnesses ?? []).map((h) => h.id)
  const choose = useCallback(
    (id: string) => {
      setSelected('')
      setSearch({ harness: id })
    },
    [setSearch],
  )
  const turn = (look: Look) => {
    setSelected('')
    setLook(look)
  }
  const toBoard = useCallback(
    (id: string) => {
      choose(id)
      setLook('board')
    },
    [choose],
  )
  const deferred = useDeferredValue(view.data)
  // Another harness is listed at once: what it takes of the screen decides how much of the picture is shown.
  const later = deferred?.harness?.id === view.data?.harness?.id ? deferred : view.data
  const list = useMemo(
    () => later && <HarnessList view={later} onSelect={setSelected} {...{ choose, selected, canEdit }} />,
    [later, choose, selected, canEdit],
  )
  useCommands('Harness', paging('harness', codes, view.data?.harness?.id ?? '', choose))
  if (!view.data) return <Empty>Reading the harnesses…</Empty>
  const look = wanted || (view.data.harness ? 'board' : 'blocks')
  const shared = { selected, canEdit, onSelect: setSelected }
  if (look === 'blocks') return <InBlocks {...{ list, turn, toBoard, ...shared }} />
  return <InHarness view={view.data} {...{ list, look, turn, toBoard, ...shared }} />
}

interface LookProps extends Shared {
  list: ReactNode
  turn: (look: Look) => void
  toBoard: (harnessId: string) => void
}

/** All harnesses of the project as blocks. */
function InBlocks({ list, turn, toBoard, ...shared }: LookProps) {
  const blocks = useBlocks()
  const [own, setOwn] = useState(false)
  if (!blocks.data) return <Empty>Reading the blocks…</Empty>
  return (
    <Bench
      name="Harness"
      list={list}
      inspector={<BlockPanel key={shared.selected} view={blocks.data} onHarness={toBoard} {...shared} />}
    >
      <Looks look="blocks" onLook={turn} page={blocks.data.page_id}>
        {shared.canEdit && (
          <Switched label="Each stroke is a harness of its own" on={own} canEdit onSwitch={setOwn} />
        )}
      </Looks>
      <Box sx={{ flex: 1, minHeight: 0, bgcolor: '#EAE4D6' }}>
        <Blocks view={blocks.data} own={own} {...shared} />
      </Box>
    </Bench>
  )
}

/** One harness: drawn, on its board, in space. */
function InHarness(props: LookProps & { view: HarnessView; look: Look }) {
  const { view, list, look, turn, toBoard, selected, canEdit, onSelect } = props
  const { harness } = view
  const shared = { selected, canEdit, onSelect }
  const [chosen, onChoose] = useState<Set<string>>(new Set())
  const along = useMemo(
    () => new Set((harness?.wires ?? []).filter((w) => chosen.has(w.key)).flatMap((w) => w.segments)),
    [harness?.wires, chosen],
  )
  // What was changed is seen in the picture at once; lists and fields follow.
  const deferred = useDeferredValue(view)
  const later = deferred.harness?.id === harness?.id ? deferred : view
  const inspector = useMemo(() => {
    const { harness, free, others } = later
    const what = { harness, free, others, onHarness: toBoard, chosen: [...chosen] }
    return (
      harness && (
        <HarnessPanel
          key={`${harness.id}${selected}`}
          {...{ ...what, harness, selected, canEdit, onSelect }}
        />
      )
    )
  }, [later, toBoard, chosen, selected, canEdit, onSelect])
  const ledger = useMemo(
    () =>
      later.harness && (
        <Ledger harness={later.harness} {...{ chosen, onChoose, selected, canEdit, onSelect }} />
      ),
    [later, chosen, selected, canEdit, onSelect],
  )
  return (
    <Bench name="Harness" list={list} inspector={inspector}>
      <Looks look={look} onLook={turn}>
        {harness && harness.variants.length > 0 && <ChooseVariant harness={harness} />}
      </Looks>
      {!harness && (
        <Empty>
          No harness yet. Add one on the left, and its connectors by their parts; paste its wires as rows of a
          table. Or begin with blocks, or draw connectors and the wires between their cavities on a sheet
          (type “connector”, then “cavity” at the caret), and add what is drawn.
        </Empty>
      )}
      {harness && (
        <>
          <Box sx={{ flex: 1, minHeight: 0, bgcolor: '#EAE4D6' }}>
            <Picture {...{ harness, look, along }} {...shared} />
          </Box>
          {ledger}
        </>
      )}
    </Bench>
  )
}

interface LooksProps {
  look: Look
  onLook: (look: Look) => void
  /** The page of the same picture among the sheets. */
  page?: string
  children?: ReactNode
}

/** Which variant is shown: all that is in the harness, or what one of its variants has. */
function ChooseVariant({ harness }: { harness: HarnessValue }) {
  const [, setSearch] = useSearchParams()
  return (
    <Pick
      label="Variant"
      size="small"
      sx={{ minWidth: 140 }}
      value={harness.variant}
      options={[{ id: '', name: 'all together' }, ...harness.variants]}
      onPick={(variant) => setSearch({ harness: harness.id, ...(variant && { variant }) })}
    />
  )
}

function Looks({ look, onLook, page, children }: LooksProps) {
  const projectId = useProject((s) => s.projectId)
  return (
    <Stack
      direction="row"
      spacing={2}
      sx={{
        px: 1.5,
        py: 0.75,
        minHeight: 52,
        borderBottom: `1px solid ${LINE}`,
        bgcolor: '#FBF8F1',
        alignItems: 'center',
      }}
    >
      <ToggleButtonGroup size="small" exclusive value={look} onChange={(_, v: Look | null) => v && onLook(v)}>
        {LOOKS.map((one) => (
          <ToggleButton key={one} value={one}>
            {LOOK_WORDS[one]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {children}
      {page && <Link to={`/p/${projectId}/draw/${page}`}>As a sheet</Link>}
    </Stack>
  )
}

interface Shared {
  selected: string
  canEdit: boolean
  onSelect: (id: string) => void
}

interface PictureProps extends Shared {
  harness: HarnessValue
  look: Look
  /** The segments along which the chosen wires run. */
  along: Set<string>
}

function Picture({ harness, look, along, ...shared }: PictureProps) {
  if (look === 'schematic') return <Schematic harness={harness} />
  if (!harness.scene)
    return <Empty>{harness.code} has no segments yet. Add its first two connectors on the right.</Empty>
  if (look === 'board') return <Board {...{ harness, along }} {...shared} />
  return <Space harness={harness} {...shared} />
}
