/** A plain dense table for short lists, with a heading that stays. */
import Box from '@mui/material/Box'
import type { CSSProperties, ReactNode } from 'react'
import { LINE } from '../theme/theme'

interface Props {
  label: string
  columns: (string | { name: string; width?: number | string; align?: 'right' | 'center' })[]
  children: ReactNode
  /** How many rows there are, where not all are painted. */
  count?: number
}

export function Rows({ label, columns, children, count }: Props) {
  return (
    <Box
      component="table"
      aria-label={label}
      aria-rowcount={count}
      sx={{
        borderCollapse: 'collapse',
        width: '100%',
        bgcolor: '#fff',
        fontSize: 12.5,
        '& td, & th': { px: 1, py: 0.5, borderBottom: `1px solid ${LINE}`, verticalAlign: 'top' },
        '& th': {
          position: 'sticky',
          top: 0,
          zIndex: 1,
          bgcolor: '#F6F1E7',
          textAlign: 'left',
          fontSize: 11,
          fontWeight: 600,
          color: 'text.secondary',
          whiteSpace: 'nowrap',
        },
        '& tbody tr:hover': { bgcolor: '#FBF6EE' },
      }}
    >
      <thead>
        <tr>
          {columns.map((c, i) => {
            const column = typeof c === 'string' ? { name: c } : c
            const style: CSSProperties = { width: column.width, textAlign: column.align }
            return (
              <th key={i} style={style}>
                {column.name}
              </th>
            )
          })}
        </tr>
      </thead>
      <tbody>{children}</tbody>
    </Box>
  )
}
