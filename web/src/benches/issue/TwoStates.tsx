/** A drawing in two states, over each other or beside each other, with the places that differ. */
import Box from '@mui/material/Box'
import { useMemo } from 'react'
import { client, got } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { Empty } from '../../kit/Bench'
import { Drawing, type SceneValue } from '../../kit/Drawing'
import { ItemView } from '../../scene/Painter'
import { useArt } from '../../project/useArt'
import { useProject } from '../../project/store'
import { useBench } from '../../project/useBench'
import { COPPER, LINE, QUIET } from '../../theme/theme'

export type View = 'over' | 'beside'
type Both = Schemas['TwoDrawings']
type Box4 = Both['added'][number]

interface Props {
  sheetId: string
  since: string
  until: string
  view: View
}

export function TwoStates({ sheetId, since, until, view }: Props) {
  const projectId = useProject((s) => s.projectId)
  const art = useArt()
  const both = useBench<Both>(
    'two-drawings',
    () =>
      got(
        client.GET('/api/projects/{project_id}/states-compared/drawing', {
          params: { path: { project_id: projectId }, query: { sheet_id: sheetId, since, until } },
        }),
      ),
    [sheetId, since, until],
  ).data
  if (!both) return <Empty>Painting both states…</Empty>
  const { before, after } = both
  if (view === 'beside')
    return (
      <Box sx={{ flex: 1, minHeight: 0, display: 'flex' }}>
        <Half name="before" scene={before} art={art} boxes={[...both.gone, ...both.was]} gone />
        <Half name="after" scene={after} art={art} boxes={[...both.added, ...both.other]} />
      </Box>
    )
  return <Over both={both} art={art} />
}

interface HalfProps {
  name: string
  scene: SceneValue | null
  art: ReturnType<typeof useArt>
  boxes: Box4[]
  gone?: boolean
}

const NONE = new Set<string>()

function Half({ name, scene, art, boxes, gone }: HalfProps) {
  return (
    <Box
      aria-label={name}
      role="group"
      sx={{
        flex: 1,
        minWidth: 0,
        display: 'flex',
        flexDirection: 'column',
        borderRight: `1px solid ${LINE}`,
      }}
    >
      <Box sx={{ fontSize: 12, px: 1, color: QUIET }}>{name}</Box>
      {scene ? (
        <Drawing scene={scene} name={name} selected={NONE} art={art}>
          <Marks boxes={boxes} gone={gone ?? false} />
        </Drawing>
      ) : (
        <Empty>The sheet is not there.</Empty>
      )}
    </Box>
  )
}

/** The later state, with what is no more there in grey under it. */
function Over({ both, art }: { both: Both; art: ReturnType<typeof useArt> }) {
  const scene = both.after ?? both.before
  const ghosts = useMemo(() => ghostsOf(both), [both])
  if (!scene) return <Empty>The sheet is in neither state.</Empty>
  return (
    <Drawing scene={scene} name="over" selected={NONE} art={art}>
      <g opacity={0.4} data-testid="ghosts">
        {ghosts.map((item) => (
          <ItemView key={item.id} item={item} art={art} look="plain" />
        ))}
      </g>
      <Marks boxes={both.gone} gone />
      <Marks boxes={[...both.added, ...both.other]} gone={false} />
    </Drawing>
  )
}

/** What was drawn before and is not there now, or stands elsewhere now. */
function ghostsOf({ before, after }: Both): SceneValue['items'] {
  if (!before || !after) return []
  const now = new Map(after.items.map((i) => [i.id, i.box.join()]))
  return before.items
    .filter((i) => i.kind !== 'frame' && now.get(i.id) !== i.box.join())
    .map((i) => ({ ...i, id: `before ${i.id}` }))
}

const AROUND = 1.5 // mm between a mark and what it is about

function Marks({ boxes, gone }: { boxes: Box4[]; gone: boolean }) {
  return boxes.map(([x1, y1, x2, y2], n) => (
    <rect
      key={n}
      data-mark={gone ? 'gone' : 'changed'}
      x={x1 - AROUND}
      y={y1 - AROUND}
      width={x2 - x1 + 2 * AROUND}
      height={y2 - y1 + 2 * AROUND}
      rx={1.5}
      fill={gone ? 'none' : COPPER}
      fillOpacity={gone ? 0 : 0.1}
      stroke={gone ? QUIET : COPPER}
      strokeWidth={0.4}
      strokeDasharray="1.6 1.2"
      pointerEvents="none"
    />
  ))
}
