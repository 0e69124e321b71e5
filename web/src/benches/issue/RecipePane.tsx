/** The recipe beside its rows: columns, filters, groups, sums, order, head, and how it is written as CSV. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import TextField from '@mui/material/TextField'
import { client, got } from '../../api/client'
import { Act, Acts } from '../../kit/Act'
import { PanelPick, plain } from '../../kit/Pick'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'
import { LINE } from '../../theme/theme'
import { RecipeColumns } from './RecipeColumns'
import { RecipeFilters } from './RecipeFilters'
import {
  asEdit,
  columnKey,
  columnName,
  fresh,
  type RecipeColumn,
  type RecipeEdit,
  type Recipes,
} from './shapes'

interface Props {
  draft: RecipeEdit
  setDraft: (draft: RecipeEdit | null) => void
  all: Recipes
  shared: Recipes['shared']
  kept: boolean
  close: () => void
  go: (shown: string) => void
}

/** What may be chosen of a recipe's columns, and of all of its report's. */
function useNames(draft: RecipeEdit, all: Recipes) {
  const report = all.reports.find((r) => r.key === draft.report)
  const columns = (draft.columns ?? []) as RecipeColumn[]
  const chosen = columns.map((c) => ({ id: columnKey(c), name: columnName(report, c) }))
  const own = chosen.filter((c) => !report?.columns.some((k) => k.key === c.id))
  const every = [...(report?.columns ?? []).map((c) => ({ id: c.key, name: c.heading })), ...own]
  return { report, columns, chosen, every }
}

export function RecipePane(props: Props) {
  const { draft, setDraft, all, kept, close, go } = props
  const { send } = usePick('send')
  const { report, columns, chosen, every } = useNames(draft, all)
  const put = (values: Partial<RecipeEdit>) => setDraft({ ...draft, ...values })
  const keep = async () => {
    const done = await send(draft)
    if (!done) return
    close()
    go(draft.recipe_id || done.placed[0] || draft.report)
  }
  return (
    <Box
      component="aside"
      aria-label="Recipe"
      sx={{
        width: 330,
        flexShrink: 0,
        borderLeft: `1px solid ${LINE}`,
        bgcolor: '#FBF8F1',
        overflow: 'auto',
        p: 1.5,
      }}
    >
      <NameAndRows {...{ draft, setDraft, all, put }} />
      <Take {...props} />
      <Section title="Columns">
        <RecipeColumns {...{ report, columns }} put={(next) => put({ columns: next as never })} />
      </Section>
      <Section title="Only rows where">
        <RecipeFilters
          filters={draft.filters ?? []}
          columns={every}
          tests={all.tests}
          without={all.without_value}
          put={(filters) => put({ filters })}
        />
      </Section>
      <Together {...{ draft, report, chosen, every, put }} />
      <HeadAndFile draft={draft} put={put} />
      <Box sx={{ display: 'flex', gap: 1, mt: 2 }}>
        <Button variant="contained" disabled={!draft.name.trim()} onClick={() => void keep()}>
          Keep the recipe
        </Button>
        <Button onClick={close}>Leave it</Button>
      </Box>
      {kept && <MoreActs {...props} />}
    </Box>
  )
}

type Put = (values: Partial<RecipeEdit>) => void
type Names = { id: string; name: string }[]

function Tick({
  label,
  value,
  put,
}: {
  label: string
  value: boolean | undefined
  put: (v: boolean) => void
}) {
  return (
    <FormControlLabel
      control={<Checkbox size="small" checked={value ?? false} onChange={(e) => put(e.target.checked)} />}
      label={label}
      sx={{ display: 'flex', ml: -1, '& .MuiFormControlLabel-label': { fontSize: 12.5 } }}
    />
  )
}

interface NameProps {
  draft: RecipeEdit
  setDraft: Props['setDraft']
  all: Recipes
  put: Put
}

/** What the recipe is called and whose rows it has; with other rows it begins anew. */
function NameAndRows({ draft, setDraft, all, put }: NameProps) {
  return (
    <>
      <TextField
        fullWidth
        label="Name of the recipe"
        value={draft.name}
        onChange={(e) => put({ name: e.target.value })}
      />
      <PanelPick
        label="Rows of"
        value={draft.report}
        options={all.reports.map((r) => ({ id: r.key, name: r.title }))}
        onPick={(key) => {
          const other = all.reports.find((r) => r.key === key)
          if (other) setDraft({ ...fresh(other), recipe_id: draft.recipe_id ?? '', name: draft.name })
        }}
      />
    </>
  )
}

interface TogetherProps {
  draft: RecipeEdit
  report: Recipes['reports'][number] | undefined
  chosen: Names
  every: Names
  put: Put
}

/** What stands together, in which order, and what is summed. */
function Together({ draft, report, chosen, every, put }: TogetherProps) {
  const nothing = [{ id: '', name: 'none' }]
  return (
    <Section title="Together">
      {[0, 1].map((n) => (
        <PanelPick
          key={n}
          label={n ? 'then grouped by' : 'Grouped by'}
          value={draft.groups?.[n] ?? ''}
          options={[...nothing, ...every]}
          disabled={n > (draft.groups?.length ?? 0)}
          onPick={(key) => {
            const groups = [...(draft.groups ?? [])]
            if (key) groups[n] = key
            else groups.splice(n)
            put({ groups })
          }}
        />
      ))}
      <Order draft={draft} every={every} put={put} />
      <Sums draft={draft} chosen={chosen} report={report} put={put} />
      <Tick
        label="Rows that are alike are one, with their sums"
        value={draft.merged}
        put={(merged) => put({ merged })}
      />
      <Tick label="Each group on a page of its own" value={draft.breaks} put={(breaks) => put({ breaks })} />
    </Section>
  )
}

