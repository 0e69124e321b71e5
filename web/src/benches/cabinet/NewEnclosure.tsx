/** A new enclosure: which part, and where. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useState } from 'react'
import { Empty } from '../../kit/Bench'
import { PanelPick } from '../../kit/Pick'
import { PartChoice } from '../../project/PartChoice'
import { usePlaces } from '../../project/PlaceChoice'
import { useProject } from '../../project/store'

interface Props {
  /** Called with the enclosure that was made, "" when none was. */
  onAdded: (id: string) => void
}

export function AddEnclosure({ onAdded }: Props) {
  const places = usePlaces()
  const [part, setPart] = useState('')
  const [location, setLocation] = useState('')
  const panels = (places.data?.locations ?? []).filter((l) => l.side === 'panel')
  const place = location || panels[0]?.id || ''
  const add = async () => {
    const answer = await useProject.getState().send({
      kind: 'add-enclosure',
      part_id: part,
      function_id: places.data?.functions[0]?.id ?? '',
      location_id: place,
      text: '',
    })
    if (answer) onAdded(answer.placed[0] ?? '')
  }
  return (
    <Box component="section" aria-label="New enclosure" sx={{ maxWidth: 320, mt: 1 }}>
      <PartChoice label="Enclosure part" partClass="enclosure" value={part} onChoose={(p) => setPart(p.id)} />
      {panels.length > 1 && (
        <PanelPick
          label="Where it stands"
          value={place}
          options={panels.map((l) => ({ id: l.id, name: l.name }))}
          onPick={setLocation}
        />
      )}
      <Button variant="contained" disabled={!part} onClick={() => void add()}>
        Add the enclosure
      </Button>
      <Button onClick={() => onAdded('')}>Leave</Button>
    </Box>
  )
}

export function NewEnclosure({ canEdit }: { canEdit: boolean }) {
  return (
    <Empty>
      No enclosure yet. Choose one with a mounting plate; then draw rails and ducts on it and put the devices
      of the tray on them.
      {canEdit && <AddEnclosure onAdded={() => undefined} />}
    </Empty>
  )
}
