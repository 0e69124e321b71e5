/** A sheet or page made from the project, in the inspector: what it shows can be chosen here. */
import Box from '@mui/material/Box'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { Link } from 'react-router'
import { makeEdit } from '../../api/client'
import type { View } from '../../project/view'
import { Field } from '../../kit/Field'
import { useSheetTable } from '../../project/useSheetTable'
import { usePick } from '../../project/store'

export function MadePanel({ view, canEdit }: { view: View; canEdit: boolean }) {
  const { projectId, send } = usePick('projectId', 'send')
  const table = useSheetTable()
  const facts = view.sheet.sheet
  if (!facts) return null
  const sheet = table.data?.sheets.find((s) => s.id === facts.id)
  const subject = table.data?.kinds.find((k) => k.id === facts.kind)?.subject
  const options = table.data?.subjects[facts.kind] ?? []
  const save = (values: Record<string, string>) =>
    send(makeEdit('change-sheet', { sheet_id: facts.id, follow: true, ...values }))
  return (
    <>
      <Box sx={{ fontWeight: 600, mb: 1 }}>
        {sheet ? `Sheet ${facts.number}` : `${facts.number} ${facts.title}`}
      </Box>
      {sheet && subject && (
        <TextField
          select
          fullWidth
          margin="dense"
          label="Shows"
          value={options.some((o) => o.id === sheet[subject]) ? sheet[subject] : ''}
          disabled={!canEdit}
          onChange={(e) => save({ [subject]: e.target.value })}
        >
          <MenuItem value="">nothing yet</MenuItem>
          {options.map((o) => (
            <MenuItem key={o.id} value={o.id}>
              {o.name}
            </MenuItem>
          ))}
        </TextField>
      )}
      {sheet && (
        <>
          <Field label="Title" value={sheet.title} disabled={!canEdit} onSave={(title) => save({ title })} />
          <Field
            label="Number"
            value={sheet.number}
            disabled={!canEdit}
            onSave={(number) => save({ number })}
          />
        </>
      )}
      <Box sx={{ color: 'text.secondary', mt: 1, fontSize: 12.5 }}>
        Made from the model and current after every edit; nothing is drawn on it. A click on a name leads to
        its place on the sheets.
      </Box>
      {sheet && (
        <Box sx={{ fontSize: 12.5, mt: 1 }}>
          <Link to={`/p/${projectId}/brief/sheets`}>All sheets as a table</Link>
        </Box>
      )}
    </>
  )
}
