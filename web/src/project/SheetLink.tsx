/** A place on a sheet, one click away. */
import { Link } from 'react-router'
import { soon } from './ahead'
import { useProject } from './store'
import { MONO, TEAL } from '../theme/theme'

interface Props {
  sheetId: string
  select?: string
  children: string
}

export function SheetLink({ sheetId, select, children }: Props) {
  const projectId = useProject((s) => s.projectId)
  if (!sheetId) return null
  const to = `/p/${projectId}/draw/${sheetId}${select ? `?sel=${select}` : ''}`
  return (
    <Link
      to={to}
      {...soon(projectId, sheetId)}
      style={{ color: TEAL, fontFamily: MONO, fontSize: 12, whiteSpace: 'nowrap' }}
    >
      {children}
    </Link>
  )
}
