/** Gathering the field wires of chosen terminals into a cable: a new one, or one with cores to spare. */
import { useState } from 'react'
import { client, got, makeEdit } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { PanelPick } from '../../kit/Pick'
import { PartChoice } from '../../project/PartChoice'
import { usePick } from '../../project/store'
import { useBench } from '../../project/useBench'
import { uncabled } from './commands'
import { FormDialog } from './FormDialog'
import { terminalsOf, type Row, type Strip } from './shapes'

interface Props {
  strip: Strip
  chosen: Row[]
  close: () => void
}

const NEW = 'new'

export function GatherForm({ strip, chosen, close }: Props) {
  const { projectId, send } = usePick('projectId', 'send')
  const [into, setInto] = useState(NEW)
  const [part, setPart] = useState('')
  const view = useBench<Schemas['CablesView']>('cables', () =>
    got(client.GET('/api/projects/{project_id}/cables', { params: { path: { project_id: projectId } } })),
  )
  const keys = uncabled(terminalsOf(chosen))
  const spare = (view.data?.cables ?? []).filter((c) => c.spare >= keys.length)
  const gather = () =>
    void send(
      makeEdit('gather-wires', {
        keys,
        device_id: into === NEW ? '' : into,
        part_id: into === NEW ? part : '',
      }),
    ).then((answer) => {
      if (answer) close()
    })
  return (
    <FormDialog
      title={`Gather ${keys.length} field wires of ${strip.tag}`}
      act="Gather"
      enabled={keys.length > 0}
      close={close}
      onAct={gather}
    >
      <PanelPick
        label="Into"
        value={into}
        options={[
          { id: NEW, name: 'a new cable' },
          ...spare.map((c) => ({ id: c.id, name: `${c.tag}, ${c.spare} spare` })),
        ]}
        onPick={setInto}
      />
      {into === NEW && (
        <PartChoice label="Cable part" partClass="cable" value={part} onChoose={(p) => setPart(p.id)} />
      )}
    </FormDialog>
  )
}
