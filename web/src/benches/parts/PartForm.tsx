/** The form of a part: what it is, its ratings, units, outline, buying; what is still missing is shown as one goes. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useEffectEvent, useState, type ReactNode } from 'react'
import { client, got, wordsOf } from '../../api/client'
import { COPPER, LINE, QUIET, SNAG, TEAL } from '../../theme/theme'
import { Pick, plain } from '../../kit/Pick'
import { Section } from '../../kit/Section'
import { useProject } from '../../project/store'
import { CoresFill } from './CoresFill'
import { DrawnWith } from './DrawnWith'
import { fileUrl, FilesSection } from './FilesSection'
import {
  draftStep,
  PURPOSES,
  type Draft,
  type FieldSpec,
  type Kinds,
  type PartRecord,
  type Shelf,
} from './kinds'
import { TextsEditor } from './TextsEditor'
import { UnitsEditor } from './UnitsEditor'

interface Props {
  title: string
  note: string
  start: Draft
  kinds: Kinds
  shelves: Shelf[]
  /** Where the part is; none for a new one. */
  shelf?: { id: string; may_change: boolean }
  close: () => void
  done: (id: string) => void
  children?: ReactNode
}

const grid = { display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1, pt: 0.75 }
const small = { slotProps: { htmlInput: { style: { fontSize: 12.5 } } } }

const ASIDE = {
  width: 470,
  flexShrink: 0,
  borderLeft: `1px solid ${LINE}`,
  bgcolor: '#FBF8F1',
  overflow: 'auto',
  p: 2,
} as const

type Put = (part: Partial<PartRecord>) => void

/** What is missing is for the server to say; it is asked when the hand rests. */
function useMissing(record: PartRecord, told: (missing: Draft['missing'] | null, problem: string) => void) {
  const tell = useEffectEvent(told)
  useEffect(() => {
    let late = false
    const timer = window.setTimeout(() => {
      draftStep({ act: 'check', record }).then(
        ({ missing, problem }) => !late && tell(missing, problem),
        (error: unknown) => !late && tell(null, wordsOf(error)),
      )
    }, 250)
    return () => {
      late = true
      window.clearTimeout(timer)
    }
  }, [record])
}

/** Keeping a part in a library; what else shows parts is asked again. */
function useSaving(done: (id: string) => void, failed: (words: string) => void) {
  const queries = useQueryClient()
  return (record: PartRecord, shelf: string) =>
    got(client.POST('/api/library/part', { body: { shelf, record: { ...record } } })).then(
      ({ record: kept }) => {
        for (const key of ['library', 'part', 'part-kinds', 'makers', 'shelves', 'project-parts', 'device'])
          void queries.invalidateQueries({ queryKey: [key] })
        useProject.getState().say(`${kept.maker} ${kept.number} is in the library.`)
        done(kept.id)
      },
      (error: unknown) => failed(wordsOf(error)),
    )
}

export function PartForm({ title, note, start, kinds, shelves, shelf, close, done, children }: Props) {
  const [draft, setDraft] = useState(start)
  const [problem, setProblem] = useState('')
  const save = useSaving(done, setProblem)
  const { record } = draft
  const of = draft.spec ?? kinds.classes.find((c) => c.key === record.part_class)
  const locked = shelf !== undefined && !shelf.may_change
  const changed = JSON.stringify(record) !== JSON.stringify(start.record) || !record.id
  const put: Put = (part) => setDraft((d) => ({ ...d, record: { ...d.record, ...part } }))
  useMissing(record, (missing, wrong) => {
    if (missing) setDraft((d) => ({ ...d, missing }))
    setProblem(wrong)
  })
  const again = () => {
    setDraft(start)
    setProblem('')
  }
  const facts = { record, kinds, locked, put }
  return (
    <Box component="aside" aria-label={title} sx={ASIDE}>
      <Head title={title} of={of?.name ?? ''} picture={record.picture} close={close} />
      {note && <Box sx={{ fontSize: 12.5, color: COPPER, mb: 1 }}>{note}</Box>}
      <Lacks missing={draft.missing} />
      <Naming {...facts} />
      {of && <OfClass {...facts} of={of} set={setDraft} />}
      <Size {...facts} />
      <Buying {...facts} />
      <DrawnWith {...facts} />
      <FilesSection record={record} locked={locked} put={put} />
      <TextsEditor record={record} locked={locked} put={put} />
      {problem && <Box sx={{ color: SNAG, fontSize: 12.5, mt: 1 }}>{problem}</Box>}
      {!locked && (
        <Keep
          shelves={shelves.filter((s) => s.may_change)}
          first={shelf?.id ?? ''}
          word={record.id ? 'Save' : 'Keep'}
          save={changed ? (target) => void save(record, target) : undefined}
          again={changed && record.id ? again : undefined}
        />
      )}
      {children}
    </Box>
  )
}

