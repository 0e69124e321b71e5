/** Adding one sheet from the tree, behind the one it was asked at; what is not said follows the habit of its kind. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import Stack from '@mui/material/Stack'
import TextField from '@mui/material/TextField'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { makeEdit } from '../../api/client'
import type { SheetLine } from '../../api/shapes'
import { LINE } from '../../theme/theme'
import { useProject } from '../../project/store'
import { useOutline } from '../../project/useOutline'

interface Props {
  projectId: string
  sheets: SheetLine[]
  after: string
  close: () => void
}

export function AddSheet({ projectId, sheets, after, close }: Props) {
  const go = useNavigate()
  const queries = useQueryClient()
  const model = sheets.find((s) => s.id === after)
  const outline = useOutline(projectId)
  const habits = outline.data?.habits ?? []
  const types = outline.data?.wire_types ?? []
  const [number, setNumber] = useState('')
  const [title, setTitle] = useState('')
  const [kind, setKind] = useState('schematic')
  const habit = habits.find((h) => h.kind === kind)
  const [said, setSaid] = useState<{ frame?: string; left?: string; right?: string }>({})
  const kinds = (outline.data?.kinds ?? []) as { id: string; name: string; drawn: boolean }[]
  const drawn = kinds.find((k) => k.id === kind)?.drawn ?? false
  const frame = said.frame ?? habit?.frame ?? 'zones'
  const left = said.left ?? habit?.left_rail_type_id ?? ''
  const right = said.right ?? habit?.right_rail_type_id ?? ''
  const add = async () => {
    const answer = await useProject.getState().send(
      makeEdit('add-sheet', {
        number,
        title,
        sheet_kind: kind,
        ...(drawn ? { frame } : {}),
        // A new sheet is of the function and location of the one before it.
        function_id: model?.function_id ?? '',
        location_id: model?.location_id ?? '',
        left_rail_type_id: frame === 'ladder' ? left : '',
        right_rail_type_id: frame === 'ladder' ? right : '',
        after_id: after,
      }),
    )
    if (!answer) return
    await queries.invalidateQueries({ queryKey: ['outline', projectId] })
    close()
    void go(`/p/${projectId}/draw/${answer.placed[0]}`)
  }
  const choose = (label: string, value: string, set: (v: string) => void, options: string[][]) => (
    <TextField select label={label} value={value} onChange={(e) => set(e.target.value)}>
      {options.map(([id, name]) => (
        <MenuItem key={id} value={id}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  )
  const rails = [['', 'no rail'], ...types.map((t) => [t.id, t.name])]
  return (
    <Stack
      component="form"
      aria-label="Add a sheet"
      spacing={1}
      sx={{ p: 1.25, borderTop: `1px solid ${LINE}`, flexShrink: 0, maxHeight: '65%', overflow: 'auto' }}
      onSubmit={(e) => {
        e.preventDefault()
        void add()
      }}
    >
      <Box sx={{ fontSize: 12, color: 'text.secondary' }}>
        {model ? `After ${model.number} ${model.title}` : 'At the end'}
      </Box>
      <TextField
        label="Number"
        placeholder="the next one"
        value={number}
        autoFocus
        onChange={(e) => setNumber(e.target.value)}
      />
      <TextField label="Title" value={title} onChange={(e) => setTitle(e.target.value)} />
      {choose(
        'Kind of sheet',
        kind,
        setKind,
        kinds.map((k) => [k.id, k.name]),
      )}
      {drawn &&
        choose('Frame', frame, (v) => setSaid({ ...said, frame: v }), [
          ['ladder', 'Ladder lines'],
          ['zones', 'Zones'],
        ])}
      {drawn && frame === 'ladder' && choose('Left rail', left, (v) => setSaid({ ...said, left: v }), rails)}
      {drawn &&
        frame === 'ladder' &&
        choose('Right rail', right, (v) => setSaid({ ...said, right: v }), rails)}
      <Stack direction="row" spacing={1}>
        <Button type="submit" variant="contained">
          Add
        </Button>
        <Button onClick={close}>Cancel</Button>
      </Stack>
    </Stack>
  )
}
