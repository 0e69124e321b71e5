/** A recipe from nothing: which rows it has is chosen first, all else beside the rows. */
import Box from '@mui/material/Box'
import { useState } from 'react'
import { TableBar } from '../../kit/TableBar'
import { RecipePane } from './RecipePane'
import { fresh, type RecipeEdit, type Recipes } from './shapes'
import { TriedRows } from './TriedRows'

const USUAL = 'devices'

export function NewRecipe({ all, go }: { all: Recipes; go: (shown: string) => void }) {
  const first = all.reports.find((r) => r.key === USUAL) ?? all.reports[0]
  const [draft, setDraft] = useState<RecipeEdit | null>(first ? fresh(first) : null)
  if (!draft) return null
  return <Making {...{ draft, setDraft, all, go }} />
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
