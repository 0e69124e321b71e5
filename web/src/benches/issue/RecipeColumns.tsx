/** The columns of a recipe: chosen, put in order, called otherwise, and own ones joined from pieces. */
import Box from '@mui/material/Box'
import InputBase from '@mui/material/InputBase'
import { Act, Acts } from '../../kit/Act'
import { PanelPick } from '../../kit/Pick'
import { LINE, MONO } from '../../theme/theme'
import { columnName, type RecipeColumn, type ReportKind } from './shapes'

interface Props {
  report: ReportKind | undefined
  columns: RecipeColumn[]
  put: (columns: RecipeColumn[]) => void
}

export function RecipeColumns({ report, columns, put }: Props) {
  const left = (report?.columns ?? []).filter((c) => !columns.some((k) => k.key === c.key))
  const change = (n: number, column: RecipeColumn) => put(columns.map((c, i) => (i === n ? column : c)))
  const move = (n: number, by: number) => {
    const next = [...columns]
    const [taken] = next.splice(n, 1)
    if (taken) next.splice(n + by, 0, taken)
    put(next)
  }
  const own = () => {
    const used = columns.filter((c) => c.join !== undefined).length
    put([...columns, { heading: `Own ${used + 1}`, join: `{${report?.columns[0]?.key ?? ''}}` }])
  }
  return (
    <>
      {columns.map((column, n) => (
        <Column
          key={column.key ?? `own ${n}`}
          {...{ column, report }}
          last={n === columns.length - 1}
          first={n === 0}
          change={(next) => change(n, next)}
          move={(by) => move(n, by)}
          remove={() => put(columns.filter((_, i) => i !== n))}
        />
      ))}
      <PanelPick
        label="Add a column"
        value=""
        options={left.map((c) => ({ id: c.key, name: c.heading }))}
        disabled={!left.length}
        onPick={(key) => put([...columns, { key }])}
      />
      <Acts>
        <Act onClick={own} hint="Joined from other columns, such as {maker} {number}">
          Add an own column
        </Act>
      </Acts>
    </>
  )
}

interface ColumnProps {
  column: RecipeColumn
  report: ReportKind | undefined
  first: boolean
  last: boolean
  change: (column: RecipeColumn) => void
  move: (by: number) => void
  remove: () => void
}

const SMALL = {
  fontSize: 12.5,
  bgcolor: '#fff',
  px: 0.75,
  border: `1px solid ${LINE}`,
  borderRadius: 1,
} as const

function Column({ column, report, first, last, change, move, remove }: ColumnProps) {
  const name = columnName(report, column)
  const own = column.join !== undefined
  const usual = report?.columns.find((c) => c.key === column.key)?.heading ?? ''
  return (
    <Box role="group" aria-label={`Column ${name}`} sx={{ mb: 0.5 }}>
      <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'center' }}>
        <InputBase
          sx={{ ...SMALL, flex: 1 }}
          value={own ? (column.heading ?? '') : (column.heading ?? usual)}
          inputProps={{ 'aria-label': `Heading of ${own ? 'own column' : usual}` }}
          onChange={(e) => change({ ...column, heading: e.target.value })}
        />
        <Act disabled={first} name={`${name} earlier`} onClick={() => move(-1)}>
          ↑
        </Act>
        <Act disabled={last} name={`${name} later`} onClick={() => move(1)}>
          ↓
        </Act>
        <Act name={`Leave out ${name}`} onClick={remove}>
          ×
        </Act>
      </Box>
      {own && (
        <InputBase
          fullWidth
          sx={{ ...SMALL, mt: 0.25, fontFamily: MONO }}
          value={column.join ?? ''}
          inputProps={{ 'aria-label': `Pieces of ${name}` }}
          onChange={(e) => change({ ...column, join: e.target.value })}
        />
      )}
    </Box>
  )
}