/** Which column rows are ordered by, and which way. */
function Order({ draft, every, put }: { draft: RecipeEdit; every: Names; put: Put }) {
  const first = draft.sort?.[0] ?? ''
  const key = first.replace(/^-/, '')
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
      <PanelPick
        label="Ordered by"
        value={key}
        options={[{ id: '', name: 'as the report is' }, ...every]}
        onPick={(k) => put({ sort: k ? [k] : [] })}
      />
      {key && (
        <Act onClick={() => put({ sort: [first.startsWith('-') ? key : `-${key}`] })}>
          {first.startsWith('-') ? 'falling' : 'rising'}
        </Act>
      )}
    </Box>
  )
}

/** Columns of numbers that are summed. */
function Sums({
  draft,
  chosen,
  report,
  put,
}: {
  draft: RecipeEdit
  chosen: Names
  report: Recipes['reports'][number] | undefined
  put: Put
}) {
  const numbers = chosen.filter((c) => report?.columns.find((k) => k.key === c.id)?.number)
  const sums = draft.sums ?? []
  return numbers.map((c) => (
    <Tick
      key={c.id}
      label={`Sum of “${c.name}”`}
      value={sums.includes(c.id)}
      put={(on) => put({ sums: on ? [...sums, c.id] : sums.filter((s) => s !== c.id) })}
    />
  ))
}

function HeadAndFile({ draft, put }: { draft: RecipeEdit; put: Put }) {
  return (
    <>
      <Section title="Head">
        <TextField
          fullWidth
          margin="dense"
          label="Text with fields in braces"
          value={draft.head}
          onChange={(e) => put({ head: e.target.value })}
        />
        <PanelPick
          label="Stands on"
          value={draft.head_on ?? 'all'}
          options={[
            { id: 'all', name: 'all pages' },
            { id: 'first', name: 'the first page' },
            { id: 'none', name: 'no page' },
          ]}
          onPick={(head_on) => put({ head_on })}
        />
      </Section>
      <Section title="As CSV">
        <PanelPick
          label="Between cells"
          value={draft.separator ?? ','}
          options={[
            { id: ',', name: 'comma' },
            { id: ';', name: 'semicolon' },
            { id: 'tab', name: 'tab' },
          ]}
          onPick={(separator) => put({ separator })}
        />
        <PanelPick
          label="Decimal sign"
          value={draft.decimal ?? '.'}
          options={[
            { id: '.', name: 'point' },
            { id: ',', name: 'comma' },
          ]}
          onPick={(decimal) => put({ decimal })}
        />
        <PanelPick
          label="Letters"
          value={draft.encoding ?? 'utf-8 with mark'}
          options={plain(['utf-8 with mark', 'utf-8', 'windows-1252'])}
          onPick={(encoding) => put({ encoding })}
        />
      </Section>
    </>
  )
}

/** Begin with a recipe that is kept for all projects. */
function Take({ draft, setDraft, shared }: Props) {
  const { projectId } = usePick('projectId')
  if (!shared.length) return null
  const take = async (id: string) => {
    const path = { project_id: projectId, shared_id: id }
    const found = await got(
      client.GET('/api/projects/{project_id}/shared-recipes/{shared_id}', { params: { path } }),
    )
    setDraft({ ...asEdit(found), recipe_id: draft.recipe_id ?? '' })
  }
  return (
    <PanelPick
      label="Begin with a recipe kept for all"
      value=""
      options={shared.map((s) => ({ id: s.id, name: s.name }))}
      onPick={(id) => void take(id)}
    />
  )
}

/** What else can be done with a recipe of the project. */
function MoreActs({ draft, setDraft, close, go }: Props) {
  const { send, projectId } = usePick('send', 'projectId')
  const share = () => {
    const path = { project_id: projectId, recipe_id: draft.recipe_id ?? '' }
    void client
      .POST('/api/projects/{project_id}/recipes/{recipe_id}/share', { params: { path } })
      .then(() => close())
  }
  const remove = async () => {
    const done = await send({ kind: 'remove-recipe', recipe_id: draft.recipe_id ?? '' })
    if (!done) return
    close()
    go(draft.report)
  }
  return (
    <Acts>
      <Act onClick={() => setDraft({ ...draft, recipe_id: '', name: `${draft.name} (copy)` })}>Copy it</Act>
      <Act onClick={share} hint="Other projects can begin with it">
        Keep for all projects
      </Act>
      <Button
        variant="outlined"
        href={`/api/projects/${projectId}/recipes/${draft.recipe_id ?? ''}/recipe.json`}
        sx={{ py: 0.1, px: 0.75, minWidth: 0, fontSize: 12.5 }}
      >
        Save as a file
      </Button>
      <Act onClick={() => void remove()}>Remove it</Act>
    </Acts>
  )
}
