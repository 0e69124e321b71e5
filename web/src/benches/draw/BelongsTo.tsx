/** Choosing the device a unit belongs to. */
import Box from '@mui/material/Box'
import { useQuery } from '@tanstack/react-query'
import { client, got } from '../../api/client'
import type { Item } from '../../scene/item'
import { LINE, MONO, QUIET, SNAG } from '../../theme/theme'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'

export function BelongsTo({ symbol, canEdit }: { symbol: Item; canEdit: boolean }) {
  const { projectId, sheetId, revision, send } = usePick('projectId', 'sheetId', 'revision', 'send')
  const found = useQuery({
    queryKey: ['candidates', projectId, sheetId, symbol.facts.definition, revision],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/candidates', {
          params: {
            path: { project_id: projectId },
            query: { definition: symbol.facts.definition ?? '', sheet_id: sheetId },
          },
        }),
      ),
  })
  return (
    <Section title="Belongs to">
      {!symbol.facts.device && <Box sx={{ color: SNAG, mb: 1 }}>No device yet. Choose one:</Box>}
      {found.data?.length === 0 && (
        <Box sx={{ color: 'text.secondary' }}>
          There is no device with such a unit. Place its coil or lead first.
        </Box>
      )}
      {found.data?.map((c) => (
        <Box
          key={c.id}
          component="button"
          disabled={!canEdit || c.id === symbol.facts.device}
          onClick={() => void send({ kind: 'belong-to', symbol_id: symbol.id, device_id: c.id })}
          sx={{
            display: 'flex',
            width: '100%',
            gap: 1,
            font: 'inherit',
            textAlign: 'left',
            bgcolor: '#fff',
            border: `1px solid ${LINE}`,
            mb: '-1px',
            px: 1,
            py: 0.5,
            cursor: 'pointer',
          }}
        >
          <b style={{ fontFamily: MONO }}>{c.tag}</b>
          <span style={{ flex: 1 }}>{c.text}</span>
          <span style={{ color: QUIET, fontSize: 12 }}>{c.pins || 'none free'}</span>
        </Box>
      ))}
    </Section>
  )
}
