/** The Terminals bench: strips, their order, what lands on either side, bridges and accessories. */
import { paging, useCommands } from '../../project/commands'
import type { BenchProps } from '../../project/bench'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { client, got } from '../../api/client'
import { MONO, QUIET, SNAG } from '../../theme/theme'
import { Bench, Choice, Empty, Heading } from '../../kit/Bench'
import { Field } from '../../kit/Field'
import { PartChoice } from '../../project/PartChoice'
import { Rows } from '../../kit/Rows'
import { TagChip } from '../../kit/TagChip'
import { useBench } from '../../project/useBench'
import { useProject, usePick } from '../../project/store'
import { StripRowView } from './StripRowView'
import type { Strip, TerminalsView } from './shapes'

export function TerminalsBench({ canEdit }: BenchProps) {
  const projectId = useProject((s) => s.projectId)
  const [search, setSearch] = useSearchParams()
  const view = useBench<TerminalsView>('terminals', () =>
    got(client.GET('/api/projects/{project_id}/terminals', { params: { path: { project_id: projectId } } })),
  )
  const strips = view.data?.strips ?? []
  const strip = strips.find((s) => s.id === search.get('strip')) ?? strips[0]
  useCommands(
    'Terminals',
    paging(
      'strip',
      strips.map((x) => x.id),
      strip?.id ?? '',
      (id) => setSearch({ strip: id }),
    ),
  )
  if (!view.data) return <Empty>Reading the strips…</Empty>
  if (!strip)
    return (
      <Bench name="Terminals">
        <Empty>
          No terminal is drawn yet. On a sheet press <kbd>Shift+T</kbd> and draw a stroke across wires: each
          wire gets a terminal, and they make a strip. <Link to={`/p/${projectId}/draw`}>To the sheets</Link>
        </Empty>
      </Bench>
    )
  return (
    <Bench
      name="Terminals"
      list={
        <>
          <Heading>Strips</Heading>
          {strips.map((s) => (
            <Choice
              key={s.id}
              chosen={s.id === strip.id}
              onClick={() => setSearch({ strip: s.id })}
              note={`${s.rows.filter((r) => r.kind === 'terminal').length} terminals · ${s.width_mm} mm`}
            >
              <b style={{ fontFamily: MONO }}>{s.tag}</b> {s.text}
            </Choice>
          ))}
        </>
      }
      inspector={<StripPanel key={strip.id} strip={strip} canEdit={canEdit} />}
    >
      <StripTable strip={strip} canEdit={canEdit} />
    </Bench>
  )
}

function StripTable({ strip, canEdit }: { strip: Strip; canEdit: boolean }) {
  const [dragged, setDragged] = useState<number | null>(null)
  const { send } = usePick('send')
  const drop = (to: number) => {
    if (dragged !== null && dragged !== to)
      void send({ kind: 'move-strip-item', strip_id: strip.id, position: dragged, to })
    setDragged(null)
  }
  const bridged = [...new Set(strip.rows.flatMap((r) => r.bridges))]
  return (
    <Box sx={{ flex: 1, overflow: 'auto', p: 1.5 }}>
      <Rows
        label={`Terminals of ${strip.tag}`}
        columns={[
          { name: '', width: 22 },
          'Field side',
          { name: 'Cable, core', width: 120 },
          { name: 'Bridge', width: 62, align: 'center' },
          { name: 'No.', width: 66 },
          { name: 'Part', width: 84 },
          'Panel side',
          { name: 'Wire', width: 64 },
          { name: 'Sheet', width: 64 },
        ]}
      >
        {strip.rows.map((row, n) => (
          <StripRowView
            key={row.item_id || `u${row.unit}`}
            strip={strip}
            row={row}
            next={strip.rows[n + 1]}
            bridged={bridged}
            canEdit={canEdit}
            lifted={dragged === n}
            onLift={() => setDragged(n)}
            onDrop={() => drop(n)}
            onStep={(by) => {
              if (n + by >= 0 && n + by < strip.rows.length)
                void send({ kind: 'move-strip-item', strip_id: strip.id, position: n, to: n + by })
            }}
          />
        ))}
      </Rows>
      <Box sx={{ mt: 1, fontSize: 12, color: QUIET }}>
        Drag a row by its handle to another place, or move it with the arrow keys. A click between two
        terminals bridges them.
      </Box>
    </Box>
  )
}

function StripPanel({ strip, canEdit }: { strip: Strip; canEdit: boolean }) {
  const { tag: name } = strip
  const { send, projectId } = usePick('send', 'projectId')
  const [bracket, setBracket] = useState('')
  const accessory = (position: number | null) =>
    void send({
      kind: 'add-strip-accessory',
      strip_id: strip.id,
      accessory: 'end-bracket',
      position,
      part_id: bracket,
    })
  return (
    <>
      <TagChip tag={name} />
      <Field
        label="Text"
        value={strip.text}
        disabled={!canEdit}
        onSave={(text) => void send({ kind: 'set-text', device_id: strip.id, text })}
      />
      <Box sx={{ mt: 1 }}>
        <PartChoice
          label="Part of the strip"
          partClass="terminal"
          value={strip.part?.id ?? ''}
          onChoose={(p) => void send({ kind: 'assign-part', device_id: strip.id, part_id: p.id })}
        />
        {strip.part && <Box sx={{ fontSize: 12 }}>{strip.part.text}</Box>}
      </Box>
      <GroupParts strip={strip} />
      <Box sx={{ my: 1, fontSize: 12.5 }}>
        {strip.width_mm} mm on the rail, terminals and accessories together
      </Box>
      {canEdit && (
        <Stack spacing={0.5} sx={{ alignItems: 'stretch' }}>
          <PartChoice
            label="Part of the end bracket"
            partClass="strip-accessory"
            value={bracket}
            onChoose={(p) => setBracket(p.id)}
          />
          <Button variant="outlined" onClick={() => accessory(0)}>
            End bracket at the start
          </Button>
          <Button variant="outlined" onClick={() => accessory(null)}>
            End bracket at the end
          </Button>
        </Stack>
      )}
      <Box sx={{ mt: 2 }}>
        <Link to={`/p/${projectId}/draw/${strip.plan_id}`}>Terminal plan as a sheet</Link>
      </Box>
    </>
  )
}

interface GroupPartsProps {
  strip: Strip
}

/** A part for each kind of terminal that the part of the strip does not fit. */
function GroupParts({ strip }: GroupPartsProps) {
  const { send } = usePick('send')
  return (
    <>
      {strip.groups
        .filter((g) => g.part?.id !== strip.part?.id)
        .map((g) => (
          <Box key={`${g.kind} ${g.part?.id}`} sx={{ mt: 0.5 }}>
            <PartChoice
              label={`Part of ${g.words}`}
              partClass="terminal"
              filters={g.kind === 'feed-through' ? '' : `terminal_kind=${g.kind}`}
              value={g.part?.id ?? ''}
              onChoose={(p) =>
                void send({ kind: 'set-terminal-part', strip_id: strip.id, units: g.units, part_id: p.id })
              }
            />
            <Box sx={{ fontSize: 12, color: g.part ? undefined : SNAG }}>
              {g.part ? g.part.text : 'No part of their kind yet'}
            </Box>
          </Box>
        ))}
    </>
  )
}
