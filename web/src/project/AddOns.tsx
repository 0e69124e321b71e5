/** Further parts on a device, and what its part's maker names to go with it; with a title where there is any. */
import Box from '@mui/material/Box'
import { client, got } from '../api/client'
import { MONO, QUIET } from '../theme/theme'
import { Act } from '../kit/Act'
import { Section } from '../kit/Section'
import { useBench } from './useBench'
import { usePick } from './store'

interface Short {
  id: string
  number: string
  text: string
}

interface Props {
  deviceId: string
  canEdit: boolean
  title?: string
}

export function AddOns({ deviceId, canEdit, title }: Props) {
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
  const of = { device_id: deviceId }
  const offered = data.accessories.filter((p) => !data.on.some((o) => o.id === p.id))
  if (title && !data.on.length && !offered.length && !data.alternatives.length) return null
  const list = (
    <Box aria-label="Further parts" role="group" sx={{ mt: 0.5 }}>
      {data.on.map((part) => {
        const edit = () => void send({ kind: 'remove-part', ...of, part_id: part.id })
        return (
          <PartLine key={part.id} {...{ part, canEdit, edit }} act="Take off" hint="It is no longer on it" />
        )
      })}
      {offered.map((part) => {
        const edit = () => void send({ kind: 'add-part', ...of, part_id: part.id })
        return (
          <PartLine key={part.id} {...{ part, canEdit, edit }} act="Put on" hint="Its units become its own" />
        )
      })}
      {data.alternatives.map((part) => {
        const edit = () => void send({ kind: 'assign-part', ...of, part_id: part.id })
        return (
          <PartLine
            key={part.id}
            {...{ part, canEdit, edit }}
            act="Instead"
            hint="Give the device this part"
          />
        )
      })}
    </Box>
  )
  return title ? <Section title={title}>{list}</Section> : list
}

interface PartLineProps {
  part: Short
  canEdit: boolean
  act: string
  hint: string
  edit: () => void
}

function PartLine({ part, canEdit, act, hint, edit }: PartLineProps) {
  return (
    <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'center', fontSize: 12, py: 0.2 }}>
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
}
