/** A report or recipe: its rows, taking it out and in again, and making or changing the recipe beside it. */
import Button from '@mui/material/Button'
import Box from '@mui/material/Box'
import { useState } from 'react'
import { client, got } from '../../api/client'
import { Empty } from '../../kit/Bench'
import { Act } from '../../kit/Act'
import { TableBar } from '../../kit/TableBar'
import { useProject } from '../../project/store'
import { useBench } from '../../project/useBench'
import { ListTable } from './ListTable'
import { RecipePane } from './RecipePane'
import { asEdit, fresh, type ListValue, type RecipeEdit, type Recipes } from './shapes'
import { TakeBack } from './TakeBack'
import { TriedRows } from './TriedRows'

const FORMATS = ['xlsx', 'csv', 'pdf', 'json'] as const

interface Props {
  /** Key of a report or id of a recipe. */
  id: string
  all: Recipes
  canEdit: boolean
  go: (shown: string) => void
}

export function ListPage({ id, all, canEdit, go }: Props) {
  const [draft, setDraft] = useState<RecipeEdit | null>(null)
  const recipe = all.recipes.find((r) => r.id === id)
  const report = all.reports.find((r) => r.key === (recipe?.report ?? id))
  if (!report) return <Empty>This list is gone. Choose another on the left.</Empty>
  const begin = () => setDraft(recipe ? asEdit(recipe) : fresh(report))
  return (
    <>
      <TableBar>
        <b style={{ whiteSpace: 'nowrap' }}>{recipe?.name ?? report.title}</b>
        <Box
          component="span"
          title={report.help}
          sx={{
            fontSize: 12.5,
            color: 'text.secondary',
            overflow: 'hidden',
            whiteSpace: 'nowrap',
            textOverflow: 'ellipsis',
          }}
        >
          {recipe ? `by recipe, from “${report.title}”` : report.help}
        </Box>
        <Box sx={{ flex: 1 }} />
        {canEdit && !draft && (
          <Act onClick={begin}>{recipe ? 'Change the recipe' : 'Make a recipe of it'}</Act>
        )}
        {canEdit && report.back && !draft && <TakeBack />}
        {!draft && <Formats id={id} />}
      </TableBar>
      <Box sx={{ flex: 1, minHeight: 0, display: 'flex' }}>
        {draft ? <TriedRows draft={draft} /> : <Kept id={id} />}
        {draft && (
          <RecipePane
            {...{ draft, setDraft, all, go }}
            close={() => setDraft(null)}
            shared={all.shared}
            kept={recipe !== undefined}
          />
        )}
      </Box>
    </>
  )
}

function Formats({ id }: { id: string }) {
  const projectId = useProject((s) => s.projectId)
  return FORMATS.map((f) => (
    <Button
      key={f}
      variant="outlined"
      sx={{ py: 0.1, px: 0.75, minWidth: 0, fontSize: 12.5 }}
      href={`/api/projects/${projectId}/lists/${id}/file.${f}`}
    >
      {f.toUpperCase()}
    </Button>
  ))
}

function Kept({ id }: { id: string }) {
  const projectId = useProject((s) => s.projectId)
  const list = useBench<ListValue>(
    'list',
    () =>
      got(
        client.GET('/api/projects/{project_id}/lists/{list_id}/rows', {
          params: { path: { project_id: projectId, list_id: id } },
        }),
      ),
    [id],
  )
  if (list.error) return <Empty>{list.error.message}</Empty>
  return list.data ? <ListTable list={list.data} label="Rows" /> : <Empty>Reading the list…</Empty>
}
