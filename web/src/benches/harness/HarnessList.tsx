/** The harnesses of the project, a new one, and what the chosen one joins. */
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { Choice, Heading } from '../../kit/Bench'
import { usePick } from '../../project/store'
import { MONO } from '../../theme/theme'
import type { Connector, HarnessView } from './shapes'

interface Props {
  view: HarnessView
  selected: string
  canEdit: boolean
  choose: (id: string) => void
  onSelect: (id: string) => void
}

export function HarnessList({ view, choose, selected, canEdit, onSelect }: Props) {
  const { harness, harnesses } = view
  return (
    <>
      <Heading>Harnesses</Heading>
      {harnesses.map((h) => (
        <Choice key={h.id} chosen={h.id === harness?.id} note={h.text} onClick={() => choose(h.id)}>
          <b style={{ fontFamily: MONO }}>{h.code}</b>
        </Choice>
      ))}
      {canEdit && <NewHarness choose={choose} />}
      {harness && harness.connectors.length > 0 && <Heading>Connectors</Heading>}
      {harness?.connectors.map((c) => {
        const node = harness.nodes.find((n) => n.device_id === c.id)
        return (
          <Choice
            key={c.id}
            chosen={node?.id === selected}
            note={node?.splice ? `splice, ${legs(c)} legs` : filled(c)}
            onClick={() => node && onSelect(node.id)}
          >
            <b style={{ fontFamily: MONO }}>{c.tag}</b>
          </Choice>
        )
      })}
    </>
  )
}

const legs = (c: Connector) => c.cavities.reduce((sum, v) => sum + v.wires.length, 0)

/** How many cavities of a connector are in use, by this harness and by others, and what it is for. */
function filled(c: Connector): string {
  const used = c.cavities.filter((v) => v.wires.length || v.elsewhere).length
  const others = c.facts.harnesses.length - 1
  const also = others > 0 ? `${others + 1} harnesses` : ''
  return [`${used} of ${c.cavities.length}`, also, c.text].filter(Boolean).join(' · ')
}

function NewHarness({ choose }: { choose: (id: string) => void }) {
  const { send } = usePick('send')
  const [code, setCode] = useState('')
  const add = async () => {
    const answer = await send({ kind: 'add-harness', code, text: '' })
    if (!answer) return
    setCode('')
    choose(answer.placed[0] ?? '')
  }
  return (
    <Stack direction="row" spacing={0.5} sx={{ mt: 1, px: 0.5 }}>
      <TextField label="New harness" value={code} onChange={(e) => setCode(e.target.value)} />
      <Button disabled={!code.trim()} onClick={() => void add()}>
        Add
      </Button>
    </Stack>
  )
}
