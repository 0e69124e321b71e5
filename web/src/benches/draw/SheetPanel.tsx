/** The sheet in the inspector, when nothing is selected. */
import { PanelPick } from '../../kit/Pick'
import Box from '@mui/material/Box'
import { useQueryClient } from '@tanstack/react-query'
import { Link } from 'react-router'
import type { View } from '../../project/view'
import { MONO } from '../../theme/theme'
import { Field } from '../../kit/Field'
import { usePlaces } from '../../project/PlaceChoice'
import { Section } from '../../kit/Section'
import { drawCommands } from './commands'
import { usePick } from '../../project/store'

export function SheetPanel({ view, canEdit }: { view: View; canEdit: boolean }) {
  const queries = useQueryClient()
  const { projectId, send } = usePick('projectId', 'send')
  const places = usePlaces()
  const facts = view.sheet.sheet
  if (!facts) return null
  const save = async (change: {
    title?: string
    number?: string
    function_id?: string
    location_id?: string
  }) => {
    await send({ kind: 'change-sheet', sheet_id: facts.id, follow: true, ...change })
    await queries.invalidateQueries({ queryKey: ['outline', projectId] })
  }
  return (
    <>
      <Box sx={{ fontWeight: 600, mb: 1 }}>Sheet {facts.number}</Box>
      <Field label="Title" value={facts.title} disabled={!canEdit} onSave={(title) => save({ title })} />
      <Field label="Number" value={facts.number} disabled={!canEdit} onSave={(number) => save({ number })} />
      {(['functions', 'locations'] as const).map((what) => {
        const key = what === 'functions' ? 'function_id' : 'location_id'
        const options = (places.data?.[what] ?? []).map((p) => ({ id: p.id, name: `${p.name} ${p.text}` }))
        return (
          <PanelPick
            key={what}
            label={what === 'functions' ? 'Function' : 'Location'}
            value={facts[key]}
            options={[{ id: '', name: 'none' }, ...options]}
            disabled={!canEdit}
            onPick={(id) => void save({ [key]: id })}
          />
        )
      })}
      <Box sx={{ fontSize: 12.5, mt: 0.5 }}>
        <Link to={`/p/${projectId}/brief/sheets?sheet=${view.sheet.sheet?.id ?? ''}`}>
          Size, frame, title block, duplicate
        </Link>
      </Box>
      {canEdit && <Keys />}
    </>
  )
}

function Keys() {
  const shown = drawCommands.filter((c) => !c.id.endsWith('-too'))
  return (
    <Section title="Drawing">
      <Box sx={{ fontSize: 12.5, mb: 1 }}>
        Put the caret on a line and start typing: <b>coil</b>, <b>no</b>, <b>nc</b>, <b>lamp</b>.
        <div>
          <kbd>F1</kbd> lists all keys.
        </div>
      </Box>
      {shown.map((c) => (
        <Box key={c.id} sx={{ display: 'flex', gap: 0.75, fontSize: 12.5, py: 0.2 }}>
          <span style={{ flex: 1 }}>{c.label}</span>
          <kbd style={{ fontFamily: MONO, fontSize: 11.5 }}>{c.shortcut}</kbd>
        </Box>
      ))}
    </Section>
  )
}