type OfClassProps = FactsProps & {
  of: Kinds['classes'][number]
  set: React.Dispatch<React.SetStateAction<Draft>>
}

/** What parts of a class have: ratings, units, cores. */
function OfClass({ of, set, ...facts }: OfClassProps) {
  const { record, kinds, locked } = facts
  return (
    <>
      {of.fields.length > 0 && <Ratings {...facts} of={of} />}
      {of.units.length > 0 && <UnitsEditor {...facts} of={of} set={set} />}
      {record.part_class === 'cable' && !locked && <CoresFill record={record} kinds={kinds} set={set} />}
    </>
  )
}

interface HeadProps {
  title: string
  of: string
  picture: string
  close: () => void
}

const Head = ({ title, of, picture, close }: HeadProps) => (
  <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mb: 0.5 }}>
    {picture && <img src={fileUrl(picture)} alt="" height={40} style={{ background: '#fff' }} />}
    <Box sx={{ fontWeight: 600, flex: 1 }}>{title}</Box>
    <span style={{ fontSize: 12, color: QUIET }}>{of}</span>
    <Button onClick={close} aria-label="Close the part">
      Close
    </Button>
  </Box>
)

interface FactsProps {
  record: PartRecord
  kinds: Kinds
  locked: boolean
  put: Put
}

interface FieldProps extends FactsProps {
  label: string
  of: keyof PartRecord
  wide?: boolean
}

function Words({ label, of, record, locked, put, wide }: FieldProps) {
  return (
    <TextField
      label={label}
      value={String(record[of] ?? '')}
      disabled={locked}
      onChange={(e) => put({ [of]: e.target.value })}
      sx={wide ? { gridColumn: '1 / 3' } : undefined}
      {...small}
    />
  )
}

function Amount({ label, of, record, locked, put }: FieldProps) {
  return (
    <TextField
      label={label}
      type="number"
      value={record[of] || ''}
      disabled={locked}
      onChange={(e) => put({ [of]: Math.max(0, Number(e.target.value) || 0) })}
      {...small}
    />
  )
}

const Naming = (facts: FactsProps) => (
  <Box sx={{ ...grid, mt: 1 }}>
    <Words label="Maker" of="maker" {...facts} />
    <Words label="Number" of="number" {...facts} />
    <Words label="Description" of="text" wide {...facts} />
  </Box>
)

/** The ratings its class has, and what else is rated of it. */
function Ratings({ record, kinds, locked, put, of }: FactsProps & { of: Kinds['classes'][number] }) {
  const others = Object.keys(record.ratings).filter((k) => !of.fields.includes(k))
  return (
    <Section title="Ratings">
      <Box sx={grid}>
        {[...of.fields, ...others].map((key) => (
          <Rating
            key={key}
            spec={kinds.fields[key] ?? unknownField(key)}
            value={record.ratings[key] ?? ''}
            disabled={locked}
            set={(value) => put({ ratings: { ...record.ratings, [key]: value } })}
          />
        ))}
      </Box>
    </Section>
  )
}

