/** Moving a card among the others: where to, and whether all are addressed anew by it; what changes is shown before. */
import { useState } from 'react'
import { makeEdit } from '../../api/client'
import { FormDialog } from '../../kit/FormDialog'
import { PanelPick } from '../../kit/Pick'
import { PreviewLines } from '../../kit/PreviewLines'
import { usePick } from '../../project/store'
import { usePreview } from '../../project/usePreview'
import type { IoView } from './shapes'
import type { Io } from './useIo'

export function MoveForm({ io, view, close }: { io: Io; view: IoView; close: () => void }) {
  const { send } = usePick('send')
  const others = view.cards.filter((c) => c.id !== io.about)
  const card = view.cards.find((c) => c.id === io.about)
  const [to, setTo] = useState('0')
  const [anew, setAnew] = useState('yes')
  const edit = makeEdit('move-cards', { device_ids: [io.about], to: Number(to), address: anew === 'yes' })
  const preview = usePreview(edit, card !== undefined)
  const problem = preview.error instanceof Error ? preview.error.message : ''
  const move = () => void send(edit).then((answer) => answer && close())
  return (
    <FormDialog
      title={`Move ${card?.tag ?? 'a card'}`}
      act="Move"
      enabled={!problem && preview.data !== undefined}
      close={close}
      onAct={move}
    >
      <PanelPick
        label="To"
        value={to}
        options={[
          { id: '0', name: 'the first place' },
          ...others.map((c, n) => ({ id: String(n + 1), name: `behind ${c.tag}` })),
        ]}
        onPick={setTo}
      />
      <PanelPick
        label="Addresses"
        value={anew}
        options={[
          { id: 'yes', name: 'one after another in the new order; fixed ones stay' },
          { id: 'no', name: 'every card keeps its own' },
        ]}
        onPick={setAnew}
      />
      <PreviewLines
        name="What would change"
        problem={problem}
        nothing="No address would change."
        lines={(preview.data?.table ?? []).map(([tag, now, then]) => `${tag}: ${now} → ${then}`)}
        remarks={preview.data?.remarks ?? []}
      />
    </FormDialog>
  )
}
