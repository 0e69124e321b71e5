/** Drawing channels again after the list changed: what would be added, changed and taken away is shown before. */
import { useState } from 'react'
import { makeEdit } from '../../api/client'
import { FormDialog } from '../../kit/FormDialog'
import { PanelPick } from '../../kit/Pick'
import { PreviewLines } from '../../kit/PreviewLines'
import { usePick } from '../../project/store'
import { usePreview } from '../../project/usePreview'
import type { IoView } from './shapes'
import type { Io } from './useIo'

export function AgainForm({ io, view, close }: { io: Io; view: IoView; close: () => void }) {
  const { send } = usePick('send')
  const [which, setWhich] = useState(io.about || 'all')
  const edit = makeEdit('redraw-channels', { device_ids: which === 'all' ? [] : [which] })
  const preview = usePreview(edit)
  const problem = preview.error instanceof Error ? preview.error.message : ''
  const draw = () => void send(edit).then((answer) => answer && close())
  return (
    <FormDialog
      title="Draw channels again"
      act="Draw again"
      enabled={!problem && preview.data !== undefined}
      close={close}
      onAct={draw}
    >
      <PanelPick
        label="Which cards"
        value={which}
        options={[
          { id: 'all', name: 'all cards' },
          ...view.cards.map((c) => ({ id: c.id, name: c.tag + (c.changes ? `, ${c.changes} changed` : '') })),
        ]}
        onPick={setWhich}
      />
      <PreviewLines
        name="What would change"
        problem={problem}
        lines={(preview.data?.table ?? []).map((row) => row.join(' '))}
        remarks={preview.data?.remarks ?? []}
      />
      <p style={{ fontSize: 12.5, margin: '8px 0 0' }}>
        What was moved, added or written by hand stays, and so does every sheet that was not drawn from the
        list.
      </p>
    </FormDialog>
  )
}
