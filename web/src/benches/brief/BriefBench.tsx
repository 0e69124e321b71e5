/** The Brief bench: the project's facts, its structure, sheets, title blocks, people and journal. */
import { paging, useCommands } from '../../project/commands'
import type { BenchProps } from '../../project/bench'
import Box from '@mui/material/Box'
import { useNavigate, useParams } from 'react-router'
import { Choice } from '../../kit/Bench'
import { BlocksSection } from './BlocksSection'
import { FactsSection } from './FactsSection'
import { JournalSection } from './JournalSection'
import { LanguagesSection } from './LanguagesSection'
import { NumbersSection } from './NumbersSection'
import { PeopleSection } from './PeopleSection'
import { SheetsSection } from './SheetsSection'
import { StructureSection } from './StructureSection'
import { WireTypesSection } from './WireTypesSection'

const SECTIONS = [
  { path: 'project', label: 'Project', note: 'Facts, own fields, allowances' },
  { path: 'structure', label: 'Structure', note: 'Functions and locations' },
  { path: 'sheets', label: 'Sheets', note: 'Kinds, order, numbers, titles' },
  { path: 'wire-types', label: 'Wire types', note: 'Colour, size, category' },
  { path: 'numbers', label: 'Numbers and tags', note: 'Rules, fixing, letters' },
  { path: 'languages', label: 'Languages', note: 'Texts in other languages' },
  { path: 'title-blocks', label: 'Title blocks', note: 'Fields and pictures' },
  { path: 'people', label: 'People', note: 'Roles and invitations' },
  { path: 'journal', label: 'Journal', note: 'Who did what, and when' },
]

export function BriefBench({ canEdit, outline }: BenchProps) {
  const { projectId = '', section = 'project' } = useParams()
  const go = useNavigate()
  const paths = SECTIONS.map((s) => s.path)
  useCommands(
    'Brief',
    paging('section', paths, section, (path) => void go(`/p/${projectId}/brief/${path}`)),
  )
  const list = SECTIONS.map((s) => (
    <Choice
      key={s.path}
      chosen={s.path === section}
      note={s.note}
      onClick={() => void go(`/p/${projectId}/brief/${s.path}`)}
    >
      {s.label}
    </Choice>
  ))
  return (
    <Box sx={{ flex: 1, display: 'flex', minWidth: 0, minHeight: 0 }}>
      {section === 'structure' ? (
        <StructureSection list={list} canEdit={canEdit} />
      ) : section === 'sheets' ? (
        <SheetsSection list={list} canEdit={canEdit} />
      ) : section === 'wire-types' ? (
        <WireTypesSection list={list} canEdit={canEdit} />
      ) : section === 'numbers' ? (
        <NumbersSection list={list} canEdit={canEdit} />
      ) : section === 'languages' ? (
        <LanguagesSection list={list} canEdit={canEdit} />
      ) : section === 'title-blocks' ? (
        <BlocksSection list={list} canEdit={canEdit} />
      ) : section === 'people' ? (
        <PeopleSection list={list} owner={outline.role === 'owner'} />
      ) : section === 'journal' ? (
        <JournalSection list={list} canEdit={canEdit} />
      ) : (
        <FactsSection list={list} canEdit={canEdit} />
      )}
    </Box>
  )
}
