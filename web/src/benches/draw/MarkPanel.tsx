/** A continuation in the inspector: its name, what it may be paired with, where the others are. */
import { PanelPick } from '../../kit/Pick'
import Box from '@mui/material/Box'
import { useQuery } from '@tanstack/react-query'
import { client, got } from '../../api/client'
import type { Item } from '../../scene/item'
import { MONO, TEAL } from '../../theme/theme'
import { Field } from '../../kit/Field'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'

interface Props {
  mark: Item
  canEdit: boolean
  onGo: (id: string, sheet?: string) => void
}

export function MarkPanel({ mark, canEdit, onGo }: Props) {
  const { projectId, sheetId, revision, send } = usePick('projectId', 'sheetId', 'revision', 'send')
  const name = mark.facts.name ?? ''
  const others = useQuery({
    queryKey: ['marks', projectId, sheetId, revision],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/offers', {
          params: { path: { project_id: projectId }, query: { q: 'continuation', sheet_id: sheetId } },
        }),
      ),
  })
  const options = (others.data ?? []).filter((o) => o.text && o.text !== name)
  return (
    <>
      <Box sx={{ fontWeight: 600, mb: 0.5 }}>Continuation</Box>
      <Field
        label="Name, of all its ends"
        value={name}
        disabled={!canEdit}
        onSave={(typed) =>
          void send({ kind: 'rename-continuation', mark_id: mark.id, name: typed, alone: false })
        }
      />
      {mark.facts.number && (
        <Box sx={{ fontSize: 12.5 }}>
          Wire <span style={{ fontFamily: MONO }}>{mark.facts.number}</span>
        </Box>
      )}
      <PanelPick
        label="Pair this end with"
        value=""
        options={options.map(({ text = '', note }) => ({ id: text, name: `${text}, ${note}` }))}
        disabled={!canEdit || !options.length}
        onPick={(to) => void send({ kind: 'rename-continuation', mark_id: mark.id, name: to, alone: true })}
      />
      <Ends mark={mark} onGo={onGo} />
    </>
  )
}

interface EndsProps {
  mark: Item
  onGo: (id: string, sheet?: string) => void
}

function Ends({ mark, onGo }: EndsProps) {
  const { projectId, revision } = usePick('projectId', 'revision')
  const path = { project_id: projectId, entity_id: mark.id }
  const places = useQuery({
    queryKey: ['places', projectId, mark.id, revision],
    queryFn: () => got(client.GET('/api/projects/{project_id}/places/{entity_id}', { params: { path } })),
  })
  return (
    <Section title="Ends">
      {places.data?.map((p) => (
        <button
          key={p['id']}
          type="button"
          disabled={p['id'] === mark.id}
          onClick={() => onGo(p['id'] ?? '', p['sheet_id'])}
          style={{
            display: 'block',
            font: `12.5px ${MONO}`,
            color: p['id'] === mark.id ? undefined : TEAL,
            background: 'none',
            border: 0,
            padding: '2px 0',
            cursor: 'pointer',
          }}
        >
          {p['place']}
          {p['id'] === mark.id ? ' · here' : ''}
        </button>
      ))}
      <Box sx={{ fontSize: 11.5, color: 'text.secondary' }}>J jumps to the next one.</Box>
    </Section>
  )
}
