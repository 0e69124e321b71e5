/** The first enclosure: which part, and where. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useState } from 'react'
import { Empty } from '../../kit/Bench'
import { PartChoice } from '../../project/PartChoice'
import { usePlaces } from '../../project/PlaceChoice'
import { useProject } from '../../project/store'

export function NewEnclosure({ canEdit }: { canEdit: boolean }) {
  const places = usePlaces()
  const [part, setPart] = useState('')
  const panel = places.data?.locations.find((l) => l.side === 'panel')
  const add = () =>
    void useProject.getState().send({
      kind: 'add-enclosure',
      part_id: part,
      function_id: places.data?.functions[0]?.id ?? '',
      location_id: panel?.id ?? '',
      text: '',
    })
  return (
    <Empty>
      No enclosure yet. Choose one with a mounting plate; then draw rails and ducts on it and put the devices
      of the tray on them.
      {canEdit && (
        <Box sx={{ maxWidth: 320, mt: 1 }}>
          <PartChoice
            label="Enclosure part"
            partClass="enclosure"
            value={part}
            onChoose={(p) => setPart(p.id)}
          />
          <Button variant="contained" disabled={!part} onClick={add}>
            Add the enclosure
          </Button>
        </Box>
      )}
    </Empty>
  )
}
