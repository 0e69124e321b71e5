/** Sorting a strip, or what is chosen on it among its own places. */
import { useState } from 'react'
import { makeEdit } from '../../api/client'
import { PanelPick } from '../../kit/Pick'
import { usePick } from '../../project/store'
import { FormDialog } from '../../kit/FormDialog'
import { terminalsOf, type Row, type Strip } from './shapes'
import { counted } from '../../kit/counted'

interface Props {
  strip: Strip
  chosen: Row[]
  close: () => void
}

type By = 'number' | 'wire' | 'cable' | 'sheet' | 'place'

const WAYS: { id: By; name: string }[] = [
  { id: 'number', name: 'number' },
  { id: 'wire', name: 'wire number' },
  { id: 'cable', name: 'cable and core' },
  { id: 'sheet', name: 'place on the sheets' },
  { id: 'place', name: 'where it leads' },
]

export function SortForm({ strip, chosen, close }: Props) {
  const { send } = usePick('send')
  const [by, setBy] = useState<By>('cable')
  const few = terminalsOf(chosen)
  const units = few.length > 1 ? few.map((r) => r.unit) : []
  const title = units.length
    ? `Sort ${counted(units.length, 'terminal')} of ${strip.tag}`
    : `Sort ${strip.tag}`
  const sort = () =>
    void send(makeEdit('sort-strip', { strip_id: strip.id, by, units })).then((answer) => {
      if (answer) close()
    })
  return (
    <FormDialog title={title} act="Sort" close={close} onAct={sort}>
      <PanelPick label="By" value={by} options={WAYS} onPick={(id) => setBy(id as By)} />
    </FormDialog>
  )
}
