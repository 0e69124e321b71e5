/** Terminals that are planned and on no sheet yet: dragged onto the sheet one by one, or drawn as a row along a stroke. */
import Box from '@mui/material/Box'
import { useState } from 'react'
import { client, got } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { Act, Acts } from '../../kit/Act'
import { useBench } from '../../project/useBench'
import { useProject } from '../../project/store'
import { COPPER, LINE, MONO, QUIET } from '../../theme/theme'
import { useTools } from './store'
import { cancel, startPlanned, startPlannedRow } from './tools'

type Strip = Schemas['PlannedStrip']

export function PlannedPanel() {
  const projectId = useProject((s) => s.projectId)
  const { set } = useTools('set')
  const found = useBench<Strip[]>('planned-terminals', () =>
    got(
      client.GET('/api/projects/{project_id}/planned-terminals', {
        params: { path: { project_id: projectId } },
      }),
    ),
  )
  const close = () => {
    cancel()
    set({ panel: '' })
  }
  return (
    <Box component="section" aria-label="Planned terminals">
      <Box sx={{ display: 'flex', alignItems: 'center', mb: 0.5 }}>
        <Box sx={{ fontWeight: 600, flex: 1 }}>Planned terminals</Box>
        <Act onClick={close}>Close</Act>
      </Box>
      {found.data?.length === 0 && (
        <Box sx={{ fontSize: 12.5, color: QUIET }}>
          No terminal waits to be drawn. On the Terminals bench strips are made and terminals put in.
        </Box>
      )}
      {found.data?.map((strip) => (
        <Waiting key={strip.id} strip={strip} />
      ))}
    </Box>
  )
}

function Waiting({ strip }: { strip: Strip }) {
  const [chosen, choose] = useState<number[]>([])
  const units = strip.terminals.map((t) => t.unit).filter((u) => chosen.includes(u))
  const row = units.length ? units : strip.terminals.map((t) => t.unit)
  return (
    <Box sx={{ mb: 1.5 }}>
      <Box sx={{ fontSize: 12.5 }}>
        <b style={{ fontFamily: MONO }}>{strip.tag}</b> {strip.text}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.4, my: 0.5 }}>
        {strip.terminals.map((t) => (
          <button
            key={t.unit}
            type="button"
            title={`${t.kind}: drag it onto the sheet, or choose it for a row`}
            aria-label={`Planned terminal ${t.number}`}
            aria-pressed={chosen.includes(t.unit)}
            onPointerDown={(e) => {
              e.preventDefault()
              startPlanned(strip.id, t.unit, t.symbol)
            }}
            onPointerUp={() => {
              // It was not carried anywhere: it is chosen for a row.
              cancel()
              choose(chosen.includes(t.unit) ? chosen.filter((u) => u !== t.unit) : [...chosen, t.unit])
            }}
            style={{
              font: `600 12px ${MONO}`,
              padding: '2px 5px',
              border: `1px dashed ${chosen.includes(t.unit) ? COPPER : '#8A8F98'}`,
              background: chosen.includes(t.unit) ? '#F8E4D5' : '#fff',
              borderColor: chosen.includes(t.unit) ? COPPER : LINE,
              borderRadius: 3,
              cursor: 'grab',
            }}
          >
            {t.number}
          </button>
        ))}
      </Box>
      <Acts>
        <Act onClick={() => startPlannedRow(strip.id, row)}>
          {units.length ? `Row of these ${units.length} along a stroke` : 'Row along a stroke'}
        </Act>
      </Acts>
    </Box>
  )
}
