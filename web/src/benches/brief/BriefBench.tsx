/** The Brief bench: what the project is, its structure of functions and locations, its allowances. */
import Box from '@mui/material/Box'
import { useQuery } from '@tanstack/react-query'
import { client, got } from '../../api/client'
import { QUIET } from '../../app/theme'
import { Bench } from '../../kit/Bench'
import { Field } from '../../kit/Field'
import { usePlaces } from '../../kit/PlaceChoice'
import { Section } from '../../kit/Section'
import { Setting } from '../../kit/Setting'
import { useSheet } from '../draw/store'
import { Structure } from './Structure'

const FIELDS = [
  ['number', 'Number'],
  ['name', 'Name'],
  ['customer', 'Customer'],
  ['site', 'Site'],
  ['drawn_by', 'Drawn by'],
  ['revision', 'Revision'],
] as const

export function BriefBench({ canEdit }: { canEdit: boolean }) {
  const { projectId, send } = useSheet()
  const places = usePlaces()
  const outline = useQuery({
    queryKey: ['outline', projectId],
    queryFn: () =>
      got(client.GET('/api/projects/{project_id}', { params: { path: { project_id: projectId } } })),
    enabled: projectId !== '',
  })
  const settings = (outline.data?.settings ?? {}) as Record<string, string>
  return (
    <Bench
      name="Brief"
      inspector={
        <>
          <Section title="Lengths and shares">
            <Setting name="end_allowance_mm" label="Panel wire, at each end, mm" canEdit={canEdit} />
            <Setting name="door_allowance_mm" label="Loop to the door, mm" canEdit={canEdit} />
            <Setting name="harness_allowance_mm" label="Harness wire, at each end, mm" canEdit={canEdit} />
            <Setting name="length_step_mm" label="Lengths rounded up to, mm" canEdit={canEdit} />
            <Setting name="spool_m" label="Wire on a spool, m" canEdit={canEdit} />
            <Setting name="spare_share_percent" label="PLC channels to keep spare, %" canEdit={canEdit} />
          </Section>
        </>
      }
    >
      <Box sx={{ flex: 1, overflow: 'auto', p: 2.5, maxWidth: 900 }}>
        <Box component="h1" sx={{ fontSize: 18, m: 0, mb: 1 }}>
          Project
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', columnGap: 1.5 }}>
          {FIELDS.map(([name, label]) => (
            <Field
              key={name}
              label={label}
              value={settings[name] ?? ''}
              disabled={!canEdit}
              onSave={(value) => void send({ kind: 'change-settings', [name]: value })}
            />
          ))}
        </Box>
        <Structure
          kind="location"
          title="Locations (+)"
          note="What a location is decides the sides of terminals, which wires are routed and which need a cable."
          lines={places.data?.locations ?? []}
          canEdit={canEdit}
        />
        <Structure
          kind="function"
          title="Functions (=)"
          note="What things are for; tags of one function run on their own."
          lines={places.data?.functions ?? []}
          canEdit={canEdit}
        />
        <Box sx={{ color: QUIET, fontSize: 12, mt: 2 }}>
          Every tag, list and plan follows a change here at once; it can be taken back like any other edit.
        </Box>
      </Box>
    </Bench>
  )
}
