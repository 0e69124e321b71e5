/** What every bench is given. */
import type { LastingOutline } from './useOutline'

export interface BenchProps {
  outline: LastingOutline
  canEdit: boolean
}
