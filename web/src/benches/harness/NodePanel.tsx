/** The chosen node: name, place in space, end of the trunk, legs of a splice, part of a clip. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import FormControlLabel from '@mui/material/FormControlLabel'
import Switch from '@mui/material/Switch'
import { Field } from '../../kit/Field'
import { Section } from '../../kit/Section'
import { PartChoice } from '../../project/PartChoice'
import { usePick } from '../../project/store'
import { MONO } from '../../theme/theme'
import { numbersIn, written } from './numbers'
import type { HarnessNode } from './shapes'

interface Props {
  node: HarnessNode
  canEdit: boolean
  onSelect: (id: string) => void
}

export function NodePanel({ node, canEdit, onSelect }: Props) {
  const { send, say } = usePick('send', 'say')
  const change = (values: {
    name?: string
    part_id?: string
    at?: number[]
    trunk_end?: boolean
    equal_legs?: boolean
  }) => void send({ kind: 'change-node', node_id: node.id, ...values })
  const place = (typed: string) => {
    const at = numbersIn(typed)
    if (at === null) say(`“${typed}” is no place. Type x y z.`, 'error')
    else change({ at })
  }
  return (
    <Section title="Selected">
      <Box sx={{ fontFamily: MONO, fontWeight: 600 }}>{node.name}</Box>
      {!node.device_id && (
        <Field label="Name" value={node.own_name} disabled={!canEdit} onSave={(name) => change({ name })} />
      )}
      {node.sort === 'clip' && canEdit && (
        <PartChoice
          label="Clip"
          partClass="harness-clip"
          value={node.part_id}
          now={node.part_id ? { id: node.part_id, number: node.part, text: '' } : null}
          onChoose={(p) => change({ part_id: p.id })}
        />
      )}
      <Field
        label="In space, x y z mm"
        value={written(node.at)}
        placeholder="no place yet"
        disabled={!canEdit}
        mono
        onSave={place}
      />
      <Switched
        label="The trunk ends here"
        on={node.trunk_end}
        canEdit={canEdit}
        onSwitch={(trunk_end) => change({ trunk_end })}
      />
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

interface SwitchedProps {
  label: string
  on: boolean
  canEdit: boolean
  onSwitch: (on: boolean) => void
}

function Switched({ label, on, canEdit, onSwitch }: SwitchedProps) {
  const control = (
    <Switch size="small" checked={on} disabled={!canEdit} onChange={(_, value) => onSwitch(value)} />
  )
  return <FormControlLabel sx={{ ml: 0 }} control={control} label={label} />
}
