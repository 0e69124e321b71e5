/** A connector: its tag, its part and what it is plugged to, swapped by name; where it is in the other views. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import { useState } from 'react'
import { Link } from 'react-router'
import { makeEdit } from '../../api/client'
import { Field } from '../../kit/Field'
import { PanelPick } from '../../kit/Pick'
import { Section } from '../../kit/Section'
import { Switched } from '../../kit/Switched'
import { AddOns } from '../../project/AddOns'
import { PartChoice } from '../../project/PartChoice'
import { usePick } from '../../project/store'
import { MONO, QUIET } from '../../theme/theme'
import type { BlockConnector, ConnectorFacts } from './shapes'

interface Props {
  device: Pick<BlockConnector, 'id' | 'tag' | 'text' | 'part'>
  facts: ConnectorFacts
  /** Connectors it may be plugged to. */
  others: BlockConnector[]
  canEdit: boolean
  onHarness: (id: string) => void
}

export function ConnectorPanel({ device, facts, others, canEdit, onHarness }: Props) {
  const { send, projectId } = usePick('send', 'projectId')
  return (
    <>
      <Box sx={{ fontWeight: 600, fontFamily: MONO }}>{device.tag}</Box>
      <Box sx={{ color: QUIET }}>
        {[facts.gender, facts.owner && `on ${facts.owner.tag}`].filter(Boolean).join(', ')}
      </Box>
      <Field
        label="Tag"
        value={device.tag}
        disabled={!canEdit}
        mono
        onSave={(tag) => send({ kind: 'set-tag', device_id: device.id, tag })}
      />
      <Field
        label="What it is for"
        value={device.text}
        disabled={!canEdit}
        onSave={(text) => send({ kind: 'set-text', device_id: device.id, text })}
      />
      <Swap {...{ device, facts, canEdit }} />
      {device.part && <AddOns title="Goes with it" deviceId={device.id} canEdit={canEdit} />}
      <Mate {...{ device, facts, others, canEdit }} />
      <Section title="Where it is">
        <Stack sx={{ alignItems: 'flex-start' }}>
          {facts.drawn.sheet_id ? (
            <Link to={`/p/${projectId}/draw/${facts.drawn.sheet_id}`}>Schematic, {facts.drawn.place}</Link>
          ) : (
            <span style={{ color: QUIET }}>not drawn yet</span>
          )}
          {facts.harnesses.map((h) => (
            <Button key={h.id} onClick={() => onHarness(h.id)}>
              Form board of {h.code}
            </Button>
          ))}
        </Stack>
      </Section>
      {canEdit && facts.owner && (
        <Button onClick={() => void send(makeEdit('fit-connector', { owner_id: '', device_id: device.id }))}>
          Take off {facts.owner.tag}
        </Button>
      )}
    </>
  )
}

type SwapProps = Pick<Props, 'device' | 'facts' | 'canEdit'>

/** Another part for it; one that cannot be is refused by name, unless it shall be anyway. */
function Swap({ device, facts, canEdit }: SwapProps) {
  const { send } = usePick('send')
  const [both, setBoth] = useState(false)
  const [anyway, setAnyway] = useState(false)
  if (!canEdit) return <Box sx={{ fontFamily: MONO }}>{device.part?.number ?? 'no part yet'}</Box>
  return (
    <Section title="Part">
      <PartChoice
        label="Housing"
        partClass="connector"
        value={device.part?.id ?? ''}
        now={device.part}
        onChoose={(p) =>
          void send({ kind: 'swap-connector', device_id: device.id, part_id: p.id, both, anyway })
        }
      />
      {facts.mate && (
        <Switched label={`Swap ${facts.mate.tag} with it`} on={both} canEdit={canEdit} onSwitch={setBoth} />
      )}
      <Switched
        label="Also what does not fit; a snag says so"
        on={anyway}
        canEdit={canEdit}
        onSwitch={setAnyway}
      />
    </Section>
  )
}

function Mate({ device, facts, others, canEdit }: Pick<Props, 'device' | 'facts' | 'others' | 'canEdit'>) {
  const { send } = usePick('send')
  const options = others
    .filter((c) => c.id !== device.id && c.facts.owner?.id !== facts.owner?.id)
    .map((c) => ({ id: c.id, name: `${c.tag} ${c.part?.number ?? ''}`.trim() }))
  const shown =
    facts.mate && !options.some((o) => o.id === facts.mate!.id)
      ? [{ id: facts.mate.id, name: facts.mate.tag }, ...options]
      : options
  return (
    <Section title="Plugged to">
      {canEdit ? (
        <PanelPick
          label="Mate"
          value={facts.mate?.id ?? ''}
          options={[{ id: '', name: 'nothing' }, ...shown]}
          onPick={(id) => void send(makeEdit('mate-connectors', { device_id: device.id, mate_id: id }))}
        />
      ) : (
        <Box sx={{ fontFamily: MONO }}>{facts.mate?.tag ?? 'nothing'}</Box>
      )}
      <Box sx={{ color: QUIET, fontSize: 12.5 }}>
        {facts.mates.length
          ? `${device.part?.number ?? ''} mates with ${facts.mates.join(', ')}.`
          : 'Its part names no mate.'}
      </Box>
    </Section>
  )
}
