/** A dense table of many rows of one height: beyond a few, only those in view are painted. */
import Box from '@mui/material/Box'
import { useRef, useState, type ReactNode } from 'react'
import { Rows } from './Rows'
import { useHeight } from './useHeight'

interface Props<T> {
  label: string
  columns: Parameters<typeof Rows>[0]['columns']
  rows: T[]
  children: (row: T) => ReactNode
}

/** So many rows are painted all at once: a short list is searched and read as a whole. */
const FEW = 120
const ROW_PX = 27
/** Rows painted above and below those in view. */
const BEYOND = 12

export function LongRows<T>({ label, columns, rows, children }: Props<T>) {
  const frame = useRef<HTMLDivElement>(null)
  const [first, setFirst] = useState(0)
  const tall = useHeight(frame, 200)
  const all = rows.length <= FEW
  const from = all ? 0 : Math.max(0, Math.min(first, rows.length) - BEYOND)
  const to = all ? rows.length : Math.min(rows.length, first + Math.ceil(tall / ROW_PX) + BEYOND)
  return (
    <Box
      ref={frame}
      onScroll={(e) => setFirst(Math.floor(e.currentTarget.scrollTop / ROW_PX))}
      sx={{ flex: 1, overflow: 'auto', ...(all ? {} : { '& tbody td': { whiteSpace: 'nowrap' } }) }}
    >
      <Rows label={label} columns={columns} count={rows.length}>
        <Gap rows={from} />
        {rows.slice(from, to).map(children)}
        <Gap rows={rows.length - to} />
      </Rows>
    </Box>
  )
}

/** The room of rows that are not painted. */
function Gap({ rows }: { rows: number }) {
  if (!rows) return null
  return (
    <tr aria-hidden>
      <td style={{ height: rows * ROW_PX, padding: 0, border: 0 }} />
    </tr>
  )
}
