/** The structure of the project after IEC 81346: functions (=) and locations (+) as trees. */
import Box from '@mui/material/Box'
import type { ReactNode } from 'react'
import { QUIET } from '../../theme/theme'
import { Bench } from '../../kit/Bench'
import { usePlaces } from '../../project/PlaceChoice'
import { Structure } from './Structure'

export function StructureSection({ list, canEdit }: { list: ReactNode; canEdit: boolean }) {
  const places = usePlaces()
  return (
    <Bench name="Brief" list={list}>
      <Box sx={{ flex: 1, overflow: 'auto', p: 2.5, pt: 0, maxWidth: 980 }}>
        <Structure
          kind="function"
          title="Functions (=)"
          note="What things are for; tags of one function run on their own."
          lines={places.data?.functions ?? []}
          canEdit={canEdit}
        />
        <Structure
          kind="location"
          title="Locations (+)"
          note="What a location is decides the sides of terminals, which wires are routed and which need a cable."
          lines={places.data?.locations ?? []}
          canEdit={canEdit}
        />
        <Box sx={{ color: QUIET, fontSize: 12, mt: 2 }}>
          Every tag, list and plan follows a change here at once; it can be taken back like any other edit.
        </Box>
      </Box>
    </Bench>
  )
}
