/** The sheets of the project by function, and adding one. */
import AddIcon from '@mui/icons-material/Add'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import Stack from '@mui/material/Stack'
import TextField from '@mui/material/TextField'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { PageLine, SheetLine, WireTypeLine } from '../../api/shapes'
import { COPPER, LINE, MONO } from '../../app/theme'
import { useSheet } from './store'

interface Props {
  projectId: string
  sheets: SheetLine[]
  pages: PageLine[]
  types: WireTypeLine[]
  current: string
  canEdit: boolean
}

export function SheetList({ projectId, sheets, pages, types, current, canEdit }: Props) {
  const [adding, setAdding] = useState(false)
  const groups = new Map<string, SheetLine[]>()
  for (const sheet of sheets) {
    const key = `${sheet.function} ${sheet.function_text}`.trim()
    groups.set(key, [...(groups.get(key) ?? []), sheet])
  }
  return (
    <Box
      component="nav"
      aria-label="Sheets"
      sx={{
        width: 196,
        flexShrink: 0,
        borderRight: `1px solid ${LINE}`,
        bgcolor: '#FBF8F1',
        overflow: 'auto',
        py: 1,
      }}
    >
      <Box
        sx={{ px: 1.5, fontSize: 11, fontWeight: 600, color: 'text.secondary', letterSpacing: 0.6, mb: 0.5 }}
      >
        SHEETS
      </Box>
      {[...groups].map(([key, members]) => (
        <Box key={key} sx={{ mb: 1 }}>
          {key && <Box sx={{ px: 1.5, py: 0.25, fontWeight: 600 }}>{key}</Box>}
          {members.map((sheet) => (
            <Line key={sheet.id} projectId={projectId} page={sheet} current={current} />
          ))}
        </Box>
      ))}
      {pages.length > 0 && (
        <Box sx={{ mb: 1 }}>
          <Box sx={{ px: 1.5, py: 0.25, fontWeight: 600 }}>Made from the model</Box>
          {pages.map((page) => (
            <Line key={page.id} projectId={projectId} page={page} current={current} />
          ))}
        </Box>
      )}
      {canEdit && !adding && (
        <Button startIcon={<AddIcon />} onClick={() => setAdding(true)} sx={{ mx: 1 }}>
          Add a sheet
        </Button>
      )}
      {adding && (
        <AddSheet projectId={projectId} sheets={sheets} types={types} close={() => setAdding(false)} />
      )}
    </Box>
  )
}

interface LineProps {
  projectId: string
  page: { id: string; number: string; title: string }
  current: string
}

function Line({ projectId, page, current }: LineProps) {
  return (
    <Box
      component={Link}
      to={`/p/${projectId}/draw/${page.id}`}
      aria-current={page.id === current ? 'page' : undefined}
      sx={{
        display: 'flex',
        gap: 1,
        px: 1.5,
        py: 0.4,
        color: 'text.primary',
        textDecoration: 'none',
        borderLeft: '3px solid',
        borderColor: page.id === current ? COPPER : 'transparent',
        bgcolor: page.id === current ? '#F3E3D6' : undefined,
        '&:hover': { bgcolor: '#F5ECE0' },
      }}
    >
      <span style={{ fontFamily: MONO, minWidth: 28, color: '#676C78' }}>{page.number}</span>
      <span style={{ flex: 1 }}>{page.title || 'untitled'}</span>
    </Box>
  )
}

function AddSheet(props: Pick<Props, 'projectId' | 'sheets' | 'types'> & { close: () => void }) {
  const go = useNavigate()
  const queries = useQueryClient()
  const numbers = props.sheets.map((s) => Number(s.number) || 0)
  const [number, setNumber] = useState(String(Math.max(0, ...numbers) + 1))
  const [title, setTitle] = useState('')
  const [frame, setFrame] = useState<'ladder' | 'zones'>('ladder')
  const [rails, setRails] = useState({ left: props.types[1]?.id ?? '', right: props.types[2]?.id ?? '' })
  const add = async () => {
    const answer = await useSheet.getState().send({
      kind: 'add-sheet',
      number,
      title,
      frame,
      size: frame === 'ladder' ? 'A4' : 'A3',
      line_count: 6,
      // A new sheet is of the function and location of the one that is open.
      function_id: useSheet.getState().view.sheet.sheet?.function_id ?? '',
      location_id: useSheet.getState().view.sheet.sheet?.location_id ?? '',
      first_line: null,
      left_rail_type_id: frame === 'ladder' ? rails.left : '',
      right_rail_type_id: frame === 'ladder' ? rails.right : '',
    })
    if (!answer) return
    await queries.invalidateQueries({ queryKey: ['outline', props.projectId] })
    props.close()
    void go(`/p/${props.projectId}/draw/${answer.placed[0]}`)
  }
  const rail = (side: 'left' | 'right', label: string) => (
    <TextField
      select
      label={label}
      value={rails[side]}
      onChange={(e) => setRails({ ...rails, [side]: e.target.value })}
    >
      {props.types.map((t) => (
        <MenuItem key={t.id} value={t.id}>
          {t.name}
        </MenuItem>
      ))}
    </TextField>
  )
  return (
    <Stack
      component="form"
      spacing={1}
      sx={{ p: 1.5 }}
      onSubmit={(e) => {
        e.preventDefault()
        void add()
      }}
    >
      <TextField label="Number" value={number} autoFocus onChange={(e) => setNumber(e.target.value)} />
      <TextField label="Title" value={title} onChange={(e) => setTitle(e.target.value)} />
      <TextField
        select
        label="Frame"
        value={frame}
        onChange={(e) => setFrame(e.target.value as 'ladder' | 'zones')}
      >
        <MenuItem value="ladder">Ladder lines</MenuItem>
        <MenuItem value="zones">Zones</MenuItem>
      </TextField>
      {frame === 'ladder' && rail('left', 'Left rail')}
      {frame === 'ladder' && rail('right', 'Right rail')}
      <Stack direction="row" spacing={1}>
        <Button type="submit" variant="contained" disabled={!number.trim()}>
          Add
        </Button>
        <Button onClick={props.close}>Cancel</Button>
      </Stack>
    </Stack>
  )
}
