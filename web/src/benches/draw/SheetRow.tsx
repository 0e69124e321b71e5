/** One line of the sheet tree: a group's heading, or a sheet with who is on it. */
import AddIcon from '@mui/icons-material/Add'
import ChevronRightIcon from '@mui/icons-material/ChevronRight'
import ExpandMoreIcon from '@mui/icons-material/ExpandMore'
import Box from '@mui/material/Box'
import { Link } from 'react-router'
import { COPPER, MONO, QUIET, TEAL } from '../../theme/theme'
import { soon } from '../../project/ahead'
import { useProject } from '../../project/store'

interface GroupProps {
  label: string
  count: number
  closed: boolean
  onToggle: () => void
}

export function GroupRow({ label, count, closed, onToggle }: GroupProps) {
  return (
    <Box
      component="button"
      type="button"
      aria-expanded={!closed}
      title={label}
      onClick={onToggle}
      sx={{
        display: 'flex',
        alignItems: 'center',
        width: '100%',
        height: '100%',
        border: 0,
        bgcolor: 'transparent',
        font: 'inherit',
        fontWeight: 600,
        color: 'inherit',
        px: 0.5,
        cursor: 'pointer',
        textAlign: 'left',
      }}
    >
      {closed ? <ChevronRightIcon sx={{ fontSize: 17 }} /> : <ExpandMoreIcon sx={{ fontSize: 17 }} />}
      <span style={{ flex: 1, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
        {label}
      </span>
      <span style={{ color: QUIET, fontWeight: 400, fontSize: 11.5, paddingRight: 6 }}>{count}</span>
    </Box>
  )
}

interface SheetProps {
  projectId: string
  page: { id: string; number: string; title: string }
  current: boolean
  indent: boolean
  people: string[]
  onInsert?: (() => void) | undefined
}

export function SheetRow({ projectId, page, current, indent, people, onInsert }: SheetProps) {
  return (
    <Box
      sx={{
        display: 'flex',
        alignItems: 'center',
        height: '100%',
        borderLeft: '3px solid',
        borderColor: current ? COPPER : 'transparent',
        bgcolor: current ? '#F3E3D6' : undefined,
        '&:hover': { bgcolor: current ? '#F3E3D6' : '#F5ECE0' },
        '& .insert': { opacity: 0 },
        '&:hover .insert, & .insert:focus-visible': { opacity: 1 },
      }}
    >
      <Box
        component={Link}
        to={`/p/${projectId}/draw/${page.id}`}
        aria-current={current ? 'page' : undefined}
        title={`${page.number} ${page.title}`}
        draggable={false}
        {...soon(projectId, page.id)}
        onClick={(e: React.MouseEvent) => {
          const here = !e.ctrlKey && !e.metaKey && !e.shiftKey
          if (here) useProject.getState().openAhead(projectId, page.id)
        }}
        sx={{
          display: 'flex',
          gap: 0.75,
          flex: 1,
          minWidth: 0,
          alignItems: 'baseline',
          pl: indent ? 1.75 : 1,
          color: 'text.primary',
          textDecoration: 'none',
          whiteSpace: 'nowrap',
        }}
      >
        <span style={{ fontFamily: MONO, minWidth: 26, color: '#676C78', fontSize: 12.5 }}>
          {page.number}
        </span>
        <span style={{ flex: 1, overflow: 'hidden', textOverflow: 'ellipsis' }}>
          {page.title || 'untitled'}
        </span>
      </Box>
      {people.map((name) => (
        <span
          key={name}
          title={`${name} is here`}
          style={{ width: 8, height: 8, borderRadius: 4, background: TEAL, marginRight: 4, flexShrink: 0 }}
        />
      ))}
      {onInsert && <Insert number={page.number} onInsert={onInsert} />}
    </Box>
  )
}

interface InsertProps {
  number: string
  onInsert: () => void
}

function Insert({ number, onInsert }: InsertProps) {
  return (
    <Box
      component="button"
      type="button"
      className="insert"
      aria-label={`Add a sheet after ${number}`}
      title="Add a sheet after this one"
      onClick={onInsert}
      sx={{
        position: 'absolute',
        right: 2,
        border: 0,
        borderRadius: 1,
        bgcolor: '#FBF8F1',
        color: COPPER,
        p: 0,
        cursor: 'pointer',
        lineHeight: 0,
      }}
    >
      <AddIcon sx={{ fontSize: 17 }} />
    </Box>
  )
}
