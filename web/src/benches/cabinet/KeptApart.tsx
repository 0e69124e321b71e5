/** Which categories of wires are kept apart, each in lanes of its own. */
import Box from '@mui/material/Box'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'
import { useOutline } from '../../project/useOutline'
import { QUIET } from '../../theme/theme'
import { Categories, type Category } from './Categories'

export function KeptApart({ canEdit }: { canEdit: boolean }) {
  const { projectId, send } = usePick('projectId', 'send')
  const apart = (useOutline(projectId).data?.settings.apart ?? []) as Category[]
  return (
    <Section title="Kept apart">
      <Box sx={{ fontSize: 12, color: QUIET }}>
        {apart.length > 1
          ? 'Each takes the lanes that are for it; choose ducts to say which.'
          : 'Choose two or more whose wires must not lie together.'}
      </Box>
      <Categories
        chosen={apart}
        canEdit={canEdit}
        onChange={(chosen) => void send({ kind: 'change-settings', apart: chosen })}
      />
    </Section>
  )
}