function Size(facts: FactsProps) {
  const { record, kinds, locked, put } = facts
  return (
    <Section title="Outline">
      <Box sx={{ ...grid, gridTemplateColumns: '1fr 1fr 1fr' }}>
        <Amount label="Width, mm" of="width_mm" {...facts} />
        <Amount label="Height, mm" of="height_mm" {...facts} />
        <Amount label="Depth, mm" of="depth_mm" {...facts} />
        <Amount label="Diameter, mm" of="diameter_mm" {...facts} />
        <Amount label="Weight, kg" of="weight_kg" {...facts} />
        <Pick
          label="Mounting"
          value={record.mounting}
          options={plain(kinds.mountings)}
          disabled={locked}
          onPick={(m) => put({ mounting: m as PartRecord['mounting'] })}
        />
      </Box>
    </Section>
  )
}

const Buying = (facts: FactsProps) => (
  <Section title="Buying">
    <Box sx={grid}>
      <Words label="Supplier" of="supplier" {...facts} />
      <Words label="Order number" of="order_number" {...facts} />
      <Amount label="Price" of="price" {...facts} />
      <Words label="Currency" of="currency" {...facts} />
      <Words label="Link" of="link" wide {...facts} />
    </Box>
  </Section>
)

interface KeepProps {
  shelves: Shelf[]
  /** The library the part is in, "" for a new one. */
  first: string
  word: string
  save?: (target: string) => void
  again?: () => void
}

function Keep({ shelves, first, word, save, again }: KeepProps) {
  const [target, setTarget] = useState(first || (shelves[0]?.id ?? ''))
  return (
    <Box sx={{ display: 'flex', gap: 1, mt: 1.5, alignItems: 'center' }}>
      <Pick label="Library" value={target} options={shelves} onPick={setTarget} sx={{ width: 170 }} />
      <Button variant="contained" disabled={!save} onClick={() => save?.(target)}>
        {word}
      </Button>
      {again && <Button onClick={again}>Undo changes</Button>}
    </Box>
  )
}

/** What the part still lacks, purpose by purpose. */
function Lacks({ missing }: { missing: Record<string, string[]> }) {
  return (
    <Box aria-label="What is missing" role="group" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5 }}>
      {PURPOSES.map((p) => {
        const words = missing[p]
        return (
          <Box
            key={p}
            sx={{
              fontSize: 11.5,
              px: 0.75,
              py: 0.1,
              border: '1px solid',
              borderColor: words ? COPPER : TEAL,
              color: words ? COPPER : TEAL,
              borderRadius: 1,
            }}
          >
            {words ? `${p} lacks ${words.join(', ')}` : `${p} complete`}
          </Box>
        )
      })}
    </Box>
  )
}

/** A rating that no class has: it is shown as what it says. */
const unknownField = (key: string): FieldSpec => ({
  key,
  name: key.replaceAll('_', ' '),
  unit: '',
  kind: 'text',
  choices: [],
  least: null,
  most: null,
  whole: false,
  form: '',
  example: '',
})

interface RatingProps {
  spec: FieldSpec
  value: string
  disabled: boolean
  set: (value: string) => void
}

function Rating({ spec, value, disabled, set }: RatingProps) {
  const label = `${spec.name}${spec.unit ? `, ${spec.unit}` : ''}`
  const options = spec.kind === 'choice' ? spec.choices : spec.kind === 'flag' ? ['yes', 'no'] : null
  return (
    <TextField
      select={options !== null}
      label={label}
      value={value}
      disabled={disabled}
      onChange={(e) => set(e.target.value)}
      {...small}
    >
      {options &&
        ['', ...options].map((o) => (
          <MenuItem key={o} value={o}>
            {o || '—'}
          </MenuItem>
        ))}
    </TextField>
  )
}
