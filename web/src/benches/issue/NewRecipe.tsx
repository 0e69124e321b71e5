/** A recipe from nothing: which rows it has is chosen first, all else beside the rows. */
import Box from '@mui/material/Box'
import { useState } from 'react'
import { client, got } from '../../api/client'
import { FileAct } from '../../kit/FileAct'
import { TableBar } from '../../kit/TableBar'
import { usePick } from '../../project/store'
import { RecipePane } from './RecipePane'
import { asEdit, fresh, type RecipeEdit, type Recipes } from './shapes'
import { TriedRows } from './TriedRows'
import { fileBody } from '../../api/upload'

const USUAL = 'devices'

export function NewRecipe({ all, go }: { all: Recipes; go: (shown: string) => void }) {
  const first = all.reports.find((r) => r.key === USUAL) ?? all.reports[0]
  const [draft, setDraft] = useState<RecipeEdit | null>(first ? fresh(first) : null)
  if (!draft) return null
  return <Making {...{ draft, setDraft, all, go }} />
}

/** Begin with the recipe of a file. */
function FromFile({ take }: { take: (draft: RecipeEdit) => void }) {
  const { projectId } = usePick('projectId')
  const [problem, setProblem] = useState('')
  const read = (file: File) => {
    const path = { project_id: projectId }
    got(client.POST('/api/projects/{project_id}/recipe-file', { params: { path }, ...fileBody(file) })).then(
      (found) => {
        setProblem('')
        take(asEdit(found))
      },
      (error: unknown) => setProblem(error instanceof Error ? error.message : String(error)),
    )
  }
  return (
    <>
      {problem && (
        <Box component="span" role="alert" sx={{ fontSize: 12.5, color: 'error.main' }}>
          {problem}
        </Box>
      )}
      <FileAct name="Recipe file" accept=".json" take={read}>
        Begin with a recipe file…
      </FileAct>
    </>
  )
}

interface Props {
  draft: RecipeEdit
  setDraft: (draft: RecipeEdit | null) => void
  all: Recipes
  go: (shown: string) => void
}

function Making({ draft, setDraft, all, go }: Props) {
  return (
    <>
      <TableBar>
        <b>{draft.name || 'New recipe'}</b>
        <Box sx={{ flex: 1 }} />
        <FromFile take={setDraft} />
      </TableBar>
      <Box sx={{ flex: 1, minHeight: 0, display: 'flex' }}>
        <TriedRows draft={draft} />
        <RecipePane
          {...{ draft, setDraft, all, go }}
          shared={all.shared}
          kept={false}
          close={() => go(draft.report)}
        />
      </Box>
    </>
  )
}
