/** Giving the harness to a space model, and bringing in what that says, the difference shown first. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useRef, useState } from 'react'
import { client, got, makeEdit, type AnyEdit } from '../../api/client'
import { FormDialog } from '../../kit/FormDialog'
import { Rows } from '../../kit/Rows'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'
import { usePreview } from '../../project/usePreview'
import { MONO, QUIET, SNAG } from '../../theme/theme'
import type { HarnessValue } from './shapes'

interface Props {
  harness: HarnessValue
  canEdit: boolean
}

interface SpaceFileContent {
  format?: unknown
  nodes?: unknown
  paths?: unknown
}

const FORMAT = 'jolly-spool-space'

export function SpaceFile({ harness, canEdit }: Props) {
  const { projectId, say } = usePick('projectId', 'say')
  const file = useRef<HTMLInputElement>(null)
  const [edit, setEdit] = useState<AnyEdit | null>(null)
  const read = async (chosen: File | undefined) => {
    if (!chosen) return
    try {
      const content = JSON.parse(await chosen.text()) as SpaceFileContent
      if (content.format !== FORMAT) throw new Error()
      const said = { nodes: content.nodes ?? [], paths: content.paths ?? [] }
      setEdit(makeEdit('take-in-space', { harness_id: harness.id, ...said } as never))
    } catch {
      say(`${chosen.name} is no file of a space model (${FORMAT}).`, 'error')
    }
  }
  const ask = async () => {
    try {
      const said = await got(
        client.POST('/api/projects/{project_id}/harnesses/{harness_id}/space/ask', {
          params: { path: { project_id: projectId, harness_id: harness.id } },
        }),
      )
      setEdit(makeEdit('take-in-space', { harness_id: harness.id, ...said }))
    } catch (error) {
      say(error instanceof Error ? error.message : 'The space model does not answer.', 'error')
    }
  }
  return (
    <Section title="Space model">
      {canEdit && <Button onClick={() => void ask()}>Ask it…</Button>}
      <Button href={`/api/projects/${projectId}/harnesses/${harness.id}/space.json`}>Give out</Button>
      <Button href={`/api/projects/${projectId}/harnesses/${harness.id}/space.gltf`}>glTF</Button>
      {canEdit && <Button onClick={() => file.current?.click()}>Bring in…</Button>}
      <input
        ref={file}
        type="file"
        accept=".json"
        aria-label="File of a space model"
        hidden
        onChange={(e) => {
          void read(e.target.files?.[0])
          e.target.value = ''
        }}
      />
      {edit && <Difference edit={edit} code={harness.code} close={() => setEdit(null)} />}
    </Section>
  )
}

interface DifferenceProps {
  edit: AnyEdit
  code: string
  close: () => void
}

function Difference({ edit, code, close }: DifferenceProps) {
  const { send } = usePick('send')
  const preview = usePreview(edit)
  const problem = preview.error instanceof Error ? preview.error.message : ''
  const rows = preview.data?.table ?? []
  return (
    <FormDialog
      title={`${code} as in the space model`}
      act="Take in"
      enabled={!!preview.data && !problem}
      close={close}
      width="md"
      onAct={() => void send(edit).then((answer) => answer && close())}
    >
      {problem && <Box sx={{ color: SNAG }}>{problem}</Box>}
      {rows.length > 0 && (
        <Rows label="Difference" columns={['What', 'Now', 'In the space model']}>
          {rows.map(([what, now, then], n) => (
            <tr key={n} style={{ fontFamily: MONO }}>
              <td>{what}</td>
              <td>{now}</td>
              <td>{then}</td>
            </tr>
          ))}
        </Rows>
      )}
      {preview.data?.remarks.map((remark) => (
        <Box key={remark} sx={{ fontSize: 12.5, color: QUIET, mt: 0.5 }}>
          {remark}
        </Box>
      ))}
    </FormDialog>
  )
}
