/** The rows that a recipe gives while it is made, or why it gives none. */
import Box from '@mui/material/Box'
import { ListTable } from './ListTable'
import type { RecipeEdit } from './shapes'
import { useRowsOf } from './useRowsOf'

export function TriedRows({ draft }: { draft: RecipeEdit }) {
  const { list, problem } = useRowsOf(draft)
  return (
    <Box sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column' }}>
      {problem && (
        <Box role="alert" sx={{ p: 1.5, color: 'error.main' }}>
          {problem}
        </Box>
      )}
      {list && <ListTable list={list} label="Rows of the recipe" />}
    </Box>
  )
}
