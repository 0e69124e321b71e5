/** Putting in terminals that are drawn later, or brackets, plates and markers, beside what is chosen. */
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { makeEdit, type AnyEdit } from '../../api/client'
import { PanelPick } from '../../kit/Pick'
import { PartChoice } from '../../project/PartChoice'
import { usePick } from '../../project/store'
import { FormDialog } from '../../kit/FormDialog'
import { KINDS, type Row, type Strip, type TerminalKind } from './shapes'

interface Props {
  strip: Strip
  chosen: Row[]
  close: () => void
}

const WHAT = [
  ...KINDS.map((k) => ({ id: k.id as string, name: `${k.name} terminal` })),
  { id: 'levels', name: 'terminal of several levels' },
  { id: 'distribution', name: 'distribution: bridged terminals' },
  { id: 'spare', name: 'spare terminal' },
  { id: 'end-bracket', name: 'end bracket' },
  { id: 'plate', name: 'partition plate' },
  { id: 'marker', name: 'marker' },
]
const ACCESSORIES = ['end-bracket', 'plate', 'marker']

interface Wanted {
  what: string
  count: number
  levels: number
  side: 'before' | 'after'
  part: string
}

function editOf(strip: Strip, at: string, w: Wanted): AnyEdit {
  const { side } = w
  if (ACCESSORIES.includes(w.what)) {
    const accessory = w.what as 'end-bracket' | 'plate' | 'marker'
    return makeEdit('add-strip-accessory', { strip_id: strip.id, accessory, at, side, part_id: w.part })
  }
  const kind = KINDS.some((k) => k.id === w.what) ? (w.what as TerminalKind) : 'feed-through'
  return makeEdit('plan-terminals', {
    ...{ strip_id: strip.id, at, side, count: w.count, terminal_kind: kind, part_id: w.part },
    levels: w.what === 'levels' ? w.levels : 1,
    spare: w.what === 'spare',
    bridged: w.what === 'distribution',
  })
}

export function PutIn({ strip, chosen, close }: Props) {
  const { send } = usePick('send')
  const [w, set] = useState<Wanted>({ what: 'feed-through', count: 1, levels: 2, side: 'after', part: '' })
  const beside = w.side === 'before' ? chosen[0] : chosen.at(-1)
  const put = () =>
    send(editOf(strip, beside?.key ?? '', w)).then((answer) => {
      if (answer) close()
    })
  const terminal = !ACCESSORIES.includes(w.what)
  const where = beside ? beside.number : ''
  const sides = [
    { id: 'before', name: where ? `before ${where}` : 'before' },
    { id: 'after', name: where ? `after ${where}` : 'at the end' },
  ]
  return (
    <FormDialog title={`Put in on ${strip.tag}`} act="Put in" close={close} onAct={put}>
      <PanelPick
        label="What"
        value={w.what}
        options={WHAT}
        onPick={(what) => set({ ...w, what, part: '' })}
      />
      {terminal && (
        <TextField
          {...{ label: 'How many', type: 'number', fullWidth: true, margin: 'dense', value: w.count }}
          slotProps={{ htmlInput: { min: 1, max: 500 } }}
          onChange={(e) => set({ ...w, count: Math.max(1, Number(e.target.value)) })}
        />
      )}
      {w.what === 'levels' && (
        <TextField
          {...{ label: 'Levels', type: 'number', fullWidth: true, margin: 'dense', value: w.levels }}
          slotProps={{ htmlInput: { min: 2, max: 8 } }}
          onChange={(e) => set({ ...w, levels: Math.max(2, Number(e.target.value)) })}
        />
      )}
      {chosen.length > 0 && (
        <PanelPick
          label="Where"
          value={w.side}
          options={sides}
          onPick={(side) => set({ ...w, side: side as 'before' | 'after' })}
        />
      )}
      <PartChoice
        key={w.what}
        label={terminal ? 'Part, if another than the strip’s' : 'Part'}
        partClass={terminal ? 'terminal' : 'strip-accessory'}
        filters={terminal && KINDS.slice(1).some((k) => k.id === w.what) ? `terminal_kind=${w.what}` : ''}
        value={w.part}
        onChoose={(p) => set({ ...w, part: p.id })}
      />
    </FormDialog>
  )
}
