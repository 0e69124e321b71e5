/** A list to look at: groups with their sums, a word for what is blank, and each row a step from its object. */
import Box from '@mui/material/Box'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { LongRows } from '../../kit/LongRows'
import { useProject } from '../../project/store'
import { COPPER, QUIET, TEAL } from '../../theme/theme'
import type { ListValue } from './shapes'

type Row = ListValue['groups'][number]['rows'][number]
type Line =
  | { kind: 'group'; id: string; title: string }
  | { kind: 'row'; id: string; row: Row }
  | { kind: 'sums'; id: string; cells: ListValue['sums'] }

function linesOf(list: ListValue): Line[] {
  const lines: Line[] = []
  list.groups.forEach((group, g) => {
    if (group.title) lines.push({ kind: 'group', id: `g${g}`, title: group.title })
    group.rows.forEach((row, r) => lines.push({ kind: 'row', id: `g${g}r${r}`, row }))
    if (group.title && group.sums.length) lines.push({ kind: 'sums', id: `s${g}`, cells: group.sums })
  })
  if (list.sums.length) lines.push({ kind: 'sums', id: 'sums', cells: list.sums })
  return lines
}

/** Money has two to four decimals: the price of a foot of cable is no whole number of cents. */
const money = (sum: number) => sum.toFixed(4).replace(/(\.\d\d\d*?)0+$/, '$1')

const words = (cell: string | number, paid?: boolean) =>
  typeof cell !== 'number' ? cell : paid ? money(cell) : String(Math.round(cell * 1e6) / 1e6)

export function ListTable({ list, label }: { list: ListValue; label: string }) {
  const lines = useMemo(() => linesOf(list), [list])
  const shown = list.groups.reduce((n, g) => n + g.rows.length, 0)
  const columns = list.columns.map((c) =>
    c.number ? { name: c.heading, align: 'right' as const } : { name: c.heading },
  )
  return (
    <Box sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
      {list.count === 0 && (
        <Box sx={{ p: 3, color: QUIET }}>Nothing to list: no row passes, or nothing is drawn yet.</Box>
      )}
      {list.count > 0 && (
        <LongRows label={label} columns={columns} rows={lines}>
          {(line) => <OneLine key={line.id} line={line} list={list} />}
        </LongRows>
      )}
      {list.foot.map((foot) => (
        <Box key={foot} role="note" sx={{ fontSize: 12.5, color: COPPER, px: 1.5, py: 0.25 }}>
          {foot}
        </Box>
      ))}
      {list.lacking && (
        <Box role="note" sx={{ fontSize: 12.5, color: COPPER, px: 1.5, py: 0.25 }}>
          The letters of the CSV have no {list.lacking.split('').join(', ')}: a question mark is written.
          Choose UTF-8 in the recipe.
        </Box>
      )}
      <Box sx={{ fontSize: 12, color: QUIET, px: 1.5, py: 0.5 }} data-testid="row-count">
        {list.count} row{list.count === 1 ? '' : 's'}
        {shown < list.count && `, the first ${shown} are shown; files have all`}
        {list.head && ` · head: ${list.head}`}
      </Box>
    </Box>
  )
}

function OneLine({ line, list }: { line: Line; list: ListValue }) {
  const projectId = useProject((s) => s.projectId)
  if (line.kind === 'group')
    return (
      <tr>
        <td colSpan={list.columns.length} style={{ fontWeight: 600, background: '#F6F1E7' }}>
          {line.title}
        </td>
      </tr>
    )
  const cells = line.kind === 'row' ? line.row.cells : line.cells
  const row = line.kind === 'row' ? line.row : null
  const said = cells.findIndex((cell) => cell !== '')
  return (
    <tr style={row ? undefined : { fontWeight: 600, background: '#FBF6EE' }} data-line={line.kind}>
      {cells.map((cell, n) => {
        const why = row?.whys[n]
        const to = row?.to ? `/p/${projectId}/${row.to}` : ''
        return (
          <td key={n} style={{ textAlign: list.columns[n]?.number ? 'right' : 'left' }}>
            {n === said && to ? (
              <Link to={to} style={{ color: TEAL }} title="Look at it">
                {words(cell)}
              </Link>
            ) : cell === '' && why ? (
              <span title={why} aria-label={why} style={{ color: COPPER, cursor: 'help' }}>
                –
              </span>
            ) : (
              words(cell, list.columns[n]?.money)
            )}
          </td>
        )
      })}
    </tr>
  )
}
