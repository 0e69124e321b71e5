/** The places of a strip as a table: what lands on both sides, numbers, kinds, parts, wires. */
import { useMemo } from 'react'
import { useNavigate } from 'react-router'
import { makeEdit } from '../../api/client'
import { Grid } from '../../kit/Grid'
import type { CellChange, Column } from '../../kit/gridData'
import { usePlaces } from '../../project/PlaceChoice'
import { usePick } from '../../project/store'
import { COPPER, INK, QUIET, SNAG } from '../../theme/theme'
import { movePlaces } from './moving'
import { KINDS, type Row, type Strip, type Target, type TerminalKind } from './shapes'
import type { Held } from './useHeld'

interface Props {
  strip: Strip
  canEdit: boolean
  held: Held
}

type Line = Row & { id: string }

const names = (targets: Target[]) => targets.map((t) => t.name).join(', ')
const isTerminal = (row: Line) => row.kind === 'terminal'

/** What stands in the cell of a side: who lands there, or whose location is missing. */
function sideOf(row: Line, side: 'panel' | 'field'): string {
  const lost = row.unknown.map((t) => `${t.name} has no location`).join(', ')
  const here = names(row[side])
  return side === 'panel' && lost ? [here, lost].filter(Boolean).join(', ') : here
}

type Places = { id: string; name: string }[]

/** What lands on the terminals. */
const sidesOf = (
  strip: Strip,
  canEdit: boolean,
  places: Places,
): Record<'field' | 'cable' | 'panel', Column<Line>> => ({
  field: {
    key: 'field',
    name: strip.field_heading || 'Field side',
    width: 150,
    mono: true,
    text: (r) => sideOf(r, 'field'),
  },
  cable: {
    key: 'cable',
    name: 'Cable, core',
    width: 130,
    mono: true,
    text: (r) => r.field.map((t) => `${t.cable} ${t.core}`.trim()).join(', '),
  },
  panel: {
    key: 'panel',
    name: strip.panel_heading || 'Panel side',
    width: 180,
    mono: true,
    text: (r) => sideOf(r, 'panel'),
    value: () => '',
    choices: places,
    edit: (r) => canEdit && r.unknown.length > 0,
    ink: (r) => (r.unknown.length ? SNAG : INK),
  },
})

/** What the terminals are. */
function factsOf(typed: (row: Line) => boolean): Column<Line>[] {
  return [
    {
      key: 'number',
      name: 'No.',
      width: 56,
      mono: true,
      text: (r) => (isTerminal(r) ? r.number : ''),
      edit: typed,
    },
    { key: 'level', name: 'Level', width: 44, text: (r) => (isTerminal(r) ? String(r.level) : '') },
    {
      key: 'terminal_kind',
      name: 'Kind',
      width: 104,
      text: (r) => (r.spare ? `spare, ${r.terminal_kind}` : r.terminal_kind || r.number.toLowerCase()),
      value: (r) => r.terminal_kind,
      choices: KINDS,
      edit: typed,
      ink: (r) => (r.planned ? QUIET : undefined),
    },
  ]
}

/** Where the terminals are drawn and ordered, and what else is said of them. */
function restOf(typed: (row: Line) => boolean): Column<Line>[] {
  return [
    { key: 'wire', name: 'Wire', width: 78, mono: true, text: (r) => r.wire.join(' | ') },
    { key: 'type', name: 'Type', width: 92, text: (r) => r.type },
    { key: 'colour', name: 'Colour', width: 58, mono: true, text: (r) => r.colour },
    {
      key: 'part',
      name: 'Part',
      width: 100,
      mono: true,
      text: (r) => r.part?.number ?? (isTerminal(r) ? 'none' : ''),
      ink: (r) => (r.part || !isTerminal(r) ? undefined : SNAG),
    },
    {
      key: 'place',
      name: 'Sheet',
      width: 78,
      mono: true,
      text: (r) => r.place || (isTerminal(r) ? (r.spare ? 'spare' : 'not drawn') : ''),
      ink: (r) => (r.planned && !r.spare ? COPPER : undefined),
    },
    { key: 'remark', name: 'Remark', width: 140, text: (r) => r.remark, edit: typed },
    { key: 'snags', name: 'Snags', width: 160, text: (r) => r.snags.join(' '), ink: () => SNAG },
  ]
}

function columnsOf(strip: Strip, canEdit: boolean, places: Places): Column<Line>[] {
  const bridges = (row: Line) =>
    strip.laid
      .filter((b) => row.bridges.includes(b.id))
      .map((b) => `${b.slot}: ${b.units.length} joined`)
      .join(', ')
  const typed = (row: Line) => canEdit && isTerminal(row)
  const sides = sidesOf(strip, canEdit, places)
  const bridge: Column<Line> = { key: 'bridge', name: 'Bridge', width: 74, text: bridges, ink: () => COPPER }
  return [sides.field, sides.cable, bridge, ...factsOf(typed), sides.panel, ...restOf(typed)]
}

/** The edit that makes true what was typed into cells; null when nothing of it is for the strip. */
function editOf(strip: Strip, rows: Map<string, Line>, changes: CellChange[]) {
  const cells = new Map<number, Record<string, string | number>>()
  for (const { id, key, value } of changes) {
    const unit = rows.get(id)?.unit
    if (unit) cells.set(unit, { ...cells.get(unit), unit, [key]: value })
  }
  return makeEdit('write-terminals', {
    strip_id: strip.id,
    cells: [...cells.values()] as {
      unit: number
      number?: string
      terminal_kind?: TerminalKind
      remark?: string
    }[],
  })
}

export function StripTable({ strip, canEdit, held }: Props) {
  const { send, projectId, say } = usePick('send', 'projectId', 'say')
  const navigate = useNavigate()
  const places = usePlaces().data?.locations
  const rows = useMemo(() => strip.rows.map((r) => ({ ...r, id: r.key })), [strip.rows])
  const byKey = useMemo(() => new Map(rows.map((r) => [r.key, r])), [rows])
  const columns = useMemo(
    () =>
      columnsOf(
        strip,
        canEdit,
        (places ?? []).map((p) => ({ id: p.id, name: p.name })),
      ),
    [strip, canEdit, places],
  )
  const change = (changes: CellChange[]) => {
    const lost = changes.find((c) => c.key === 'panel')
    const target = lost && byKey.get(lost.id)?.unknown[0]
    if (lost && target) {
      const { device_id, function_id } = target
      if (lost.value)
        void send({ kind: 'set-place', device_id, function_id, location_id: lost.value, keep_tag: true })
      return
    }
    void send(editOf(strip, byKey, changes))
  }
  const reorder = (ids: string[], before: Line | undefined) => {
    const left = rows.filter((r) => !ids.includes(r.key))
    const at = before ? left.findIndex((r) => r.key === before.key) : left.length
    movePlaces(strip, ids, { to: at < 0 ? left.length : at })
  }
  return (
    <Grid
      name={`Terminals of ${strip.tag}`}
      follow
      rows={rows}
      columns={columns}
      selected={held.chosen}
      onSelect={(ids) => held.choose(new Set(ids))}
      onChange={change}
      onProblem={(words) => say(words, 'error')}
      onReorder={canEdit ? reorder : undefined}
      onOpen={(row) => {
        if (row.sheet_id) void navigate(`/p/${projectId}/draw/${row.sheet_id}?sel=${row.symbol_id}`)
      }}
    />
  )
}
