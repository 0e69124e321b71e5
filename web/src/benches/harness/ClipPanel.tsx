/** A clip: its part, and how wires are led through it, with the section across. */
import { Field } from '../../kit/Field'
import { PanelPick } from '../../kit/Pick'
import { StillPicture } from '../../kit/StillPicture'
import { PartChoice } from '../../project/PartChoice'
import { usePick } from '../../project/store'
import { useLengths } from '../../project/useLengths'
import { lengthsIn, written } from './numbers'
import type { HarnessNode } from './shapes'

const LEADS = [
  { id: '', name: 'packed by themselves' },
  { id: 'offsets', name: 'each at its offset' },
  { id: 'merged', name: 'all at one point' },
] as const

export function ClipPanel({ node, canEdit }: { node: HarnessNode; canEdit: boolean }) {
  const { send, say } = usePick('send', 'say')
  const { short } = useLengths()
  const move = (typed: string) => {
    const offsets = lengthsIn(typed, short)
    if (offsets === null) say(`“${typed}” is no list of offsets. Type x y for each wire, ${short}.`, 'error')
    else void send({ kind: 'change-node', node_id: node.id, offsets })
  }
  return (
    <>
      {canEdit && (
        <PartChoice
          label="Clip"
          partClass="harness-clip"
          value={node.part_id}
          now={node.part_id ? { id: node.part_id, number: node.part, text: '' } : null}
          onChoose={(p) => void send({ kind: 'change-node', node_id: node.id, part_id: p.id })}
        />
      )}
      <PanelPick
        label="Wires in it"
        value={node.led}
        options={LEADS}
        disabled={!canEdit}
        onPick={(led) => void send({ kind: 'change-node', node_id: node.id, led: led as typeof node.led })}
      />
      {node.led === 'offsets' && (
        <Field
          label={`Offsets, x y for each, ${short}`}
          value={written(node.offsets, short, 2)}
          disabled={!canEdit}
          mono
          onSave={move}
        />
      )}
      {node.section && <StillPicture scene={node.section} label={`Section of ${node.name}`} />}
    </>
  )
}
