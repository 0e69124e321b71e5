/** The chosen node: name, place in space, end of the trunk, legs of a splice, what is in a clip, side of a connector. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { Field } from '../../kit/Field'
import { PanelPick } from '../../kit/Pick'
import { Section } from '../../kit/Section'
import { Switched } from '../../kit/Switched'
import { usePick } from '../../project/store'
import { useLengths } from '../../project/useLengths'
import { MONO } from '../../theme/theme'
import { ClipPanel } from './ClipPanel'
import { lengthsIn, written } from './numbers'
import type { HarnessNode } from './shapes'

const SIDES = [
  { id: 'wire', name: 'wire side' },
  { id: 'mating', name: 'mating side' },
] as const

interface Props {
  node: HarnessNode
  canEdit: boolean
  onSelect: (id: string) => void
}

export function NodePanel({ node, canEdit, onSelect }: Props) {
  const { send } = usePick('send')
  const change = (values: {
    name?: string
    at?: number[]
    trunk_end?: boolean
    equal_legs?: boolean
    from_mating?: boolean
  }) => send({ kind: 'change-node', node_id: node.id, ...values })
  return (
    <Section title="Selected">
      <Box sx={{ fontFamily: MONO, fontWeight: 600 }}>{node.name}</Box>
      {!node.device_id && (
        <Field label="Name" value={node.own_name} disabled={!canEdit} onSave={(name) => change({ name })} />
      )}
      {node.sort === 'clip' && <ClipPanel {...{ node, canEdit }} />}
      <Place {...{ node, canEdit }} onPlace={(at) => change({ at })} />
      <Switched
        label="The trunk ends here"
        on={node.trunk_end}
        canEdit={canEdit}
        onSwitch={(trunk_end) => change({ trunk_end })}
      />
      {node.device_id && !node.splice && (
        <PanelPick
          label="Seen from"
          value={node.from_mating ? 'mating' : 'wire'}
          options={SIDES}
          disabled={!canEdit}
          onPick={(side) => change({ from_mating: side === 'mating' })}
        />
      )}
      {node.splice && (
        <Switched
          label="Legs cut equal"
          on={node.equal_legs}
          canEdit={canEdit}
          onSwitch={(equal_legs) => change({ equal_legs })}
        />
      )}
      {canEdit && (
        <Button onClick={() => void send({ kind: 'remove-node', node_id: node.id }).then(() => onSelect(''))}>
          Take out of the harness
        </Button>
      )}
    </Section>
  )
}

interface PlaceProps extends Pick<Props, 'node' | 'canEdit'> {
  onPlace: (at: number[]) => void
}

/** Where it is in space, typed. */
function Place({ node, canEdit, onPlace }: PlaceProps) {
  const { say } = usePick('say')
  const { short } = useLengths()
  const place = (typed: string) => {
    const at = lengthsIn(typed, short)
    if (at === null) say(`“${typed}” is no place. Type x y z.`, 'error')
    else onPlace(at)
  }
  return (
    <Field
      label={`In space, x y z ${short}`}
      value={written(node.at, short)}
      placeholder="no place yet"
      disabled={!canEdit}
      mono
      onSave={place}
    />
  )
}
