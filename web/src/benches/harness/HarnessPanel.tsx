/** What is selected on the form board: a segment's length, a node, adding connectors and branchings. */
import { PanelPick } from '../../kit/Pick'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { Link } from 'react-router'
import { MONO, QUIET } from '../../theme/theme'
import { Field } from '../../kit/Field'
import { Section } from '../../kit/Section'
import { Setting } from '../../project/Setting'
import { useProject, usePick } from '../../project/store'
import type { HarnessValue, HarnessView } from './shapes'

interface Props {
  harness: HarnessValue
  free: HarnessView['free']
  selected: string
  canEdit: boolean
  onSelect: (id: string) => void
}

export function HarnessPanel({ harness, free, selected, canEdit, onSelect }: Props) {
  const { send, projectId } = usePick('send', 'projectId')
  const segment = harness.segments.find((s) => s.id === selected)
  const node = harness.nodes.find((n) => n.id === selected)
  const base = `/api/projects/${projectId}/boards/${harness.id}.pdf`
  return (
    <>
      <Box sx={{ fontWeight: 600, fontFamily: MONO }}>{harness.code}</Box>
      <Box sx={{ color: QUIET }}>{harness.text}</Box>
      {segment && <SegmentOf segment={segment} nodes={harness.nodes} canEdit={canEdit} />}
      {node && (
        <Section title="Selected">
          <Box sx={{ fontFamily: MONO }}>{node.name}</Box>
          {canEdit && (
            <Button
              onClick={() => void send({ kind: 'remove-node', node_id: node.id }).then(() => onSelect(''))}
            >
              Take out of the harness
            </Button>
          )}
        </Section>
      )}
      {canEdit && <AddNode harness={harness} free={free} from={node?.id ?? ''} />}
      <Section title="Lengths">
        <Setting name="harness_allowance_mm" label="At each end, mm" canEdit={canEdit} />
      </Section>
      <Section title="Form board">
        <Stack sx={{ alignItems: 'flex-start' }}>
          {harness.page_id && <Link to={`/p/${projectId}/draw/${harness.page_id}`}>As a sheet</Link>}
          <Button href={base} disabled={!harness.scene}>
            PDF, 1:1 on one page
          </Button>
          <Button href={`${base}?tiled=true`} disabled={!harness.scene}>
            PDF, 1:1 on A4 tiles
          </Button>
        </Stack>
      </Section>
    </>
  )
}

function AddNode({
  harness,
  free,
  from,
}: {
  harness: HarnessValue
  free: HarnessView['free']
  from: string
}) {
  const [device, setDevice] = useState('')
  const [join, setJoin] = useState('')
  const [length, setLength] = useState('200')
  const root = join || from || harness.nodes[0]?.id || ''
  const add = async () => {
    const answer = await useProject.getState().send({
      kind: 'add-node',
      harness_id: harness.id,
      device_id: device,
      name: '',
      from_id: root,
      length_mm: Number(length),
    })
    if (answer) setDevice('')
  }
  return (
    <Section title="Add a connector">
      <PanelPick
        label="Connector"
        value={device}
        options={free.map((f) => ({ id: f.id, name: `${f.tag} ${f.text}` }))}
        onPick={setDevice}
        helperText={free.length ? '' : 'Every connector that is drawn is in a harness.'}
      />
      {harness.nodes.length > 0 && (
        <>
          <PanelPick label="Joins" value={root} options={harness.nodes} onPick={setJoin} />
          <TextField
            fullWidth
            margin="dense"
            label="Length, mm"
            value={length}
            onChange={(e) => setLength(e.target.value)}
          />
        </>
      )}
      <Button variant="contained" disabled={!device || !(Number(length) > 0)} onClick={() => void add()}>
        Add to {harness.code}
      </Button>
    </Section>
  )
}

interface SegmentOfProps {
  segment: HarnessValue['segments'][number]
  nodes: HarnessValue['nodes']
  canEdit: boolean
}

function SegmentOf({ segment, nodes, canEdit }: SegmentOfProps) {
  const { send, say } = usePick('send', 'say')
  const [at, setAt] = useState('')
  const name = (id: string) => nodes.find((n) => n.id === id)?.name ?? ''
  const setLength = (typed: string) => {
    const value = Number(typed.replace(',', '.'))
    if (!(value > 0)) say(`“${typed}” is no length in mm.`, 'error')
    else void send({ kind: 'set-segment', segment_id: segment.id, length_mm: value })
  }
  return (
    <Section title="Segment">
      <Box sx={{ fontSize: 12.5 }}>
        {name(segment.a)} to {name(segment.b)}
      </Box>
      <Field label="Length, mm" value={String(segment.length_mm)} disabled={!canEdit} onSave={setLength} />
      <Box sx={{ fontSize: 12.5 }}>
        {segment.wires} wires, bundle ⌀ {segment.diameter_mm} mm
      </Box>
      {canEdit && (
        <Stack direction="row" spacing={0.5} sx={{ mt: 1 }}>
          <TextField
            label={`Branching at, mm from ${name(segment.a)}`}
            value={at}
            onChange={(e) => setAt(e.target.value)}
          />
          <Button
            disabled={!(Number(at) > 0)}
            onClick={() =>
              void send({ kind: 'split-segment', segment_id: segment.id, at_mm: Number(at), name: '' })
            }
          >
            Add
          </Button>
        </Stack>
      )}
    </Section>
  )
}
