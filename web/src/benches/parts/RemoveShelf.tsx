/** Asks before a library goes, and says where its parts are used. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useQuery } from '@tanstack/react-query'
import { client, got } from '../../api/client'
import { LINE } from '../../theme/theme'

interface Props {
  shelf: { id: string; name: string; parts: number }
  onRemove: () => void
  onKeep: () => void
}

export function RemoveShelf({ shelf, onRemove, onKeep }: Props) {
  const uses = useQuery({
    queryKey: ['shelf-uses', shelf.id],
    queryFn: async () =>
      await got(
        client.GET('/api/library/shelves/{shelf_id}/uses', { params: { path: { shelf_id: shelf.id } } }),
      ),
  })
  const used = uses.data ?? []
  return (
    <Box
      role="alertdialog"
      aria-label={`Remove ${shelf.name}`}
      sx={{ border: `1px solid ${LINE}`, p: 1.5, my: 1 }}
    >
      <div>
        “{shelf.name}” has {shelf.parts} {shelf.parts === 1 ? 'part' : 'parts'}.{' '}
        {used.length > 0
          ? `Used in ${used.map((u) => `${u.name} (${u.parts})`).join(', ')}; projects keep their copies.`
          : uses.isSuccess
            ? 'None of them is used in a project of yours.'
            : ''}
      </div>
      <Box sx={{ mt: 1, display: 'flex', gap: 1 }}>
        <Button variant="contained" color="error" disabled={!uses.isSuccess} onClick={onRemove}>
          Remove the library and its parts
        </Button>
        <Button onClick={onKeep}>Keep it</Button>
      </Box>
    </Box>
  )
}
