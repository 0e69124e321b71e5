/** What is selected on the form board: a segment's length, a node, adding connectors and branchings. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import { Link } from 'react-router'
import { MONO, QUIET, SNAG } from '../../theme/theme'
import { Field } from '../../kit/Field'
import { Section } from '../../kit/Section'
import { Setting } from '../../project/Setting'
import { usePick } from '../../project/store'
import { AddNode } from './AddNode'
import { CoveringPanel } from './CoveringPanel'
import { NodePanel } from './NodePanel'
import { numberIn } from './numbers'
import { SegmentPanel } from './SegmentPanel'
import { SpaceFile } from './SpaceFile'
import type { HarnessValue, HarnessView } from './shapes'

interface Props {
  harness: HarnessValue
  free: HarnessView['free']
  selected: string
  canEdit: boolean
  onSelect: (id: string) => void
}

export function HarnessPanel({ harness, free, selected, canEdit, onSelect }: Props) {
  const { send, say, projectId } = usePick('send', 'say', 'projectId')
  const segment = harness.segments.find((s) => s.id === selected)
  const node = harness.nodes.find((n) => n.id === selected || `table:${n.device_id}` === selected)
  const covering = harness.coverings.find((c) => `covering:${c.id}` === selected)
  const base = `/api/projects/${projectId}/boards/${harness.id}`
  const addShare = (typed: string) => {
    const extra_percent = numberIn(typed)
    if (extra_percent === null) say(`“${typed}” is no number.`, 'error')
    else void send({ kind: 'change-harness', harness_id: harness.id, extra_percent })
  }
  return (
    <>
      <Box sx={{ fontWeight: 600, fontFamily: MONO }}>{harness.code}</Box>
      <Box sx={{ color: QUIET }}>{harness.text}</Box>
      {segment && <SegmentPanel {...{ segment, harness, free, canEdit, onSelect }} />}
      {covering && <CoveringPanel {...{ covering, canEdit, onSelect }} />}
      {node && <NodePanel {...{ node, canEdit, onSelect }} />}
      <SnagLines lines={harness.snags} />
      {canEdit && <AddNode harness={harness} free={free} from={node?.id ?? ''} />}
      <Section title="Lengths">
        <Setting name="harness_allowance_mm" label="At each end, mm" canEdit={canEdit} />
        <Field
          label="Extra for every segment, %"
          value={String(harness.extra_percent)}
          disabled={!canEdit}
          onSave={addShare}
        />
      </Section>
      <SpaceFile harness={harness} canEdit={canEdit} />
      <Section title="Form board">
        <Stack sx={{ alignItems: 'flex-start' }}>
          {harness.page_id && <Link to={`/p/${projectId}/draw/${harness.page_id}`}>As a sheet</Link>}
          <Button href={`${base}.pdf`} disabled={!harness.scene}>
            PDF, 1:1 on one page
          </Button>
          <Button href={`${base}.pdf?tiled=true`} disabled={!harness.scene}>
            PDF, 1:1 on A4 tiles
          </Button>
          <Button href={`${base}.dxf`} disabled={!harness.scene}>
            DXF, 1:1
          </Button>
        </Stack>
      </Section>
    </>
  )
}

/** What is wrong with the harness, as the Snags bench says it. */
function SnagLines({ lines }: { lines: string[] }) {
  if (!lines.length) return null
  return (
    <Section title={`Snags · ${lines.length}`}>
      {lines.map((line) => (
        <Box key={line} sx={{ fontSize: 12.5, color: SNAG, mb: 0.5 }}>
          {line}
        </Box>
      ))}
    </Section>
  )
}
