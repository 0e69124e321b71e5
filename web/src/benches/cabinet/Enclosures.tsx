/** The enclosures of the project, adding one, and laying one out like another. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useState } from 'react'
import { Choice, Heading } from '../../kit/Bench'
import { MONO, QUIET } from '../../theme/theme'
import { AddEnclosure } from './NewEnclosure'
import type { CabinetView } from './shapes'

interface Props {
  all: CabinetView['enclosures']
  chosen: string
  canEdit: boolean
  choose: (id: string) => void
}

export function Enclosures({ all, chosen, canEdit, choose }: Props) {
  const [adding, setAdding] = useState(false)
  return (
    <Box component="section" aria-label="Enclosures">
      <Heading>Enclosures</Heading>
      {all.map((e) => (
        <Choice key={e.id} chosen={e.id === chosen} onClick={() => choose(e.id)}>
          <span style={{ fontFamily: MONO, fontWeight: 600 }}>{e.tag}</span> {e.text}
          <div style={{ fontSize: 11.5, color: QUIET }}>{e.size}</div>
        </Choice>
      ))}
      {canEdit && !adding && <Button onClick={() => setAdding(true)}>Another enclosure…</Button>}
      {adding && (
        <AddEnclosure
          onAdded={(id) => {
            setAdding(false)
            if (id) choose(id)
          }}
        />
      )}
    </Box>
  )
}
