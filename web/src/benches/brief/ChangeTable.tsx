/** What an edit would change, as a table, before it is made. */
import Box from '@mui/material/Box'
import { wordsOf, type AnyEdit } from '../../api/client'
import { MONO, QUIET } from '../../theme/theme'
import { Rows } from '../../kit/Rows'
import { usePreview } from '../../project/usePreview'

const MOST = 60

export function ChangeTable({ edit }: { edit: AnyEdit }) {
  const preview = usePreview(edit)
  if (preview.error) return <Box sx={{ fontSize: 12.5, color: QUIET, my: 1 }}>{wordsOf(preview.error)}</Box>
  const table = preview.data?.table ?? []
  const rows = table.slice(1)
  if (!preview.data) return null
  if (!rows.length) return <Box sx={{ fontSize: 12.5, color: QUIET, my: 1 }}>No number would change.</Box>
  return (
    <Box sx={{ my: 1, maxHeight: 260, overflow: 'auto' }}>
      <Box sx={{ fontSize: 12.5, mb: 0.5 }}>{rows.length} would change:</Box>
      <Rows label="What would change" columns={table[0]!}>
        {rows.slice(0, MOST).map((row, i) => (
          <tr key={i}>
            {row.map((cell, j) => (
              <td key={j} style={{ fontFamily: MONO, fontSize: 12 }}>
                {cell}
              </td>
            ))}
          </tr>
        ))}
      </Rows>
      {rows.length > MOST && <Box sx={{ fontSize: 12, color: QUIET }}>… and {rows.length - MOST} more</Box>}
    </Box>
  )
}
