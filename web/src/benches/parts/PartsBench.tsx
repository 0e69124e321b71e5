/** The Parts bench: the libraries, what of them is in this project, and who changed what. */
import { paging, useCommands } from '../../project/commands'
import type { BenchProps } from '../../project/bench'
import Box from '@mui/material/Box'
import { useNavigate, useParams } from 'react-router'
import { Choice, Heading } from '../../kit/Bench'
import { CatalogueSection } from './CatalogueSection'
import { ExchangeSection } from './ExchangeSection'
import { LibrarySection } from './LibrarySection'
import { ProjectSection } from './ProjectSection'
import { ShelvesSection } from './ShelvesSection'
import { SymbolsSection } from './SymbolsSection'

const SECTIONS = [
  { path: 'library', label: 'Library', note: 'Find, make and change parts' },
  { path: 'catalogue', label: 'Catalogue', note: 'What makers offer' },
  { path: 'symbols', label: 'Symbols', note: 'Draw what does not come along' },
  { path: 'project', label: 'In this project', note: 'Copies, stale, where used' },
  { path: 'exchange', label: 'In and out', note: 'Tables and library files' },
  { path: 'libraries', label: 'Libraries', note: 'Order, own fields, changes' },
]

export function PartsBench({ canEdit }: BenchProps) {
  const { projectId = '', section = 'library' } = useParams()
  const go = useNavigate()
  const paths = SECTIONS.map((s) => s.path)
  useCommands(
    'Parts',
    paging('section', paths, section, (path) => void go(`/p/${projectId}/parts/${path}`)),
  )
  const list = (
    <>
      <Heading>Parts</Heading>
      {SECTIONS.map((s) => (
        <Choice
          key={s.path}
          chosen={s.path === section}
          note={s.note}
          onClick={() => void go(`/p/${projectId}/parts/${s.path}`)}
        >
          {s.label}
        </Choice>
      ))}
    </>
  )
  return (
    <Box sx={{ flex: 1, display: 'flex', minWidth: 0, minHeight: 0 }}>
      {section === 'project' ? (
        <ProjectSection list={list} canEdit={canEdit} />
      ) : section === 'catalogue' ? (
        <CatalogueSection list={list} />
      ) : section === 'symbols' ? (
        <SymbolsSection list={list} />
      ) : section === 'exchange' ? (
        <ExchangeSection list={list} />
      ) : section === 'libraries' ? (
        <ShelvesSection list={list} />
      ) : (
        <LibrarySection list={list} />
      )}
    </Box>
  )
}
