/** A strip as a whole: name, place, parts, what its plan says, what is proposed, what is wrong, room on the rail. */
import Box from '@mui/material/Box'
import LinearProgress from '@mui/material/LinearProgress'
import { Link } from 'react-router'
import { makeEdit } from '../../api/client'
import { Act, Acts } from '../../kit/Act'
import { Field } from '../../kit/Field'
import { PanelPick } from '../../kit/Pick'
import { Section } from '../../kit/Section'
import { SnagWords } from '../../kit/SnagWords'
import { TagChip } from '../../kit/TagChip'
import { PartChoice } from '../../project/PartChoice'
import { usePlaces } from '../../project/PlaceChoice'
import { usePick } from '../../project/store'
import { useLengths } from '../../project/useLengths'
import { SNAG, TEAL } from '../../theme/theme'
import { Offered } from './Offered'
import type { Strip } from './shapes'
import type { Held } from './useHeld'

interface Props {
  strip: Strip
  canEdit: boolean
  held: Held
}

export function StripPanel({ strip, canEdit, held }: Props) {
  const { send, projectId } = usePick('send', 'projectId')
  const device_id = strip.id
  const [files, plan] = [`/api/projects/${projectId}`, encodeURIComponent(strip.plan_id)]
  return (
    <>
      <TagChip tag={strip.tag} />
      <Field
        label="Text"
        value={strip.text}
        disabled={!canEdit}
        onSave={(text) => send({ kind: 'set-text', device_id, text })}
      />
      <Field
        label="Tag"
        value={strip.tag.slice(strip.tag.lastIndexOf('-') + 1)}
        disabled={!canEdit}
        mono
        onSave={(tag) => send({ kind: 'set-tag', device_id, tag })}
      />
      <Place strip={strip} canEdit={canEdit} />
      <PartChoice
        label="Part of the strip"
        partClass="terminal"
        value={strip.part?.id ?? ''}
        now={strip.part}
        onChoose={(p) => void send({ kind: 'assign-part', device_id, part_id: p.id })}
      />
      {strip.part && <Box sx={{ fontSize: 12 }}>{strip.part.text}</Box>}
      <GroupParts strip={strip} />
      {canEdit && <Doing strip={strip} held={held} />}
      <Offered {...{ strip, canEdit, held }} />
      <SnagWords messages={strip.found.map((s) => s.message)} />
      <Room strip={strip} />
      <Plan strip={strip} canEdit={canEdit} />
      <Box sx={{ mt: 1, fontSize: 12.5, lineHeight: 1.8 }}>
        <Link to={`/p/${projectId}/draw/${strip.plan_id}`}>Terminal plan as a sheet</Link>
        <br />
        Plan as <a href={`${files}/drawing.pdf?sheet_id=${plan}`}>PDF</a>,{' '}
        <a href={`${files}/drawing.dxf?sheet_id=${plan}`}>DXF</a>
        <br />
        Layout as <a href={`${files}/strips/${strip.id}.xlsx`}>XLSX</a>,{' '}
        <a href={`${files}/strips/${strip.id}.csv`}>CSV</a>
      </Box>
    </>
  )
}

function Doing({ strip, held }: { strip: Strip; held: Held }) {
  const { send } = usePick('send')
  return (
    <Acts>
      <Act hint="Insert" onClick={() => held.open('put-in')}>
        Put in terminals…
      </Act>
      <Act hint="N" onClick={() => held.open('number')}>
        Number…
      </Act>
      <Act hint="S" onClick={() => held.open('sort')}>
        Sort…
      </Act>
      <Act onClick={() => held.open('merge')}>Put together with…</Act>
      <Act onClick={() => held.open('layout')}>Layout from a spreadsheet…</Act>
      {strip.rows.every((r) => r.kind !== 'terminal' || r.planned) && (
        <Act onClick={() => void send({ kind: 'remove-strip', strip_id: strip.id })}>Remove the strip</Act>
      )}
    </Acts>
  )
}

