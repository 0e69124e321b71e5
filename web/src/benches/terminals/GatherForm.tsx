/** Gathering the field wires of chosen terminals into a cable: a new one, or one with cores to spare. */
import { useState } from 'react'
import { client, got, makeEdit } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { IntoCable, NEW_CABLE } from '../../project/IntoCable'
import { PartChoice } from '../../project/PartChoice'
import { usePick } from '../../project/store'
import { useBench } from '../../project/useBench'
import { uncabled } from './commands'
import { FormDialog } from '../../kit/FormDialog'
import { terminalsOf, type Row, type Strip } from './shapes'

interface Props {
  strip: Strip
  chosen: Row[]
  close: () => void
}

export function GatherForm({ strip, chosen, close }: Props) {
  const { projectId, send } = usePick('projectId', 'send')
  const [into, setInto] = useState(NEW_CABLE)
  const [part, setPart] = useState('')
  const view = useBench<Schemas['CablesView']>('cables', () =>
    got(client.GET('/api/projects/{project_id}/cables', { params: { path: { project_id: projectId } } })),
  )
  const keys = uncabled(terminalsOf(chosen))
  const gather = () =>
    void send(
      makeEdit('gather-wires', {
        keys,
        device_id: into === NEW_CABLE ? '' : into,
        part_id: into === NEW_CABLE ? part : '',
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
      <IntoCable cables={view.data?.cables ?? []} value={into} onPick={setInto} />
      {into === NEW_CABLE && (
        <PartChoice label="Cable part" partClass="cable" value={part} onChoose={(p) => setPart(p.id)} />
      )}
    </FormDialog>
  )
}
