/** A stamp of the project changed after it was kept. */
import { StampForm } from './StampForm'
import type { StampLine } from './stampShapes'
import { usePick } from '../../project/store'

export function ChangeStamp({ stamp, close }: { stamp: StampLine; close: () => void }) {
  const { send } = usePick('send')
  return (
    <StampForm
      title="Change the stamp"
      verb="Save"
      first={stamp}
      things={stamp.things.map((t) => ({ id: t.id, kind: t.kind, label: t.name }))}
      onSave={({ name, text, questions }) =>
        void send({
          kind: 'change-stamp',
          stamp_id: stamp.id,
          name,
          text,
          questions: questions as never,
        }).then((answer) => answer && close())
      }
      onCancel={close}
    />
  )
}
