/** Moving what is chosen to another strip or a new one, or putting the whole strip together with another. */
import { useState } from 'react'
import { PanelPick } from '../../kit/Pick'
import { usePick } from '../../project/store'
import { FormDialog } from '../../kit/FormDialog'
import { terminalsOf, type Row, type Strip, type StripLine } from './shapes'
import { counted } from '../../kit/counted'

interface Props {
  strip: Strip
  strips: StripLine[]
  chosen: Row[]
  all: boolean
  close: () => void
  go: (id: string) => void
}

const NEW = 'new'

export function MoveForm({ strip, strips, chosen, all, close, go }: Props) {
  const { send } = usePick('send')
  const others = strips
    .filter((s) => s.id !== strip.id)
    .map((s) => ({ id: s.id, name: `${s.tag} ${s.text}`.trim() }))
  const options = all ? others : [{ id: NEW, name: 'a new strip at the same place' }, ...others]
  const [to, setTo] = useState(options[0]?.id ?? '')
  const units = terminalsOf(chosen).map((r) => r.unit)
  const title = all
    ? `Put ${strip.tag} together with`
    : `Move ${counted(units.length, 'terminal')} of ${strip.tag}`
  const move = () =>
    void send(
      all
        ? { kind: 'merge-strips', strip_id: strip.id, into_id: to }
        : { kind: 'move-terminals', strip_id: strip.id, units, to_strip_id: to === NEW ? '' : to },
    ).then((answer) => {
      if (!answer) return
      close()
      if (answer.placed[0]) go(answer.placed[0])
    })
  return (
    <FormDialog
      title={title}
      act={all ? 'Put together' : 'Move'}
      enabled={to !== ''}
      close={close}
      onAct={move}
    >
      <PanelPick label={all ? 'Strip it is put behind' : 'To'} value={to} options={options} onPick={setTo} />
      {!options.length && 'There is no other strip yet.'}
    </FormDialog>
  )
}
