/** Moving what is selected to another sheet. */
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useNavigate } from 'react-router'
import type { SheetLine } from '../../api/shapes'
import type { Item } from '../../scene/item'
import { usePick } from '../../project/store'

export function MoveToSheet({ items, sheets }: { items: Item[]; sheets: SheetLine[] }) {
  const { projectId, sheetId, send } = usePick('projectId', 'sheetId', 'send')
  const go = useNavigate()
  const moved = items
    .filter((i) => ['symbol', 'wire', 'continuation', 'note'].includes(i.kind))
    .map((i) => i.id)
  const others = sheets.filter((s) => s.id !== sheetId && s.drawn)
  if (!moved.length || !others.length) return null
  return (
    <TextField
      select
      fullWidth
      margin="dense"
      label="Move to sheet"
      value=""
      onChange={(e) =>
        void send({ kind: 'move-to-sheet', ids: moved, sheet_id: e.target.value, dx: 0, dy: 0 }).then(
          (answer) => {
            if (answer) void go(`/p/${projectId}/draw/${e.target.value}`)
          },
        )
      }
    >
      {others.map((s) => (
        <MenuItem key={s.id} value={s.id}>
          {s.number} {s.title}
        </MenuItem>
      ))}
    </TextField>
  )
}
