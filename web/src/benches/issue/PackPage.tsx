/** A pack: what it holds and what its files are called, issuing it with progress, and what was issued. */
import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import type { AnyEdit } from '../../api/client'
import { Act, Acts } from '../../kit/Act'
import { PanelPick, Pick, plain } from '../../kit/Pick'
import { Section } from '../../kit/Section'
import { TableBar } from '../../kit/TableBar'
import { usePick } from '../../project/store'
import { languageName } from '../../project/useWordings'
import { MONO, QUIET } from '../../theme/theme'
import { PackRun } from './PackRun'
import { useRuns } from './useRuns'
import type { PackLine, Packs, RunValue } from './shapes'

type PackEdit = Extract<AnyEdit, { kind: 'keep-pack' }>
type FileOf = Record<string, string>

interface Props {
  line: PackLine
  all: Packs
  canEdit: boolean
  go: (shown: string) => void
}

export function PackPage({ line, all, canEdit, go }: Props) {
  const { pack } = line
  const { mine, issue, cancel, problem } = useRuns(pack.id)
  const [draft, setDraft] = useState<PackEdit | null>(null)
  const running = mine.find((r) => r.state === 'running')
  const begin = (id: string, name: string) =>
    setDraft({
      kind: 'keep-pack',
      pack_id: id,
      name,
      files: pack.files,
      pattern: pack.pattern,
      language: pack.language,
    })
  return (
    <>
      <TableBar>
        <b>{pack.name}</b>
        <span style={{ fontSize: 12.5, color: QUIET }}>
          {line.names.length} file{line.names.length === 1 ? '' : 's'} and a page of contents
        </span>
        <Box sx={{ flex: 1 }} />
        {canEdit && !draft && (
          <Act onClick={() => begin(pack.id, pack.id ? pack.name : 'My pack')}>
            {pack.id ? 'Change the pack' : 'Make a pack of it'}
          </Act>
        )}
        <Button
          variant="contained"
          size="small"
          disabled={Boolean(running ?? line.problem) || draft !== null}
          onClick={issue}
        >
          Issue this pack
        </Button>
      </TableBar>
      <Box sx={{ flex: 1, minHeight: 0, overflow: 'auto', p: 2 }}>
        {(problem || line.problem) && <Alert severity="error">{problem || line.problem}</Alert>}
        {draft ? <PackForm {...{ draft, setDraft, all, go }} /> : <Issued {...{ line, mine, cancel }} />}
      </Box>
    </>
  )
}

interface IssuedProps {
  line: PackLine
  mine: RunValue[]
  cancel: (id: string) => void
}

/** What was issued last, what the pack holds, and what was issued before. */
function Issued({ line, mine, cancel }: IssuedProps) {
  return (
    <>
      {mine.slice(0, 1).map((run) => (
        <PackRun key={run.id} run={run} cancel={() => cancel(run.id)} open />
      ))}
      <Section title="What it holds">
        <Box
          component="ul"
          aria-label="Files of the pack"
          sx={{ columns: '2 260px', m: 0, pl: 2, fontSize: 12.5 }}
        >
          {line.names.map((name) => (
            <li key={name} style={{ fontFamily: MONO }}>
              {name}
            </li>
          ))}
        </Box>
      </Section>
      {mine.length > 1 && (
        <Section title="Issued before">
          {mine.slice(1).map((run) => (
            <PackRun key={run.id} run={run} cancel={() => cancel(run.id)} />
          ))}
        </Section>
      )}
    </>
  )
}

interface FormProps {
  draft: PackEdit
  setDraft: (draft: PackEdit | null) => void
  all: Packs
  go: (shown: string) => void
}

interface CopyProps {
  draft: PackEdit
  setDraft: (draft: PackEdit) => void
  remove: () => Promise<void>
}

const CopyOrRemove = ({ draft, setDraft, remove }: CopyProps) => (
  <Acts>
    <Act onClick={() => setDraft({ ...draft, pack_id: '', name: `${draft.name} (copy)` })}>Copy it</Act>
    <Act onClick={() => void remove()}>Remove it</Act>
  </Acts>
)

