/** A strip chosen on the layout: its terminals, and numbering them again, as on its own bench. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { client, got } from '../../api/client'
import { NumberForm } from '../../project/NumberForm'
import { usePick } from '../../project/store'
import { COPPER, LINE, MONO, QUIET } from '../../theme/theme'
import { counted } from '../../kit/counted'

export function StripPanel({ strip: id, canEdit }: { strip: string; canEdit: boolean }) {
  const { projectId, revision } = usePick('projectId', 'revision')
  const [chosen, setChosen] = useState<number[]>([])
  const [form, setForm] = useState(false)
  const { data: strip } = useQuery({
    queryKey: ['strip', projectId, revision, id],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/terminals/{strip_id}', {
          params: { path: { project_id: projectId, strip_id: id } },
        }),
      ),
    placeholderData: (before) => before,
  })
  if (!strip) return null
  const terminals = strip.rows.filter((r) => r.unit > 0)
  const units = terminals.map((r) => r.unit).filter((u) => chosen.includes(u))
  const toggle = (unit: number) =>
    setChosen(chosen.includes(unit) ? chosen.filter((u) => u !== unit) : [...chosen, unit])
  return (
    <Box component="section" aria-label="Terminals" sx={{ my: 1 }}>
      <Box sx={{ fontSize: 12, color: QUIET, mb: 0.5 }}>
        {counted(terminals.length, 'terminal')}
        {units.length > 0 && `, ${units.length} chosen`}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: '3px', maxHeight: 150, overflow: 'auto' }}>
        {terminals.map((r) => {
          const on = chosen.includes(r.unit)
          return (
            <button
              key={r.key}
              type="button"
              aria-pressed={on}
              disabled={!canEdit}
              onClick={() => toggle(r.unit)}
              style={{
                ...{ font: `500 12px ${MONO}`, minWidth: 26, padding: '1px 4px', borderRadius: 3 },
                ...{ border: `1px solid ${on ? COPPER : LINE}`, background: on ? '#F5DCC7' : '#fff' },
              }}
            >
              {r.number}
            </button>
          )
        })}
      </Box>
      {canEdit && (
        <Button onClick={() => setForm(true)}>
          {units.length ? `Number ${units.length} again…` : 'Number again…'}
        </Button>
      )}
      <Button component={Link} to={`/p/${projectId}/terminals?strip=${id}`}>
        Open the strip
      </Button>
      {form && <NumberForm {...{ strip, units }} close={() => setForm(false)} />}
    </Box>
  )
}
