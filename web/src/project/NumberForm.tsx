/** Numbering a strip again, or what is chosen on it, with what would become of each number. */
import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import type { Schemas } from '../api/shapes'
import { makeEdit } from '../api/client'
import { PanelPick } from '../kit/Pick'
import { usePick } from './store'
import { usePreview } from './usePreview'
import { MONO, QUIET, SNAG } from '../theme/theme'
import { FormDialog } from '../kit/FormDialog'

interface Props {
  strip: Pick<Schemas['StripValue'], 'id' | 'tag' | 'numbering' | 'start' | 'step' | 'backward'>
  /** The terminals to number, all when there are none. */
  units: number[]
  close: () => void
}

type Way = 'order' | 'wire' | 'level'

const WAYS: { id: Way; name: string }[] = [
  { id: 'order', name: 'by order' },
  { id: 'level', name: 'by order, one level after the other' },
  { id: 'wire', name: 'by wire number' },
]
const STEPS = [
  { id: '1', name: 'every number' },
  { id: '2', name: 'every second: odd or even as the first' },
]

export function NumberForm({ strip, units, close }: Props) {
  const { send } = usePick('send')
  const [way, setWay] = useState<Way>(units.length ? 'order' : (strip.numbering as Way))
  const [start, setStart] = useState(String(strip.start))
  const [step, setStep] = useState(String(strip.step))
  const [backward, setBackward] = useState(!units.length && strip.backward)
  const [keep, setKeep] = useState(!units.length)
  const edit = makeEdit('number-terminals', {
    ...{ strip_id: strip.id, units, way, backward, keep_fixed: keep },
    start: Math.max(0, Math.floor(Number(start)) || 0),
    step: step === '2' ? 2 : 1,
  })
  const preview = usePreview(edit)
  const rows = preview.data?.table ?? []
  const problem = preview.error instanceof Error ? preview.error.message : ''
  const title = units.length ? `Number ${units.length} of ${strip.tag}` : `Number ${strip.tag} again`
  const number = () =>
    void send(edit).then((answer) => {
      if (answer) close()
    })
  return (
    <FormDialog title={title} act="Number" enabled={!problem} close={close} onAct={number}>
      <PanelPick label="How" value={way} options={WAYS} onPick={(id) => setWay(id as Way)} />
      {way !== 'wire' && (
        <>
          <TextField
            {...{ label: 'First number', type: 'number', fullWidth: true, margin: 'dense', value: start }}
            onChange={(e) => setStart(e.target.value)}
          />
          <PanelPick label="Which numbers" value={step} options={STEPS} onPick={setStep} />
          <FormControlLabel
            control={<Checkbox checked={backward} onChange={(e) => setBackward(e.target.checked)} />}
            label="From the other end"
          />
        </>
      )}
      <FormControlLabel
        control={<Checkbox checked={keep} onChange={(e) => setKeep(e.target.checked)} />}
        label="Keep numbers fixed by hand"
      />
      <Box
        aria-label="What would change"
        sx={{ maxHeight: 160, overflow: 'auto', fontFamily: MONO, fontSize: 12.5 }}
      >
        {problem && <span style={{ color: SNAG }}>{problem}</span>}
        {!problem && !rows.length && <span style={{ color: QUIET }}>No number would change.</span>}
        {!problem && rows.map(([now, then]) => <div key={`${now} ${then}`}>{`${now} → ${then}`}</div>)}
      </Box>
    </FormDialog>
  )
}