const inLanguages = (codes: string[]) => [
  { id: '', name: 'own language' },
  ...codes.map((id) => ({ id, name: languageName(id) })),
]

function PackForm({ draft, setDraft, all, go }: FormProps) {
  const { send } = usePick('send')
  const files = (draft.files ?? []) as FileOf[]
  const put = (values: Partial<PackEdit>) => setDraft({ ...draft, ...values })
  const keep = async () => {
    const done = await send(draft)
    if (!done) return
    setDraft(null)
    go(`pack:${draft.pack_id || (done.placed[0] ?? '')}`)
  }
  const remove = async () => {
    if (!(await send({ kind: 'remove-pack', pack_id: draft.pack_id ?? '' }))) return
    setDraft(null)
    go('pack:everything')
  }
  return (
    <Box component="form" aria-label="Pack" sx={{ maxWidth: 760 }} onSubmit={(e) => e.preventDefault()}>
      <TextField
        fullWidth
        margin="dense"
        label="Name of the pack"
        value={draft.name}
        onChange={(e) => put({ name: e.target.value })}
      />
      <TextField
        fullWidth
        margin="dense"
        label="Names of files"
        value={draft.pattern}
        onChange={(e) => put({ pattern: e.target.value })}
        helperText={`Made of letters and pieces in braces: {${all.pieces.slice(0, 9).join('}, {')}} …`}
      />
      {all.languages.length > 0 && (
        <PanelPick
          label="In the language"
          value={draft.language ?? ''}
          options={inLanguages(all.languages)}
          onPick={(language) => put({ language })}
        />
      )}
      <FilesOf {...{ files, all }} put={(next) => put({ files: next })} />
      <Box sx={{ display: 'flex', gap: 1, mt: 2 }}>
        <Button variant="contained" disabled={!draft.name.trim()} onClick={() => void keep()}>
          Keep the pack
        </Button>
        <Button onClick={() => setDraft(null)}>Leave it</Button>
        <Box sx={{ flex: 1 }} />
        {draft.pack_id && <CopyOrRemove {...{ draft, setDraft, remove }} />}
      </Box>
    </Box>
  )
}

interface FilesProps {
  files: FileOf[]
  all: Packs
  put: (files: FileOf[]) => void
}

function FilesOf({ files, all, put }: FilesProps) {
  return (
    <Section title="Files">
      {files.map((file, n) => (
        <FileLine
          key={`${n} ${file.what}`}
          {...{ file, all }}
          put={(next) => put(files.map((f, i) => (i === n ? next : f)))}
          remove={() => put(files.filter((_, i) => i !== n))}
        />
      ))}
      <Pick
        fullWidth
        margin="dense"
        label="Add to the pack"
        value=""
        options={all.items.map((i) => ({ id: i.what, name: i.title }))}
        onPick={(what) => {
          const format = all.items.find((i) => i.what === what)?.formats[0] ?? ''
          put([...files, { what, format }])
        }}
      />
    </Section>
  )
}

interface LineProps {
  file: FileOf
  all: Packs
  put: (file: FileOf) => void
  remove: () => void
}

/** One file of a pack: what it is, and in which format. */
function FileLine({ file, all, put, remove }: LineProps) {
  const name = file.what?.split(':')[0]
  const item = all.items.find((i) => i.what === file.what) ?? all.items.find((i) => i.what === name)
  const title = item?.title ?? 'gone'
  const subject = item && item.what !== file.what ? ` (${file.what?.split(':')[1] ?? ''})` : ''
  return (
    <Box role="group" aria-label={title} sx={{ display: 'flex', gap: 1, alignItems: 'center', mb: 0.5 }}>
      <Box sx={{ flex: 1, fontSize: 13 }}>
        {title}
        {subject}
      </Box>
      <Pick
        label="Format"
        size="small"
        sx={{ width: 190 }}
        value={file.format ?? item?.formats[0] ?? ''}
        options={plain(item?.formats ?? [])}
        onPick={(format) => put({ ...file, format })}
      />
      <Act name={`Take out ${title}${subject}`} onClick={remove}>
        ×
      </Act>
    </Box>
  )
}
