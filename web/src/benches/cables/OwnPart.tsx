/** A cable part made on the spot, and keeping a project's cable in the library. */
import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import TextField from '@mui/material/TextField'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { client, got, makeEdit, wordsOf } from '../../api/client'
import { Act, Acts } from '../../kit/Act'
import { lengthIn, noLength } from '../../kit/lengths'
import { PanelPick } from '../../kit/Pick'
import { usePick } from '../../project/store'
import { useLengths } from '../../project/useLengths'
import { QUIET } from '../../theme/theme'
import type { Cable } from './shapes'

const START = { maker: '', number: '', text: '', cores: '', diameter: '', shielded: false }

export function OwnPart({ cable }: { cable: Cable }) {
  const [open, setOpen] = useState<'' | 'make' | 'keep'>('')
  const close = () => setOpen('')
  if (open === 'make') return <MakePart cable={cable} close={close} />
  if (open === 'keep' && cable.part) return <KeepPart partId={cable.part.id} close={close} />
  return (
    <Acts>
      <Act onClick={() => setOpen('make')}>New cable part…</Act>
      {cable.part && (
        <Act onClick={() => setOpen('keep')} hint="With all its cores and spares">
          Keep it in the library…
        </Act>
      )}
    </Acts>
  )
}

function MakePart({ cable, close }: { cable: Cable; close: () => void }) {
  const { send, say } = usePick('send', 'say')
  const { short } = useLengths()
  const [w, setW] = useState(START)
  const typed = (name: keyof typeof START, label: string, hint = '') => (
    <TextField
      {...{ label, fullWidth: true, margin: 'dense', placeholder: hint, value: w[name] }}
      onChange={(e) => setW({ ...w, [name]: e.target.value })}
    />
  )
  const make = () => {
    const outer_diameter_mm = w.diameter.trim() ? lengthIn(w.diameter, short) : 0
    if (outer_diameter_mm === null) return say(noLength(w.diameter, short), 'error')
    const { maker, number, text, cores, shielded } = w
    const edit = makeEdit('make-cable-part', {
      ...{ device_id: cable.id, maker, number, text, cores, shielded, outer_diameter_mm },
    })
    void send(edit).then((answer) => answer && close())
  }
  return (
    <Box
      component="form"
      aria-label="New cable part"
      onSubmit={(e: React.FormEvent) => {
        e.preventDefault()
        make()
      }}
    >
      {typed('maker', 'Maker')}
      {typed('number', 'Part number')}
      {typed('cores', 'Cores', '7G1.5, 4x2x0.5, 3xAWG16')}
      {typed('text', 'Description')}
      {typed('diameter', `Outer diameter, ${short}`)}
      <FormControlLabel
        control={
          <Checkbox checked={w.shielded} onChange={(e) => setW({ ...w, shielded: e.target.checked })} />
        }
        label="Shielded"
      />
      <Acts>
        <Act disabled={!w.maker.trim() || !w.number.trim() || !w.cores.trim()} onClick={make}>
          Make it
        </Act>
        <Act onClick={close}>Cancel</Act>
      </Acts>
    </Box>
  )
}

function KeepPart({ partId, close }: { partId: string; close: () => void }) {
  const { projectId, say } = usePick('projectId', 'say')
  const shelves = useQuery({ queryKey: ['shelves'], queryFn: () => got(client.GET('/api/library/shelves')) })
  const open = (shelves.data ?? []).filter((s) => s.may_change)
  const [shelf, setShelf] = useState('')
  const chosen = shelf || (open[0]?.id ?? '')
  const keep = () => {
    const path = { project_id: projectId, part_id: partId }
    got(
      client.POST('/api/projects/{project_id}/parts/{part_id}/keep', {
        params: { path },
        body: { shelf: chosen },
      }),
    ).then(
      (number) => {
        say(`${number} is in the library.`)
        close()
      },
      (error: unknown) => say(wordsOf(error), 'error'),
    )
  }
  return (
    <>
      <PanelPick label="Library" value={chosen} options={open} onPick={setShelf} />
      {shelves.data && !open.length && (
        <Box sx={{ fontSize: 12.5, color: QUIET }}>There is no library that you may change.</Box>
      )}
      <Acts>
        <Act disabled={!chosen} onClick={keep}>
          Keep it there
        </Act>
        <Act onClick={close}>Cancel</Act>
      </Acts>
    </>
  )
}
