/** Kept layouts: one is chosen, put down by a click, kept in the library, or taken out. */
import { held } from '../../kit/held'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import FormControlLabel from '@mui/material/FormControlLabel'
import Switch from '@mui/material/Switch'
import { useQueryClient } from '@tanstack/react-query'
import { client, got, wordsOf } from '../../api/client'
import { Act, Acts } from '../../kit/Act'
import { Heading } from '../../kit/Bench'
import { usePick } from '../../project/store'
import { useLengths } from '../../project/useLengths'
import { QUIET } from '../../theme/theme'
import type { LayoutStamp } from './shapes'
import { CHOOSE } from './planTool'
import type { State } from './useCabinet'

interface Props {
  stamps: LayoutStamp[]
  state: State
  canEdit: boolean
}

export function LayoutStamps({ stamps, state, canEdit }: Props) {
  const { bare } = useLengths()
  const { tool, setTool, surface } = state
  // What was kept from a door goes onto doors, the rest onto any other surface.
  const mine = stamps.filter((s) => (s.surface === 'door') === (surface === 'door'))
  if (!mine.length || !canEdit) return null
  const inHand = held(tool, 'stamp')?.id ?? ''
  const chosen = mine.find((s) => s.id === inHand)
  return (
    <Box component="section" aria-label="Layout stamps" sx={{ mt: 2 }}>
      <Heading>Layout stamps</Heading>
      {mine.map((s) => (
        <Button
          key={s.id}
          fullWidth
          aria-pressed={s.id === inHand}
          variant={s.id === inHand ? 'outlined' : 'text'}
          sx={{ display: 'block', textAlign: 'left', lineHeight: 1.3, overflowWrap: 'anywhere' }}
          onClick={() => setTool(s.id === inHand ? CHOOSE : { name: 'stamp', id: s.id })}
        >
          {s.name}
          <span style={{ display: 'block', fontSize: 11.5, color: QUIET }}>
            {bare(Math.round(s.width))} × {bare(Math.round(s.height))}, {s.places}{' '}
            {s.places === 1 ? 'device' : 'devices'}
            {s.origin === 'library' && ', of the library'}
          </span>
        </Button>
      ))}
      {chosen && (
        <>
          <FormControlLabel
            control={
              <Switch
                size="small"
                checked={state.planning}
                onChange={(e) => state.setPlanning(e.target.checked)}
              />
            }
            label={<span style={{ fontSize: 12 }}>Plan devices where none waits</span>}
          />
          <StampActs stamp={chosen} leave={() => setTool(CHOOSE)} />
        </>
      )}
    </Box>
  )
}

function StampActs({ stamp, leave }: { stamp: LayoutStamp; leave: () => void }) {
  const { projectId, send, say } = usePick('projectId', 'send', 'say')
  const queries = useQueryClient()
  const path = { params: { path: { project_id: projectId, stamp_id: stamp.id } } }
  const at = '/api/projects/{project_id}/stamps/{stamp_id}'
  const failed = (error: unknown) => say(wordsOf(error), 'error')
  const keep = () =>
    void got(client.POST(`${at}/keep`, path)).then(
      () => say('Kept in the library, for every project.'),
      failed,
    )
  const drop = () => {
    leave()
    void got(client.DELETE(at, path)).then(() => queries.invalidateQueries(), failed)
  }
  const remove = () => {
    leave()
    void send({ kind: 'remove-stamp', stamp_id: stamp.id })
  }
  if (stamp.origin === 'library')
    return (
      <Acts>
        <Act onClick={drop}>Take out of the library</Act>
      </Acts>
    )
  return (
    <Acts>
      <Act onClick={keep}>Keep in the library</Act>
      <Act onClick={remove}>Remove</Act>
    </Acts>
  )
}
