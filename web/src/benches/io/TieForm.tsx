/** Saying by hand which drawn input or output a point of the list is, where it could not be told by a tag. */
import { useState } from 'react'
import { FormDialog } from '../../kit/FormDialog'
import { PanelPick } from '../../kit/Pick'
import { usePick } from '../../project/store'
import type { IoView } from './shapes'
import type { Io } from './useIo'

export function TieForm({ io, view, close }: { io: Io; view: IoView; close: () => void }) {
  const { send } = usePick('send')
  const [id] = io.chosen
  const point = view.points.find((p) => p.id === id)
  const fitting = view.drawn.filter((d) => d.io_type === point?.io_type)
  const [symbol, setSymbol] = useState(fitting[0]?.symbol_id ?? '')
  const tie = () =>
    void send({ kind: 'tie-point', id: point?.id ?? '', symbol_id: symbol }).then(
      (answer) => answer && close(),
    )
  return (
    <FormDialog
      title={`Where ${point?.tag ?? 'the point'} is drawn`}
      act="That is it"
      enabled={symbol !== ''}
      close={close}
      onAct={tie}
    >
      <PanelPick
        label={`Drawn ${point?.io_type ?? ''} without a card`}
        value={symbol}
        options={fitting.map((d) => ({
          id: d.symbol_id,
          name: [d.place, d.device, d.text].filter(Boolean).join(' · '),
        }))}
        onPick={setSymbol}
      />
    </FormDialog>
  )
}
