/** Every row of a list that was read: what it would do, what is wrong in it, its cells by field. */
import { useMemo, useState } from 'react'
import { Grid } from '../../kit/Grid'
import type { Column } from '../../kit/gridData'
import { COPPER, QUIET, SNAG } from '../../theme/theme'
import type { ListRead } from './shapes'

type Line = ListRead['rows'][number] & { id: string; why: string }

const CHANGES = { added: 'new', changed: 'changed', same: 'as it is', faulty: 'faulty' }
const INKS = { added: COPPER, changed: COPPER, same: QUIET, faulty: SNAG }

export function CheckTable({ read }: { read: ListRead }) {
  const [selected, select] = useState<Set<string>>(new Set())
  const rows = useMemo(() => {
    const whys = new Map<number, string[]>()
    for (const f of read.faults) whys.set(f.row, [...(whys.get(f.row) ?? []), `${f.column}: ${f.why}`])
    return read.rows.map((r) => ({ ...r, id: String(r.row), why: (whys.get(r.row) ?? []).join(' ') }))
  }, [read])
  const columns = useMemo(() => {
    const held = read.fields.filter((f) => read.columns.some((c) => c.key === f.key))
    const said = held.map((f): Column<Line> => ({
      key: f.key,
      name: f.heading,
      width: f.key === 'text' ? 170 : 90,
      mono: f.key === 'tag',
      text: (r) => r.cells[f.key] ?? '',
      ink: (r) => (r.changed.includes(f.key) ? COPPER : undefined),
    }))
    const first: Column<Line>[] = [
      { key: 'row', name: 'Row', width: 44, text: (r) => String(r.row) },
      { key: 'change', name: 'Is', width: 70, text: (r) => CHANGES[r.change], ink: (r) => INKS[r.change] },
      { key: 'why', name: 'What is wrong', width: 260, text: (r) => r.why, ink: () => SNAG },
    ]
    return [...first, ...said]
  }, [read])
  return (
    <Grid name="Rows of the file" {...{ rows, columns, selected }} onSelect={(ids) => select(new Set(ids))} />
  )
}
