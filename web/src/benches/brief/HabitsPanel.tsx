/** How new sheets of each kind begin. */
import Box from '@mui/material/Box'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { makeEdit } from '../../api/client'
import { QUIET } from '../../theme/theme'
import { Field } from '../../kit/Field'
import { usePick } from '../../project/store'
import type { Sheets } from './shapes'
import { useOutline } from '../../project/useOutline'

export function HabitsPanel({ table, canEdit }: { table: Sheets; canEdit: boolean }) {
  const { projectId, send } = usePick('projectId', 'send')
  const [kind, setKind] = useState('schematic')
  const outline = useOutline(projectId)
  const types = outline.data?.wire_types ?? []
  const habit = table.habits.find((h) => h.kind === kind)
  const set = (values: Record<string, unknown>) =>
    void send(makeEdit('set-sheet-habit', { sheet_kind: kind, ...values }))
  const drawn = table.kinds.find((k) => k.id === kind)?.drawn ?? false
  const ladder = drawn && habit?.frame === 'ladder'
  const choose = (label: string, key: string, value: string, options: { id: string; name: string }[]) => (
    <TextField
      select
      fullWidth
      margin="dense"
      label={label}
      value={options.some((o) => o.id === value) ? value : ''}
      disabled={!canEdit}
      onChange={(e) => set({ [key]: key === 'ladders' ? Number(e.target.value) : e.target.value })}
    >
      {options.map((o) => (
        <MenuItem key={o.id} value={o.id}>
          {o.name || 'none'}
        </MenuItem>
      ))}
    </TextField>
  )
  const rails = [{ id: '', name: '' }, ...types.map((t) => ({ id: t.id, name: t.name }))]
  return (
    <>
      <Box sx={{ fontWeight: 600 }}>New sheets</Box>
      <Box sx={{ color: QUIET, fontSize: 12 }}>
        How a sheet of this kind begins. Choose sheets in the table to change those that are there.
      </Box>
      <TextField
        select
        fullWidth
        margin="dense"
        label="Of the kind"
        value={kind}
        onChange={(e) => setKind(e.target.value)}
      >
        {table.kinds.map((k) => (
          <MenuItem key={k.id} value={k.id}>
            {k.name}
          </MenuItem>
        ))}
      </TextField>
      {choose(
        'Begin in size',
        'size',
        habit?.size ?? '',
        table.sizes.map((s) => ({ id: s, name: s })),
      )}
      {drawn &&
        choose('Begin with', 'frame', habit?.frame ?? '', [
          { id: 'ladder', name: 'Ladder lines' },
          { id: 'zones', name: 'Zones' },
        ])}
      {ladder &&
        choose('Ladders beside each other', 'ladders', String(habit?.ladders ?? ''), [
          { id: '1', name: 'one' },
          { id: '2', name: 'two' },
        ])}
      {ladder && (
        <Field
          label="Lines a ladder"
          value={String(habit?.line_count ?? '')}
          disabled={!canEdit}
          onSave={(v) => set({ line_count: Number(v) })}
        />
      )}
      {ladder && (
        <Field
          label="From line to line, steps of 2.5 mm"
          value={String(habit?.line_spacing ?? '')}
          disabled={!canEdit}
          onSave={(v) => set({ line_spacing: Number(v) })}
        />
      )}
      {!ladder &&
        (['columns', 'rows'] as const).map((key) => (
          <Field
            key={key}
            label={key === 'columns' ? 'Zones across' : 'Zones down'}
            value={String(habit?.[key] ?? '')}
            disabled={!canEdit}
            onSave={(v) => set({ [key]: Number(v) })}
          />
        ))}
      {ladder && choose('Left rail', 'left_rail_type_id', habit?.left_rail_type_id ?? '', rails)}
      {ladder && choose('Right rail', 'right_rail_type_id', habit?.right_rail_type_id ?? '', rails)}
      {choose('Title block', 'title_block_id', habit?.title_block_id ?? '', [
        { id: '', name: 'of the project' },
        ...table.blocks,
      ])}
    </>
  )
}
