/** Many cores of a cable at once: how many, in which order of colours, of what size, with how many shields. */
import { Pick, plain } from '../../kit/Pick'
import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import TextField from '@mui/material/TextField'
import { useState, type Dispatch, type SetStateAction } from 'react'
import { wordsOf } from '../../api/client'
import { Act } from '../../kit/Act'
import { Section } from '../../kit/Section'
import { useProject } from '../../project/store'
import { draftStep, type Draft, type Kinds, type PartRecord } from './kinds'

interface Props {
  record: PartRecord
  kinds: Kinds
  set: Dispatch<SetStateAction<Draft>>
}

export function CoresFill({ record, kinds, set }: Props) {
  const [count, setCount] = useState('3')
  const [order, setOrder] = useState('numbered')
  const [section, setSection] = useState('')
  const [shields, setShields] = useState('0')
  const [protective, setProtective] = useState(true)
  const fill = () =>
    draftStep({
      act: 'cores',
      record,
      count: Number(count) || 0,
      order,
      protective,
      section,
      shields: Number(shields) || 0,
    }).then(
      (d) => set((old) => ({ ...old, ...d })),
      (error: unknown) => useProject.getState().say(wordsOf(error), 'error'),
    )
  return (
    <Section title="Cores anew">
      <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center', flexWrap: 'wrap' }}>
        <TextField
          label="Cores"
          value={count}
          onChange={(e) => setCount(e.target.value)}
          sx={{ width: 70 }}
        />
        <Pick
          label="Named by"
          value={order}
          options={plain(['numbered', ...kinds.core_orders])}
          onPick={setOrder}
          sx={{ width: 140 }}
        />
        <TextField
          label="mm² each"
          value={section}
          onChange={(e) => setSection(e.target.value)}
          sx={{ width: 84 }}
        />
        <TextField
          label="Shields"
          value={shields}
          onChange={(e) => setShields(e.target.value)}
          sx={{ width: 74 }}
        />
        <FormControlLabel
          control={
            <Checkbox size="small" checked={protective} onChange={(e) => setProtective(e.target.checked)} />
          }
          label="with GNYE"
          slotProps={{ typography: { sx: { fontSize: 12.5 } } }}
        />
        <Act onClick={() => void fill()}>Fill</Act>
      </Box>
    </Section>
  )
}
