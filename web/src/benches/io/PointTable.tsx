/** The list of points as a table: typed, pasted, put in order, with where each is allocated and drawn. */
import { useMemo } from 'react'
import { useNavigate } from 'react-router'
import { makeEdit } from '../../api/client'
import { Grid } from '../../kit/Grid'
import type { CellChange, Column } from '../../kit/gridData'
import { usePlaces } from '../../project/PlaceChoice'
import { usePick } from '../../project/store'
import { COPPER, SNAG, TEAL } from '../../theme/theme'
import { SORTS, TYPES, type IoView, type Point } from './shapes'

interface Props {
  view: IoView
  filter: string
  canEdit: boolean
  chosen: Set<string>
  choose: (ids: Set<string>) => void
}

type Named = { id: string; name: string }[]

const YES_NO = ['yes', 'no'].map((id) => ({ id, name: id }))
const RESTS = [
  { id: '', name: '' },
  { id: 'open', name: 'open' },
  { id: 'closed', name: 'closed' },
]
const yes = (value: boolean) => (value ? 'yes' : 'no')

/** The columns in which something is said of a point. */
function saidColumns(edit: () => boolean, functions: Named, locations: Named): Column<Point>[] {
  const typed = (key: keyof Point & string, name: string, width: number): Column<Point> => ({
    ...{ key, name, width, edit, text: (p) => String(p[key]) },
  })
  return [
    { ...typed('tag', 'Tag', 84), mono: true },
    typed('text', 'Text', 180),
    { ...typed('io_type', 'Type', 56), mono: true, choices: TYPES.map((id) => ({ id, name: id })) },
    {
      ...typed('sort', 'Sort', 70),
      choices: SORTS,
      text: (p) => (p.sort ? (SORTS.find((s) => s.id === p.sort)?.name ?? p.sort) : ''),
      value: (p) => p.sort,
    },
    typed('signal', 'Signal', 84),
    { ...typed('device', 'Device', 90), mono: true },
    { ...typed('function', 'Function', 80), mono: true, choices: functions, text: (p) => p.function },
    { ...typed('location', 'Location', 80), mono: true, choices: locations, text: (p) => p.location },
    typed('connected', 'Connected to', 120),
    typed('span', 'Range', 70),
    typed('unit', 'Unit', 50),
    { ...typed('normal', 'At rest', 66), choices: RESTS },
    { ...typed('terminals', 'Terminals', 74), choices: YES_NO, text: (p) => yes(p.terminals) },
    { ...typed('cable', 'Cable', 56), choices: YES_NO, text: (p) => yes(p.cable) },
    typed('text2', 'Second text', 140),
    typed('remark', 'Remark', 140),
  ]
}

const FOUND: Column<Point>[] = [
  { key: 'address', name: 'Address', width: 74, mono: true, text: (p) => p.address, ink: () => TEAL },
  {
    key: 'card',
    name: 'Card',
    width: 150,
    mono: true,
    text: (p) => (p.card ? `${p.card} · ${p.channel}${p.fixed ? ' fixed' : ''}` : 'waits'),
    ink: (p) => (p.card ? undefined : SNAG),
  },
  { key: 'place', name: 'Sheet', width: 70, mono: true, text: (p) => p.place, ink: () => COPPER },
]

export function PointTable({ view, filter, canEdit, chosen, choose }: Props) {
  const { send, projectId, say } = usePick('send', 'projectId', 'say')
  const navigate = useNavigate()
  const places = usePlaces().data
  const columns = useMemo(() => {
    const named = (all: { name: string }[] | undefined) => [
      { id: '', name: '' },
      ...(all ?? []).map((p) => ({ id: p.name, name: p.name })),
    ]
    const edit = () => canEdit
    const said = saidColumns(edit, named(places?.functions), named(places?.locations))
    const own = view.own.map((heading): Column<Point> => ({
      ...{ key: heading, name: heading, width: 100, edit, text: (p) => p.own[heading] ?? '' },
    }))
    return [...said.slice(0, 3), ...FOUND, ...said.slice(3), ...own]
  }, [view.own, places, canEdit])
  const change = (changes: CellChange[]) => send({ kind: 'write-points', cells: changes })
  const reorder = (ids: string[], before: Point | undefined) => {
    const left = view.points.filter((p) => !ids.includes(p.id))
    const at = before ? left.findIndex((p) => p.id === before.id) : left.length
    void send(makeEdit('move-points', { ids, to: at < 0 ? left.length : at }))
  }
  return (
    <Grid
      name="Points"
      rows={view.points}
      columns={columns}
      filter={filter}
      selected={chosen}
      onSelect={(ids) => choose(new Set(ids))}
      onChange={change}
      onProblem={(words) => say(words, 'error')}
      onReorder={canEdit ? reorder : undefined}
      onOpen={(p) => {
        if (p.sheet_id) void navigate(`/p/${projectId}/draw/${p.sheet_id}?sel=${p.symbol_id}`)
      }}
    />
  )
}
