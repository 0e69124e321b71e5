/** Further parts on a device, and what its part's maker names to go with it. */
import Box from '@mui/material/Box'
import { client, got } from '../../api/client'
import { MONO, QUIET } from '../../theme/theme'
import { Act } from '../../kit/Act'
import { useBench } from '../../project/useBench'
import { usePick } from '../../project/store'

interface Short {
  id: string
  number: string
  text: string
}

export function AddOns({ deviceId, canEdit }: { deviceId: string; canEdit: boolean }) {
  const { projectId, send } = usePick('projectId', 'send')
  const data = useBench<{ on: Short[]; accessories: Short[]; alternatives: Short[] }>(
    'add-ons',
    () =>
      got(
        client.GET('/api/projects/{project_id}/devices/{device_id}/add-ons', {
          params: { path: { project_id: projectId, device_id: deviceId } },
        }),
      ),
    [deviceId],
  ).data
  if (!data) return null
  const line = (part: Short, act: string, hint: string, edit: () => void) => (
    <Box
      key={`${act} ${part.id}`}
      sx={{ display: 'flex', gap: 0.5, alignItems: 'center', fontSize: 12, py: 0.2 }}
    >
      <span style={{ flex: 1, minWidth: 0 }} title={part.text}>
        <b style={{ fontFamily: MONO }}>{part.number}</b> <span style={{ color: QUIET }}>{part.text}</span>
      </span>
      {canEdit && (
        <Act hint={hint} onClick={edit}>
          {act}
        </Act>
      )}
    </Box>
  )
  return (
    <Box aria-label="Further parts" role="group" sx={{ mt: 0.5 }}>
      {data.on.map((p) =>
        line(
          p,
          'Take off',
          'It is no longer on the device',
          () => void send({ kind: 'remove-part', device_id: deviceId, part_id: p.id }),
        ),
      )}
      {data.accessories
        .filter((p) => !data.on.some((o) => o.id === p.id))
        .map((p) =>
          line(
            p,
            'Put on',
            'Its units become the device’s',
            () => void send({ kind: 'add-part', device_id: deviceId, part_id: p.id }),
          ),
        )}
      {data.alternatives.map((p) =>
        line(
          p,
          'Instead',
          'Give the device this part',
          () => void send({ kind: 'assign-part', device_id: deviceId, part_id: p.id }),
        ),
      )}
    </Box>
  )
}
