/** Which categories of wires are kept apart, each in lanes of its own. */
import Box from '@mui/material/Box'
import { useEffect, useState } from 'react'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'
import { useOutline } from '../../project/useOutline'
import { QUIET } from '../../theme/theme'
import { Categories, type Category } from './Categories'

export function KeptApart({ canEdit }: { canEdit: boolean }) {
  const { projectId, send } = usePick('projectId', 'send')
  const said = (useOutline(projectId).data?.settings.apart ?? []) as Category[]
  // What was just chosen counts until the project says so, too: two clicks may be quicker than one answer.
  const [chosen, setChosen] = useState<Category[] | null>(null)
  const known = said.join()
  useEffect(() => setChosen(null), [known])
  const apart = chosen ?? said
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
        onChange={(next) => {
          setChosen(next)
          void send({ kind: 'change-settings', apart: next })
        }}
      />
    </Section>
  )
}
