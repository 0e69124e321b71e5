/** The inspector: what is chosen, then the enclosure's own facts, warmth, snags, lengths, files. */
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import { Section } from '../../kit/Section'
import { Setting } from '../../project/Setting'
import { usePick } from '../../project/store'
import { Dimensions } from './Dimensions'
import { EnclosurePanel } from './EnclosurePanel'
import { KeptApart } from './KeptApart'
import { ProposalPanel, type Proposed } from './ProposalPanel'
import { SelectedPanel } from './SelectedPanel'
import { SnagList } from './SnagList'
import { Supplies } from './Supplies'
import { WarmthPanel } from './WarmthPanel'
import { WirePanel } from './WirePanel'
import type { EnclosureValue } from './shapes'
import type { State } from './useCabinet'

interface Props {
  enclosure: EnclosureValue
  others: { id: string; tag: string }[]
  state: State
  proposed: Proposed
  canEdit: boolean
}

export function CabinetPanel({ enclosure, others, state, proposed, canEdit }: Props) {
  return (
    <>
      {state.proposing && <ProposalPanel {...{ enclosure, state, proposed }} />}
      {state.wires.length > 0 && <WirePanel {...{ enclosure, state, canEdit }} />}
      {state.selected.size > 0 && <SelectedPanel {...{ enclosure, state, canEdit }} />}
      <EnclosurePanel {...{ enclosure, others, canEdit }} />
      <WarmthPanel {...{ enclosure, state, canEdit }} />
      <Supplies enclosure={enclosure} />
      <SnagList enclosure={enclosure} onSelect={state.select} />
      <KeptApart canEdit={canEdit} />
      <Section title="Lengths">
        <Setting name="end_allowance_mm" label="At each end" canEdit={canEdit} />
        <Setting name="door_allowance_mm" label="Loop to the door" canEdit={canEdit} />
        <Setting name="free_run_mm" label="Outside ducts at most" canEdit={canEdit} />
        <Setting name="eyelet_reach_mm" label="From a lane to an eyelet at most" canEdit={canEdit} />
        <Setting name="length_step_mm" label="Rounded up to" canEdit={canEdit} />
        <Setting name="fill_warn_percent" label="Ducts warned of above, %" canEdit={canEdit} />
      </Section>
      <Section title="Papers">
        <Dimensions canEdit={canEdit} />
        <Files enclosure={enclosure} />
      </Section>
    </>
  )
}

const REPORTS = [
  ['cutting', 'Cutting plan'],
  ['holes', 'Hole table'],
  ['nameplates', 'Nameplates'],
  ['weights', 'Weights'],
] as const

function Files({ enclosure }: { enclosure: EnclosureValue }) {
  const { projectId } = usePick('projectId')
  const base = `/api/projects/${projectId}/layouts/${enclosure.id}`
  return (
    <Stack component="section" aria-label="Files" direction="row" sx={{ flexWrap: 'wrap' }}>
      {(enclosure.surfaces ?? []).flatMap((s) =>
        (['pdf', 'dxf'] as const).map((f) => (
          <Button key={s.name + f} href={`${base}/${s.name}.${f}`}>
            {s.words} {f.toUpperCase()}
          </Button>
        )),
      )}
      <Button href={`${base}/space.gltf`}>space glTF</Button>
      {REPORTS.map(([key, words]) => (
        <Button key={key} href={`/api/projects/${projectId}/reports/${key}/xlsx`}>
          {words}
        </Button>
      ))}
    </Stack>
  )
}
