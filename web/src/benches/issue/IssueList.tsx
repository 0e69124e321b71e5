/** The list of the Issue bench: packs, recipes, reports, revisions, single drawings. */
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import { Fragment } from 'react'
import { Choice, Heading } from '../../kit/Bench'
import type { BenchProps } from '../../project/bench'
import { useProject } from '../../project/store'
import { MONO } from '../../theme/theme'
import { EVERYTHING, NEW, type Packs, type Recipes, type Revisions } from './shapes'
import { counted } from '../../kit/counted'

interface Props {
  outline: BenchProps['outline']
  recipes: Recipes
  packs: Packs
  revisions: Revisions
  shown: string
  go: (shown: string) => void
  canEdit: boolean
}

export function IssueList({ outline, recipes, packs, revisions, shown, go, canEdit }: Props) {
  const named = (key: string, name: string, note?: string) => (
    <Choice key={key} chosen={shown === key} onClick={() => go(key)} note={note}>
      {name}
    </Choice>
  )
  return (
    <>
      <Heading>Packs</Heading>
      {packs.packs.map((p) =>
        named(`pack:${p.pack.id || EVERYTHING}`, p.pack.name, p.problem || counted(p.names.length, 'file')),
      )}
      <Heading>Recipes</Heading>
      {recipes.recipes.map((r) => {
        const report = recipes.reports.find((k) => k.key === r.report)
        return named(r.id, r.name, `${report?.title ?? 'gone'}${r.sums.length ? ' · sums' : ''}`)
      })}
      {canEdit && named(NEW, 'New recipe…')}
      <Heading>Revisions</Heading>
      {named('check', 'Check before issue')}
      {named('changes', 'What changed')}
      {revisions.revisions.map((r) =>
        named(`revision:${r.id}`, r.index, [r.issued_on, r.text].filter(Boolean).join(' · ')),
      )}
      {canEdit && named('freeze', `Freeze as ${revisions.next_index}…`)}
      {groupsOf(recipes.reports).map(([group, reports]) => (
        <Fragment key={group}>
          <Heading>{group}</Heading>
          {reports.map((r) => named(r.key, r.title))}
        </Fragment>
      ))}
      <Drawings outline={outline} />
    </>
  )
}

/** Reports by their groups, in the order given. */
function groupsOf(reports: Recipes['reports']) {
  const groups = new Map<string, Recipes['reports']>()
  for (const r of reports) groups.set(r.group, [...(groups.get(r.group) ?? []), r])
  return [...groups]
}

function Drawings({ outline }: { outline: BenchProps['outline'] }) {
  const projectId = useProject((s) => s.projectId)
  const base = `/api/projects/${projectId}`
  const line = (id: string, number: string, title: string) => (
    <Button key={id} href={`${base}/drawing.pdf?sheet_id=${id}`} color="inherit" sx={{ textAlign: 'left' }}>
      <span style={{ fontFamily: MONO, marginRight: 8 }}>{number}</span> {title}
    </Button>
  )
  return (
    <>
      <Heading>Drawings, PDF</Heading>
      <Stack spacing={0.25} sx={{ alignItems: 'flex-start' }}>
        <Button href={`${base}/drawing.pdf`}>All sheets, PDF</Button>
        <Button href={`${base}/drawing.pdf?plans=true`}>All sheets and plans, PDF</Button>
        {outline.sheets.map((s) => line(s.id, s.number, s.title))}
        {outline.pages.map((p) => line(p.id, p.number, p.title))}
      </Stack>
      <Heading>Project file</Heading>
      <Button href={`${base}/file`}>Take out .spool.json</Button>
    </>
  )
}
