/** A boundary, line, arrow, dimension, picture or note in the inspector. */
import { PanelPick } from '../../kit/Pick'
import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import { useQuery } from '@tanstack/react-query'
import { client, got } from '../../api/client'
import type { Item } from '../../scene/item'
import { Act, Acts } from '../../kit/Act'
import { Field } from '../../kit/Field'
import { usePlaces } from '../../project/PlaceChoice'
import { usePick } from '../../project/store'
import { lockSelected } from './acts'
import { NotePanel } from './NotePanel'
import { SaidIn } from './SaidIn'

const STROKES = new Set(['line', 'arrow', 'dimension'])

export function FigurePanel({ item, canEdit }: { item: Item; canEdit: boolean }) {
  const { send } = usePick('send')
  const places = usePlaces()
  const { figure, text = '', location = '', dashed = false, locked } = item.facts
  const lock = canEdit && (
    <Acts>
      <Act onClick={lockSelected}>{locked ? 'Unlock' : 'Lock'}</Act>
    </Acts>
  )
  if (item.kind === 'note')
    return (
      <>
        <NotePanel item={item} canEdit={canEdit} />
        {lock}
      </>
    )
  const options = (places.data?.locations ?? []).map((l) => ({ id: l.id, name: `${l.name} ${l.text}` }))
  const change = (values: { text?: string; location_id?: string; dashed?: boolean }) =>
    send({ kind: 'change-figure', figure_id: item.id, ...values })
  return (
    <>
      <Box sx={{ fontWeight: 600, mb: 0.5, textTransform: 'capitalize' }}>{figure}</Box>
      {figure === 'boundary' && (
        <>
          <Field label="Title" value={text} disabled={!canEdit} onSave={(typed) => change({ text: typed })} />
          <PanelPick
            label="Stands for the location"
            value={location}
            options={[{ id: '', name: 'none' }, ...options]}
            disabled={!canEdit}
            helperText="What lies inside is there."
            onPick={(id) => change({ location_id: id })}
          />
        </>
      )}
      {STROKES.has(figure ?? '') && (
        <Field label="Words" value={text} disabled={!canEdit} onSave={(typed) => change({ text: typed })} />
      )}
      {(figure === 'boundary' || STROKES.has(figure ?? '')) && <SaidIn words={text} canEdit={canEdit} />}
      {figure === 'table' && <Shows value={text} canEdit={canEdit} pick={(id) => change({ text: id })} />}
      {figure !== 'picture' && figure !== 'table' && (
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={dashed}
              disabled={!canEdit}
              onChange={(e) => change({ dashed: e.target.checked })}
            />
          }
          label="Broken line"
          slotProps={{ typography: { sx: { fontSize: 12.5 } } }}
        />
      )}
      {lock}
    </>
  )
}

/** What a table on the drawing shows: of this sheet alone, or a recipe of the project. */
function Shows({ value, canEdit, pick }: { value: string; canEdit: boolean; pick: (id: string) => void }) {
  const { projectId } = usePick('projectId')
  const recipes = useQuery({
    queryKey: ['bench', 'recipes', projectId],
    queryFn: () =>
      got(client.GET('/api/projects/{project_id}/recipes', { params: { path: { project_id: projectId } } })),
  }).data
  const options = [
    { id: 'sheet-parts', name: 'Parts of this sheet' },
    { id: 'sheet-wire-types', name: 'Wire types of this sheet' },
    ...(recipes?.recipes ?? []).map((r) => ({ id: r.id, name: r.name })),
    ...(recipes?.reports ?? []).map((r) => ({ id: r.key, name: r.title })),
  ]
  return <PanelPick label="Shows" value={value} options={options} disabled={!canEdit} onPick={pick} />
}
