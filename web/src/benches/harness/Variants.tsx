/** How many of a harness are built, its variants, and in which of them what is chosen is. */
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import Stack from '@mui/material/Stack'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { makeEdit } from '../../api/client'
import { Field } from '../../kit/Field'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'
import type { HarnessValue } from './shapes'

interface Props {
  harness: HarnessValue
  canEdit: boolean
}

const whole = (typed: string) => (/^\d+$/.test(typed.trim()) ? Number(typed) : null)

export function Variants({ harness, canEdit }: Props) {
  const { send, say } = usePick('send', 'say')
  const [name, setName] = useState('')
  const count = (typed: string, take: (quantity: number) => void) => {
    const quantity = whole(typed)
    if (quantity === null) say(`“${typed}” is no number of harnesses.`, 'error')
    else take(quantity)
  }
  const add = async () => {
    if (await send(makeEdit('add-variant', { harness_id: harness.id, name }))) setName('')
  }
  return (
    <Section title="How many are built">
      {harness.variants.length === 0 && (
        <Field
          label="Of this harness"
          value={String(harness.quantity)}
          disabled={!canEdit}
          onSave={(typed) =>
            count(
              typed,
              (quantity) => void send({ kind: 'change-harness', harness_id: harness.id, quantity }),
            )
          }
        />
      )}
      {harness.variants.map((v) => (
        <Stack key={v.id} direction="row" spacing={0.5} sx={{ alignItems: 'center', mb: 0.75 }}>
          <Field
            label={`Of variant ${v.name}`}
            value={String(v.quantity)}
            disabled={!canEdit}
            onSave={(typed) =>
              count(typed, (quantity) => void send({ kind: 'change-variant', variant_id: v.id, quantity }))
            }
          />
          {canEdit && (
            <Button
              aria-label={`Remove variant ${v.name}`}
              onClick={() => void send({ kind: 'remove-variant', variant_id: v.id })}
            >
              Remove
            </Button>
          )}
        </Stack>
      ))}
      {canEdit && (
        <Stack direction="row" spacing={0.5} sx={{ mt: 0.5 }}>
          <TextField label="New variant" value={name} onChange={(e) => setName(e.target.value)} />
          <Button aria-label="Add variant" disabled={!name.trim()} onClick={() => void add()}>
            Add
          </Button>
        </Stack>
      )}
    </Section>
  )
}

interface InVariantsProps extends Props {
  /** What is chosen: the keys of wires, a node or a segment. */
  wires?: string[]
  nodeId?: string
  segmentId?: string
}

/** In which variants what is chosen is; ticked in all is in all that come, too. */
export function InVariants({ harness, canEdit, wires = [], nodeId = '', segmentId = '' }: InVariantsProps) {
  const { send } = usePick('send')
  if (!harness.variants.length) return null
  const named = harness.named[wires[0] ?? (nodeId || segmentId)]
  const all = harness.variants.map((v) => v.id)
  const now = named ?? all
  const tick = (id: string, on: boolean) => {
    const variants = all.filter((v) => (v === id ? on : now.includes(v)))
    const edit = { harness_id: harness.id, variants, wires, node_id: nodeId, segment_id: segmentId }
    void send(makeEdit('set-variants', edit))
  }
  return (
    <Section title="In variants">
      {harness.variants.map((v) => (
        <FormControlLabel
          key={v.id}
          sx={{ ml: 0, mr: 2 }}
          label={v.name}
          control={
            <Checkbox
              size="small"
              checked={now.includes(v.id)}
              disabled={!canEdit || (now.length === 1 && now.includes(v.id))}
              onChange={(_, on) => tick(v.id, on)}
            />
          }
        />
      ))}
    </Section>
  )
}
