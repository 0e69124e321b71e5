/** Adding one sheet from the tree, behind the one it was asked at; what is not said follows the habit of its kind. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import TextField from '@mui/material/TextField'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { asGiven, makeEdit } from '../../api/client'
import type { SheetLine, WireTypeLine } from '../../api/shapes'
import { LINE } from '../../theme/theme'
import { useProject } from '../../project/store'
import { Pick } from '../../kit/Pick'
import { useOutline } from '../../project/useOutline'

interface Props {
  projectId: string
  sheets: SheetLine[]
  after: string
  close: () => void
}

const FRAMES = [
  { id: 'ladder', name: 'Ladder lines' },
  { id: 'zones', name: 'Zones' },
]

/** How the new sheet is framed: as its kind begins, until something else is said. */
interface Frame {
  frame: string
  left: string
  right: string
}

/** How sheets of a kind begin, and whether they are drawn. */
function useKind(projectId: string, kind: string) {
  const outline = useOutline(projectId).data
  const habit = outline?.habits.find((h) => h.kind === kind)
  const usual: Frame = {
    frame: habit?.frame ?? 'zones',
    left: habit?.left_rail_type_id ?? '',
    right: habit?.right_rail_type_id ?? '',
  }
  const kinds = outline?.kinds ?? []
  const drawn = kinds.find((k) => k.id === kind)?.drawn ?? false
  return { kinds, drawn, usual, types: outline?.wire_types ?? [] }
}

export function AddSheet({ projectId, sheets, after, close }: Props) {
  const go = useNavigate()
  const queries = useQueryClient()
  const model = sheets.find((s) => s.id === after)
  const [number, setNumber] = useState('')
  const [title, setTitle] = useState('')
  const [kind, setKind] = useState('schematic')
  const [said, setSaid] = useState<Partial<Frame>>({})
  const { kinds, drawn, usual, types } = useKind(projectId, kind)
  const { frame, left, right } = { ...usual, ...said }
  const added = async (id: string) => {
    await queries.invalidateQueries({ queryKey: ['outline', projectId] })
    close()
    void go(`/p/${projectId}/draw/${id}`)
  }
  const add = async () => {
    const answer = await useProject.getState().send(
      makeEdit('add-sheet', {
        number,
        title,
        sheet_kind: asGiven(kind),
        ...(drawn ? { frame: asGiven(frame) } : {}),
        // A new sheet is of the function and location of the one before it.
        function_id: model?.function_id ?? '',
        location_id: model?.location_id ?? '',
        left_rail_type_id: frame === 'ladder' ? left : '',
        right_rail_type_id: frame === 'ladder' ? right : '',
        after_id: after,
      }),
    )
    if (answer) await added(answer.placed[0] ?? '')
  }
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
      <After model={model} />
      <Naming {...{ number, title, setNumber, setTitle }} />
      <Pick label="Kind of sheet" value={kind} options={kinds} onPick={setKind} />
      {drawn && (
        <FramePicks
          {...{ frame, left, right, types }}
          say={(part) => setSaid((before) => ({ ...before, ...part }))}
        />
      )}
      <Buttons close={close} />
    </Stack>
  )
}

interface FrameProps extends Frame {
  types: WireTypeLine[]
  say: (part: Partial<Frame>) => void
}

function FramePicks({ frame, left, right, types, say }: FrameProps) {
  const rails = [{ id: '', name: 'no rail' }, ...types]
  return (
    <>
      <Pick label="Frame" value={frame} options={FRAMES} onPick={(id) => say({ frame: id })} />
      {frame === 'ladder' && (
        <>
          <Pick label="Left rail" value={left} options={rails} onPick={(id) => say({ left: id })} />
          <Pick label="Right rail" value={right} options={rails} onPick={(id) => say({ right: id })} />
        </>
      )}
    </>
  )
}

const Buttons = ({ close }: { close: () => void }) => (
  <Stack direction="row" spacing={1}>
    <Button type="submit" variant="contained">
      Add
    </Button>
    <Button onClick={close}>Cancel</Button>
  </Stack>
)

const After = ({ model }: { model: SheetLine | undefined }) => (
  <Box sx={{ fontSize: 12, color: 'text.secondary' }}>
    {model ? `After ${model.number} ${model.title}` : 'At the end'}
  </Box>
)

interface NamingProps {
  number: string
  title: string
  setNumber: (number: string) => void
  setTitle: (title: string) => void
}

function Naming({ number, title, setNumber, setTitle }: NamingProps) {
  return (
    <>
      <TextField
        label="Number"
        placeholder="the next one"
        value={number}
        autoFocus
        onChange={(e) => setNumber(e.target.value)}
      />
      <TextField label="Title" value={title} onChange={(e) => setTitle(e.target.value)} />
    </>
  )
}
