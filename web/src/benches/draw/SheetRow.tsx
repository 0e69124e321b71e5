/**
 * One line of the sheet tree: a group's heading, or a sheet with who is on it.
 *
 * What they look like is told once for the whole tree, and a line is painted again only when it changes: many are in
 * sight, and each time a sheet is opened two of them are other ones.
 */
import AddIcon from '@mui/icons-material/Add'
import ChevronRightIcon from '@mui/icons-material/ChevronRight'
import ExpandMoreIcon from '@mui/icons-material/ExpandMore'
import { memo } from 'react'
import { COPPER, MONO, QUIET, TEAL } from '../../theme/theme'
import { soon } from '../../project/ahead'

/** What the lines of the tree look like. */
export const LINES = {
  '& .row': { position: 'absolute', left: 0, right: 0 },
  '& .group': {
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
  },
  '& .sheet': {
    display: 'flex',
    alignItems: 'center',
    height: '100%',
    borderLeft: '3px solid transparent',
    '&:hover': { bgcolor: '#F5ECE0' },
    '&.open': { borderColor: COPPER, bgcolor: '#F3E3D6' },
    '& .insert': { opacity: 0 },
    '&:hover .insert, & .insert:focus-visible': { opacity: 1 },
  },
  '& .sheet a': {
    display: 'flex',
    gap: 0.75,
    flex: 1,
    minWidth: 0,
    alignItems: 'baseline',
    pl: 1,
    color: 'text.primary',
    textDecoration: 'none',
    whiteSpace: 'nowrap',
  },
  '& .indent a': { pl: 1.75 },
  '& .insert': {
    position: 'absolute',
    right: 2,
    border: 0,
    borderRadius: 1,
    bgcolor: '#FBF8F1',
    color: COPPER,
    p: 0,
    cursor: 'pointer',
    lineHeight: 0,
  },
} as const

const CUT = { flex: 1, overflow: 'hidden', textOverflow: 'ellipsis' } as const
const NUMBER = { fontFamily: MONO, minWidth: 26, color: '#676C78', fontSize: 12.5 }
const HERE = { width: 8, height: 8, borderRadius: 4, background: TEAL, marginRight: 4, flexShrink: 0 }
const SMALL = { fontSize: 17 }

interface GroupProps {
  label: string
  count: number
  closed: boolean
  onToggle: () => void
}

export function GroupRow({ label, count, closed, onToggle }: GroupProps) {
  return (
    <button type="button" className="group" aria-expanded={!closed} title={label} onClick={onToggle}>
      {closed ? <ChevronRightIcon sx={SMALL} /> : <ExpandMoreIcon sx={SMALL} />}
      <span style={{ ...CUT, whiteSpace: 'nowrap' }}>{label}</span>
      <span style={{ color: QUIET, fontWeight: 400, fontSize: 11.5, padding: '0 6px 0 4px' }}>{count}</span>
    </button>
  )
}

interface SheetProps {
  projectId: string
  id: string
  number: string
  title: string
  current: boolean
  indent: boolean
  /** Who is on it, one name a line. */
  people: string
  onOpen: (id: string) => void
  onInsert?: ((id: string) => void) | undefined
}

/** Whether a click is one that opens a link here, not in another tab or window. */
const here = (e: React.MouseEvent) => !(e.button || e.ctrlKey || e.metaKey || e.shiftKey || e.altKey)

export const SheetRow = memo(function SheetRow(props: SheetProps) {
  const { projectId, id, number, title, current, indent, people, onOpen, onInsert } = props
  return (
    <div className={`sheet${current ? ' open' : ''}${indent ? ' indent' : ''}`}>
      <a
        href={`/p/${projectId}/draw/${id}`}
        aria-current={current ? 'page' : undefined}
        title={`${number} ${title}`}
        draggable={false}
        {...soon(projectId, id)}
        onClick={(e) => {
          if (!here(e)) return
          e.preventDefault()
          onOpen(id)
        }}
      >
        <span style={NUMBER}>{number}</span>
        <span style={CUT}>{title || 'untitled'}</span>
      </a>
      {people.split('\n').map((name) => name && <span key={name} title={`${name} is here`} style={HERE} />)}
      {onInsert && (
        <button
          type="button"
          className="insert"
          aria-label={`Add a sheet after ${number}`}
          title="Add a sheet after this one"
          onClick={() => onInsert(id)}
        >
          <AddIcon sx={SMALL} />
        </button>
      )}
    </div>
  )
})
