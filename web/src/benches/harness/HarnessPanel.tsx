/** What is selected on the form board: a segment's length, a node, adding connectors and branchings. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import { Link } from 'react-router'
import { MONO, QUIET, SNAG } from '../../theme/theme'
import { counted } from '../../kit/counted'
import { Field } from '../../kit/Field'
import { PanelPick } from '../../kit/Pick'
import { Section } from '../../kit/Section'
import { Switched } from '../../kit/Switched'
import { LengthField } from '../../project/LengthField'
import { Setting } from '../../project/Setting'
import { usePick } from '../../project/store'
import { AddNode } from './AddNode'
import { ConnectorPanel } from './ConnectorPanel'
import { CoveringPanel } from './CoveringPanel'
import { NodePanel } from './NodePanel'
import { numberIn } from './numbers'
import { SegmentPanel } from './SegmentPanel'
import { InVariants, Variants } from './Variants'
import { SpaceFile } from './SpaceFile'
import type { HarnessValue, HarnessView } from './shapes'

interface Props {
  harness: HarnessValue
  free: HarnessView['free']
  others: HarnessView['others']
  selected: string
  canEdit: boolean
  onSelect: (id: string) => void
  onHarness: (id: string) => void
  /** The keys of the wires chosen in the table. */
  chosen: string[]
}

export function HarnessPanel(props: Props) {
  const { harness, free, others, selected, canEdit, onSelect, onHarness, chosen } = props
  const { send, say } = usePick('send', 'say')
  const segment = harness.segments.find((s) => s.id === selected)
  const node = harness.nodes.find((n) => n.id === selected || `table:${n.device_id}` === selected)
  const connector = node && !node.splice && harness.connectors.find((c) => c.id === node.device_id)
  const covering = harness.coverings.find((c) => `covering:${c.id}` === selected)
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
      {segment && <InVariants {...{ harness, canEdit }} segmentId={segment.id} />}
      {chosen.length > 0 && <InVariants {...{ harness, canEdit }} wires={chosen} />}
      {covering && <CoveringPanel {...{ covering, canEdit, onSelect }} />}
      {connector && (
        <ConnectorPanel device={connector} facts={connector.facts} others={[]} {...{ canEdit, onHarness }} />
      )}
      {node && <NodePanel {...{ node, canEdit, onSelect }} />}
      {node && <InVariants {...{ harness, canEdit }} nodeId={node.id} />}
      <SnagLines lines={harness.snags} />
      {canEdit && <AddNode {...{ harness, free, others }} from={node?.id ?? ''} />}
      <Section title="Lengths">
        <Setting name="harness_allowance_mm" label="At each end" canEdit={canEdit} />
        <Field
          label="Extra for every segment, %"
          value={String(harness.extra_percent)}
          disabled={!canEdit}
          onSave={addShare}
        />
      </Section>
      <OnBoard {...{ harness, canEdit }} />
      <Cables {...{ harness, canEdit }} />
      <Shields {...{ harness, canEdit }} />
      <Variants {...{ harness, canEdit }} />
      <SpaceFile harness={harness} canEdit={canEdit} />
      <BoardFiles harness={harness} />
    </>
  )
}

const HEADINGS = [
  { id: 'right', name: 'to the right' },
  { id: 'down', name: 'downwards' },
  { id: 'left', name: 'to the left' },
  { id: 'up', name: 'upwards' },
] as const

/** How it lies on its board, where its labels are, and whether its bundles stay apart from others. */
function OnBoard({ harness, canEdit }: Pick<Props, 'harness' | 'canEdit'>) {
  const { send } = usePick('send')
  return (
    <Section title="Layout">
      <PanelPick
        label="The trunk leads"
        value={harness.heading}
        options={HEADINGS}
        disabled={!canEdit}
        onPick={(id) =>
          void send({
            kind: 'change-harness',
            harness_id: harness.id,
            heading: id as typeof harness.heading,
          })
        }
      />
      <LengthField
        label="Labels from each end"
        hint=" (0: none)"
        value={harness.label_mm}
        disabled={!canEdit}
        onSave={(label_mm) => send({ kind: 'change-harness', harness_id: harness.id, label_mm })}
      />
      <Switched
        label="Apart from other harnesses on its way"
        on={harness.apart}
        canEdit={canEdit}
        onSwitch={(apart) => void send({ kind: 'change-harness', harness_id: harness.id, apart })}
      />
    </Section>
  )
}

/** The cables that run in it: in its bundles, or beside them. */
function Cables({ harness, canEdit }: Pick<Props, 'harness' | 'canEdit'>) {
  const { send } = usePick('send')
  if (!harness.cables.length) return null
  return (
    <Section title="Cables">
      {harness.cables.map((c) => (
        <Box key={c.device_id}>
          <b style={{ fontFamily: MONO }}>{c.tag}</b>{' '}
          <span style={{ color: QUIET }}>
            {c.part}, {counted(c.cores, 'core')}
          </span>
          <Switched
            label="Beside the bundle"
            on={c.apart}
            canEdit={canEdit}
            onSwitch={(apart) => void send({ kind: 'set-cable', device_id: c.device_id, apart })}
          />
        </Box>
      ))}
    </Section>
  )
}

/** The board on paper, of the variant that is shown. */
function BoardFiles({ harness }: { harness: HarnessValue }) {
  const { projectId } = usePick('projectId')
  const base = `/api/projects/${projectId}/boards/${harness.id}`
  const of = `variant_id=${harness.variant}`
  return (
    <Section title="Form board">
      <Stack sx={{ alignItems: 'flex-start' }}>
        {harness.page_id && <Link to={`/p/${projectId}/draw/${harness.page_id}`}>As a sheet</Link>}
        <Button href={`${base}.pdf?${of}`} disabled={!harness.scene}>
          PDF, 1:1 on one page
        </Button>
        <Button href={`${base}.pdf?tiled=true&${of}`} disabled={!harness.scene}>
          PDF, 1:1 on A4 tiles
        </Button>
        <Button href={`${base}.dxf?${of}`} disabled={!harness.scene}>
          DXF, 1:1
        </Button>
      </Stack>
    </Section>
  )
}

/** Where its shields land. */
function Shields({ harness, canEdit }: Pick<Props, 'harness' | 'canEdit'>) {
  const { send } = usePick('send')
  if (!harness.shields.length) return null
  return (
    <Section title="Shields">
      {harness.shields.map((s) => (
        <Field
          key={s.name}
          label={`${s.name}, ${counted(s.wires, 'wire')}: lands on`}
          value={s.landed}
          placeholder="nowhere, type -XD1:12"
          disabled={!canEdit}
          mono
          onSave={(pin) => send({ kind: 'land-shield', harness_id: harness.id, name: s.name, pin })}
        />
      ))}
    </Section>
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