/** Where the strip is; it keeps its tag where it goes. */
function Place({ strip, canEdit }: { strip: Strip; canEdit: boolean }) {
  const { send } = usePick('send')
  const locations = usePlaces().data?.locations ?? []
  const options = [
    { id: 'none', name: 'none' },
    ...locations.map((l) => ({ id: l.id, name: `${l.name} · ${l.side}` })),
  ]
  return (
    <PanelPick
      {...{ label: 'Location', value: strip.location_id || 'none', options, disabled: !canEdit }}
      onPick={(id) => {
        const location_id = id === 'none' ? '' : id
        void send({
          kind: 'set-place',
          device_id: strip.id,
          function_id: strip.function_id,
          location_id,
          keep_tag: true,
        })
      }}
    />
  )
}

/** A part for each kind of terminal that the part of the strip does not fit. */
function GroupParts({ strip }: { strip: Strip }) {
  const { send } = usePick('send')
  return strip.groups
    .filter((g) => g.part?.id !== strip.part?.id)
    .map((g) => (
      <Box key={`${g.kind} ${g.part?.id}`} sx={{ mt: 0.5 }}>
        <PartChoice
          label={`Part of ${g.words}`}
          partClass="terminal"
          filters={g.kind === 'feed-through' ? '' : `terminal_kind=${g.kind}`}
          value={g.part?.id ?? ''}
          now={g.part}
          onChoose={(p) =>
            void send(makeEdit('set-terminals', { strip_id: strip.id, units: g.units, part_id: p.id }))
          }
        />
        <Box sx={{ fontSize: 12, color: g.part ? undefined : SNAG }}>
          {g.part ? g.part.text : 'No part of their kind yet'}
        </Box>
      </Box>
    ))
}

function Room({ strip }: { strip: Strip }) {
  const { bare, said } = useLengths()
  const share = strip.room_mm ? (100 * strip.width_mm) / strip.room_mm : 0
  return (
    <Section title="On the rail">
      <Box sx={{ fontSize: 12.5 }}>
        {strip.room_mm
          ? `${bare(strip.width_mm)} of ${said(strip.room_mm)} on a rail of ${strip.rail}`
          : `${said(strip.width_mm)} on the rail, terminals and accessories together; not placed yet`}
      </Box>
      {strip.room_mm > 0 && (
        <LinearProgress
          variant="determinate"
          aria-label="Share of the rail"
          value={Math.min(100, share)}
          sx={{
            mt: 0.5,
            height: 7,
            borderRadius: 4,
            '& .MuiLinearProgress-bar': { bgcolor: share > 100 ? SNAG : TEAL },
          }}
        />
      )}
    </Section>
  )
}

const STYLES = [
  { id: 'table', name: 'table with bridges' },
  { id: 'drawn', name: 'drawn strip with leaders' },
]

function Plan({ strip, canEdit }: { strip: Strip; canEdit: boolean }) {
  const { send } = usePick('send')
  const set = (values: Record<string, unknown>) =>
    send(makeEdit('set-strip', { strip_id: strip.id, ...values }))
  const disabled = !canEdit
  return (
    <Section title="Terminal plan">
      <PanelPick
        {...{ label: 'Style', value: strip.plan_style, options: STYLES, disabled }}
        onPick={(plan_style) => set({ plan_style })}
      />
      <Field
        label="Heading of field side"
        placeholder="Field side"
        value={strip.field_heading}
        disabled={disabled}
        onSave={(field_heading) => set({ field_heading })}
      />
      <Field
        label="Heading of panel side"
        placeholder="Panel side"
        value={strip.panel_heading}
        disabled={disabled}
        onSave={(panel_heading) => set({ panel_heading })}
      />
      <PanelPick
        {...{
          label: 'On sheets, its rows are',
          value: strip.show_row ? 'line' : 'plain',
          options: [
            { id: 'plain', name: 'single terminals' },
            { id: 'line', name: 'joined by a line with its name' },
          ],
          disabled,
        }}
        onPick={(id) => set({ show_row: id === 'line' })}
      />
    </Section>
  )
}
