/** Parts beside each other, field by field; those that differ stand out. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import FormControlLabel from '@mui/material/FormControlLabel'
import Switch from '@mui/material/Switch'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { client, got, wordsOf } from '../../api/client'
import { MONO, QUIET, SNAG } from '../../theme/theme'
import { Rows } from '../../kit/Rows'

export function Compared({ ids, close }: { ids: string[]; close: () => void }) {
  const [all, setAll] = useState(true)
  const found = useQuery({
    queryKey: ['compared', ids],
    queryFn: async () => await got(client.POST('/api/library/catalogue/compare', { body: { ids } })),
    retry: false,
  })
  if (found.error) return <Box sx={{ p: 2, color: SNAG }}>{wordsOf(found.error)}</Box>
  if (!found.data) return <Box sx={{ flex: 1 }} />
  const { parts, rows } = found.data
  return (
    <Box sx={{ flex: 1, minHeight: 0, overflow: 'auto', px: 2 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', mb: 0.5 }}>
        <Button onClick={close}>Back to the parts</Button>
        <FormControlLabel
          sx={{ ml: 1 }}
          control={<Switch size="small" checked={!all} onChange={(e) => setAll(!e.target.checked)} />}
          label={<span style={{ fontSize: 12.5 }}>only what differs</span>}
        />
      </Box>
      <Rows label="Parts compared" columns={['', ...parts.map((p) => p.number)]}>
        {rows
          .filter((row) => all || row.differs)
          .map((row) => (
            <tr key={row.field} style={{ background: row.differs ? '#FBEFE4' : undefined }}>
              <td style={{ color: QUIET, whiteSpace: 'nowrap' }}>{row.field}</td>
              {row.values.map((value, i) => (
                <td
                  key={parts[i]!.id}
                  style={{
                    fontWeight: row.differs ? 600 : 400,
                    fontFamily: row.field === 'Number' ? MONO : undefined,
                  }}
                >
                  {value || '—'}
                </td>
              ))}
            </tr>
          ))}
      </Rows>
    </Box>
  )
}
