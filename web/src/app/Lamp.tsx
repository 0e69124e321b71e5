/** The lamp in the top bar: whether what is done is with the server. */
import Box from '@mui/material/Box'
import Tooltip from '@mui/material/Tooltip'
import { useEffect, useState } from 'react'
import { useLine } from '../api/line'
import { lampOf } from './lampWords'

const RESTS_MS = 300 // an edit that is answered by then does not make it blink

export function Lamp() {
  const line = useLine()
  const [patient, setPatient] = useState(line)
  useEffect(() => {
    const timer = window.setTimeout(
      () => setPatient(line),
      line.state === 'in step' && line.waiting ? RESTS_MS : 0,
    )
    return () => window.clearTimeout(timer)
  }, [line])
  const { words, hint, colour } = lampOf(patient)
  return (
    <Tooltip title={hint}>
      <Box
        role="status"
        aria-label="Connection"
        sx={{ display: 'flex', alignItems: 'center', gap: 0.75, fontSize: 12.5, whiteSpace: 'nowrap' }}
      >
        <Box sx={{ width: 9, height: 9, borderRadius: '50%', bgcolor: colour, flex: 'none' }} />
        {patient.state === 'in step' && !patient.waiting ? <span className="lamp-rest">{words}</span> : words}
      </Box>
    </Tooltip>
  )
}
