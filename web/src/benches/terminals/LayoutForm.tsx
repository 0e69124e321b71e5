/** Laying a strip out as a spreadsheet says: what is wrong in it and what would change is shown first. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useState } from 'react'
import { client, got, makeEdit, wordsOf, type AnyEdit } from '../../api/client'
import { fileBody } from '../../api/upload'
import type { Schemas } from '../../api/shapes'
import { usePick } from '../../project/store'
import { usePreview } from '../../project/usePreview'
import { MONO, QUIET, SNAG } from '../../theme/theme'
import { FormDialog } from '../../kit/FormDialog'
import type { Strip } from './shapes'

type Read = Schemas['LayoutValue']
type Lines = Extract<AnyEdit, { kind: 'lay-out-strip' }>['lines']

/** What a file holds, read by the server. */
async function readFile(projectId: string, file: File): Promise<Read> {
  const path = { project_id: projectId }
  return got(
    client.POST('/api/projects/{project_id}/strip-layout/read', { params: { path }, ...fileBody(file) }),
  )
}

export function LayoutForm({ strip, close }: { strip: Strip; close: () => void }) {
  const { projectId, send, say } = usePick('projectId', 'send', 'say')
  const [read, setRead] = useState<Read | null>(null)
  const [name, setName] = useState('')
  const edit = makeEdit('lay-out-strip', { strip_id: strip.id, lines: (read?.lines ?? []) as Lines })
  const preview = usePreview(edit, (read?.lines.length ?? 0) > 0)
  const problem = preview.error instanceof Error ? preview.error.message : ''
  const choose = (file: File | undefined) => {
    if (!file) return
    readFile(projectId, file).then(
      (found) => {
        setRead(found)
        setName(file.name)
      },
      (error: unknown) => say(wordsOf(error), 'error'),
    )
  }
  const take = () =>
    void send(edit).then((answer) => {
      if (answer) close()
    })
  return (
    <FormDialog
      title={`Lay out ${strip.tag}`}
      act="Lay out"
      enabled={!problem && (preview.data?.table?.length ?? 0) > 0}
      close={close}
      onAct={take}
    >
      <Button variant="outlined" component="label">
        Choose a CSV or XLSX file
        <input
          hidden
          type="file"
          accept=".csv,.xlsx,.txt"
          data-testid="layout-file"
          onChange={(e) => choose(e.target.files?.[0])}
        />
      </Button>
      <Box sx={{ color: QUIET, fontSize: 12.5, my: 0.5 }}>
        {name || 'Columns: Number, Kind, Level, Bridge, Part, Spare, Remark'}
      </Box>
      {read?.faults.map((fault) => (
        <Box key={fault} role="alert" sx={{ color: SNAG, fontSize: 12.5 }}>
          {fault}
        </Box>
      ))}
      <Box
        aria-label="What would change"
        sx={{ maxHeight: 220, overflow: 'auto', fontFamily: MONO, fontSize: 12.5, mt: 1 }}
      >
        {problem && <span style={{ color: SNAG }}>{problem}</span>}
        {preview.data?.table?.map(([what, words], n) => (
          <div key={`${what} ${n}`}>{`${what}: ${words}`}</div>
        ))}
      </Box>
    </FormDialog>
  )
}
