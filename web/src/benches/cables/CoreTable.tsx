/** The cores of a cable as a table: what each serves, from where to where; dragged onto another they are exchanged. */
import { useMemo } from 'react'
import { useNavigate } from 'react-router'
import { makeEdit } from '../../api/client'
import { Grid } from '../../kit/Grid'
import type { Column } from '../../kit/gridData'
import { usePick } from '../../project/store'
import { COPPER, QUIET, SNAG } from '../../theme/theme'
import type { Cable, Core } from './shapes'

interface Props {
  cable: Cable
  canEdit: boolean
  chosen: Set<string>
  choose: (keys: Set<string>) => void
}

type Line = Core & { id: string }

const served = (row: Line) => (row.from ? row.from : row.kind === 'shield' ? 'shield' : 'spare')

const COLUMNS: Column<Line>[] = [
  { key: 'ordinal', name: 'No', width: 40, mono: true, text: (r) => (r.ordinal ? String(r.ordinal) : '') },
  {
    key: 'name',
    name: 'Core',
    width: 92,
    mono: true,
    text: (r) => r.name || 'none left',
    ink: (r) => (r.ordinal ? undefined : SNAG),
  },
  { key: 'pair', name: 'Pair', width: 48, text: (r) => r.pair },
  {
    key: 'from',
    name: 'From',
    width: 180,
    mono: true,
    text: served,
    ink: (r) => (r.from ? undefined : QUIET),
  },
  { key: 'to', name: 'To', width: 180, mono: true, text: (r) => r.to },
  { key: 'number', name: 'Wire', width: 80, mono: true, text: (r) => r.number },
  { key: 'type', name: 'Type', width: 110, text: (r) => r.type },
  { key: 'place', name: 'Sheet', width: 80, mono: true, text: (r) => r.place },
  { key: 'chosen', name: 'Order', width: 90, text: (r) => (r.chosen ? 'by hand' : ''), ink: () => COPPER },
]

export function CoreTable({ cable, canEdit, chosen, choose }: Props) {
  const { send, projectId } = usePick('send', 'projectId')
  const navigate = useNavigate()
  const rows = useMemo(
    () => cable.cores.map((c, n) => ({ ...c, id: c.ordinal ? `core:${c.ordinal}` : `none:${n}` })),
    [cable.cores],
  )
  const exchange = (ids: string[], before: Line | undefined) => {
    const first = rows.find((r) => r.id === ids[0])
    if (!first?.ordinal || !before?.ordinal || first.ordinal === before.ordinal) return
    void send(makeEdit('swap-cores', { device_id: cable.id, first: first.ordinal, second: before.ordinal }))
  }
  return (
    <Grid
      name={`Cores of ${cable.tag}`}
      follow
      rows={rows}
      columns={COLUMNS}
      selected={chosen}
      onSelect={(ids) => choose(new Set(ids))}
      onReorder={canEdit ? exchange : undefined}
      onOpen={(row) => {
        if (row.sheet_id) void navigate(`/p/${projectId}/draw/${row.sheet_id}?sel=${row.wire_id}`)
      }}
    />
  )
}
