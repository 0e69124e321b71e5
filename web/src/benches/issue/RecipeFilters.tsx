/** What rows of a recipe have to pass: a column, a test, and a value; all of them. */
import Box from '@mui/material/Box'
import InputBase from '@mui/material/InputBase'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import { Act, Acts } from '../../kit/Act'
import { LINE } from '../../theme/theme'

type Filter = Record<string, string>

interface Props {
  filters: Filter[]
  columns: { id: string; name: string }[]
  tests: string[]
  without: string[]
  put: (filters: Filter[]) => void
}

const BOX = { fontSize: 12.5, bgcolor: '#fff', flex: 1, minWidth: 0 } as const

export function RecipeFilters({ filters, columns, tests, without, put }: Props) {
  const change = (n: number, values: Filter) =>
    put(filters.map((f, i) => (i === n ? { ...f, ...values } : f)))
  return (
    <>
      {filters.map((filter, n) => (
        <OneFilter
          key={n}
          {...{ n, filter, columns, tests, without }}
          change={(values) => change(n, values)}
          remove={() => put(filters.filter((_, i) => i !== n))}
        />
      ))}
      <Acts>
        <Act onClick={() => put([...filters, { column: columns[0]?.id ?? '', test: 'contains', value: '' }])}>
          Add a filter
        </Act>
      </Acts>
    </>
  )
}

interface OneProps {
  n: number
  filter: Filter
  columns: Props['columns']
  tests: string[]
  without: string[]
  change: (values: Filter) => void
  remove: () => void
}

function OneFilter({ n, filter, columns, tests, without, change, remove }: OneProps) {
  return (
    <Box role="group" aria-label={`Filter ${n + 1}`} sx={{ mb: 0.75 }}>
      <Box sx={{ display: 'flex', gap: 0.5 }}>
        <Select
          size="small"
          sx={BOX}
          value={filter.column ?? ''}
          SelectDisplayProps={{ 'aria-label': 'Column asked' }}
          onChange={(e) => change({ column: e.target.value })}
        >
          {columns.map((c) => (
            <MenuItem key={c.id} value={c.id}>
              {c.name}
            </MenuItem>
          ))}
        </Select>
        <Select
          size="small"
          sx={BOX}
          value={filter.test ?? ''}
          SelectDisplayProps={{ 'aria-label': 'What is asked' }}
          onChange={(e) => change({ test: e.target.value })}
        >
          {tests.map((t) => (
            <MenuItem key={t} value={t}>
              {t}
            </MenuItem>
          ))}
        </Select>
        <Act name={`Leave out filter ${n + 1}`} onClick={remove}>
          ×
        </Act>
      </Box>
      {!without.includes(filter.test ?? '') && (
        <InputBase
          fullWidth
          sx={{
            fontSize: 12.5,
            bgcolor: '#fff',
            mt: 0.25,
            px: 0.75,
            border: `1px solid ${LINE}`,
            borderRadius: 1,
          }}
          placeholder={filter.test === 'is one of' ? 'values with ; between them' : 'value'}
          inputProps={{ 'aria-label': 'Value asked' }}
          value={filter.value ?? ''}
          onChange={(e) => change({ value: e.target.value })}
        />
      )}
    </Box>
  )
}
