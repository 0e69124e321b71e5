/** Wires from a table: rows pasted or typed become wires between connectors, drawn on the harness's sheet. */
import Box from '@mui/material/Box'
import TextField from '@mui/material/TextField'
import { useMemo, useState } from 'react'
import { makeEdit, wordsOf } from '../../api/client'
import { counted } from '../../kit/counted'
import { FormDialog } from '../../kit/FormDialog'
import { Rows } from '../../kit/Rows'
import { usePick } from '../../project/store'
import { usePreview } from '../../project/usePreview'
import { MONO, QUIET, SNAG } from '../../theme/theme'
import { usePastedRows } from './usePastedRows'

interface Props {
  harnessId: string
  code: string
  /** What was pasted onto the table. */
  first: string
  close: () => void
}

export function WireEntry({ harnessId, code, first, close }: Props) {
  const { send } = usePick('send')
  const [text, setText] = useState(first)
  const { rows, unread, reading } = usePastedRows(text)
  const edit = useMemo(
    () => makeEdit('draw-harness-wires', { harness_id: harnessId, rows }),
    [harnessId, rows],
  )
  const preview = usePreview(edit, rows.length > 0)
  const problem = unread || (rows.length && preview.error ? wordsOf(preview.error) : '')
  const draw = async () => {
    if (await send(edit)) close()
  }
  return (
    <FormDialog
      title={`Wires of ${code} from a table`}
      act={rows.length ? `Draw ${counted(rows.length, 'wire')}` : 'Draw'}
      enabled={rows.length > 0 && !problem && !reading}
      onAct={() => void draw()}
      close={close}
      width="md"
    >
      <TextField
        fullWidth
        multiline
        minRows={4}
        maxRows={10}
        label="Rows: signal, colour, mm², from, to, twisted, shield"
        placeholder={'F1+\tRD\t0.75\t-XD1:1\t-XD2:1'}
        value={text}
        onChange={(e) => setText(e.target.value)}
        slotProps={{ htmlInput: { style: { fontFamily: MONO, fontSize: 12.5, whiteSpace: 'pre' } } }}
      />
      <Box sx={{ fontSize: 12.5, color: problem ? SNAG : QUIET, my: 1 }} role="status">
        {problem || 'A wire that is drawn already gets its type and number; connectors that lack are added.'}
      </Box>
      {rows.length > 0 && (
        <Box sx={{ maxHeight: 220, overflow: 'auto' }}>
          <Rows label="Rows" columns={['', 'Signal', 'Colour', 'mm²', 'From', 'To', 'Twisted', 'Shield']}>
            {rows.map((r, n) => (
              <tr key={n} style={{ color: problem.startsWith(`Row ${n + 1}:`) ? SNAG : undefined }}>
                <td>{n + 1}</td>
                <td>{r.signal}</td>
                <td>{r.colour}</td>
                <td>{r.size}</td>
                <td style={{ fontFamily: MONO }}>{r.start}</td>
                <td style={{ fontFamily: MONO }}>{r.end}</td>
                <td>{r.twisted}</td>
                <td>{r.shield}</td>
              </tr>
            ))}
          </Rows>
        </Box>
      )}
    </FormDialog>
  )
}
