/** A list that was edited in a spreadsheet: what would change is shown first, then taken in as one edit. */
import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import { useState } from 'react'
import { client, got } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { FileAct } from '../../kit/FileAct'
import { FormDialog } from '../../kit/FormDialog'
import { Rows } from '../../kit/Rows'
import { usePick } from '../../project/store'
import { fileBody } from '../../api/upload'

type Found = Schemas['ListBackRead']

export function TakeBack() {
  const { projectId, send } = usePick('projectId', 'send')
  const [found, setFound] = useState<Found | null>(null)
  const [problem, setProblem] = useState('')
  const read = (file: File) => {
    const path = { project_id: projectId }
    got(client.POST('/api/projects/{project_id}/list-back', { params: { path }, ...fileBody(file) })).then(
      (value) => {
        setProblem('')
        setFound(value)
      },
      (error: unknown) => setProblem(error instanceof Error ? error.message : String(error)),
    )
  }
  const close = () => {
    setFound(null)
    setProblem('')
  }
  const take = async () => {
    if (!found) return
    const cells = found.cells.map(({ id, column, after, mark }) => ({ id, column, value: after, mark }))
    if (await send({ kind: 'take-list', report: found.report, cells })) close()
  }
  return (
    <>
      <FileAct
        name="Edited list"
        accept=".xlsx"
        hint="An XLSX of this list that was edited in a spreadsheet"
        take={read}
      >
        Take in again…
      </FileAct>
      {(found ?? problem) && (
        <FormDialog
          title="Take in an edited list"
          act={`Take in ${found?.cells.length ?? 0}`}
          enabled={(found?.cells.length ?? 0) > 0}
          width="md"
          close={close}
          onAct={() => void take()}
        >
          {problem && <Alert severity="error">{problem}</Alert>}
          {found && <Difference found={found} />}
        </FormDialog>
      )}
    </>
  )
}

function Difference({ found }: { found: Found }) {
  return (
    <>
      {!found.cells.length && !found.refused.length && <p>Nothing in it differs from the project.</p>}
      {found.cells.length > 0 && (
        <Rows label="What would change" columns={['Object', 'Column', 'Is', 'Becomes']}>
          {found.cells.map((c) => (
            <tr key={`${c.id} ${c.column}`}>
              <td>{c.name}</td>
              <td>{c.heading}</td>
              <td>{c.before || '–'}</td>
              <td>
                <b>{c.after || '–'}</b>
              </td>
            </tr>
          ))}
        </Rows>
      )}
      {found.refused.map((words) => (
        <Alert key={words} severity="warning" sx={{ mt: 1 }}>
          {words}
        </Alert>
      ))}
      {found.ignored.map((words) => (
        <Box key={words} sx={{ mt: 0.5, fontSize: 12.5, color: 'text.secondary' }}>
          {words}
        </Box>
      ))}
    </>
  )
}
