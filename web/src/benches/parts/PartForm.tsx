/** The form of a part: what it is, its ratings, units, outline, buying; what is still missing is shown as one goes. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState, type ReactNode } from 'react'
import { client, got, wordsOf } from '../../api/client'
import { COPPER, LINE, QUIET, SNAG, TEAL } from '../../theme/theme'
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

export function PartForm({ title, note, start, kinds, shelves, shelf, close, done, children }: Props) {
  const [draft, setDraft] = useState(start)
  const [target, setTarget] = useState(shelf?.id ?? shelves.find((s) => s.may_change)?.id ?? '')
  const [problem, setProblem] = useState('')
  const queries = useQueryClient()
  const { record } = draft
  const of = draft.spec ?? kinds.classes.find((c) => c.key === record.part_class)
  const locked = shelf !== undefined && !shelf.may_change
  const changed = JSON.stringify(record) !== JSON.stringify(start.record) || !record.id
  const put = (part: Partial<PartRecord>) => setDraft((d) => ({ ...d, record: { ...d.record, ...part } }))
  // What is missing is for the server to say; it is asked when the hand rests.
  useEffect(() => {
    let late = false
    const timer = window.setTimeout(() => {
      draftStep({ act: 'check', record }).then(
        ({ missing, problem: wrong }) => {
          if (late) return
          setDraft((d) => ({ ...d, missing }))
          setProblem(wrong)
        },
        (error: unknown) => {
          if (!late) setProblem(wordsOf(error))
        },
      )
    }, 250)
    return () => {
      late = true
      window.clearTimeout(timer)
    }
  }, [record])
  const save = () =>
    got(client.POST('/api/library/part', { body: { shelf: target, record: { ...record } } })).then(
      (answer) => {
        const kept = answer.record
        for (const key of ['library', 'part', 'part-kinds', 'makers', 'shelves', 'project-parts', 'device'])
          void queries.invalidateQueries({ queryKey: [key] })
        useProject.getState().say(`${kept.maker} ${kept.number} is in the library.`)
        done(kept.id)
      },
      (error: unknown) => setProblem(wordsOf(error)),
    )
  const text = (label: string, key: keyof PartRecord, more?: object) => (
    <TextField
      label={label}
      value={String(record[key] ?? '')}
      disabled={locked}
      onChange={(e) => put({ [key]: e.target.value })}
      {...small}
      {...more}
    />
  )
  const number = (label: string, key: keyof PartRecord) => (
    <TextField
      label={label}
      type="number"
      value={record[key] || ''}
      disabled={locked}
      onChange={(e) => put({ [key]: Math.max(0, Number(e.target.value) || 0) })}
      {...small}
    />
  )
  return (
    <Box
      component="aside"
      aria-label={title}
      sx={{
        width: 470,
        flexShrink: 0,
        borderLeft: `1px solid ${LINE}`,
        bgcolor: '#FBF8F1',
        overflow: 'auto',
        p: 2,
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mb: 0.5 }}>
        {record.picture && (
          <img src={fileUrl(record.picture)} alt="" height={40} style={{ background: '#fff' }} />
        )}
        <Box sx={{ fontWeight: 600, flex: 1 }}>{title}</Box>
        <span style={{ fontSize: 12, color: QUIET }}>{of?.name}</span>
        <Button onClick={close} aria-label="Close the part">
          Close
        </Button>
      </Box>
      {note && <Box sx={{ fontSize: 12.5, color: COPPER, mb: 1 }}>{note}</Box>}
      <Lacks missing={draft.missing} />
      <Box sx={{ ...grid, mt: 1 }}>
        {text('Maker', 'maker')}
        {text('Number', 'number')}
        {text('Description', 'text', { sx: { gridColumn: '1 / 3' } })}
      </Box>
      {of && of.fields.length > 0 && (
        <Section title="Ratings">
          <Box sx={grid}>
            {[...of.fields, ...Object.keys(record.ratings).filter((k) => !of.fields.includes(k))].map(
              (key) => (
                <Rating
                  key={key}
                  spec={kinds.fields[key] ?? unknownField(key)}
                  value={record.ratings[key] ?? ''}
                  disabled={locked}
                  set={(value) => put({ ratings: { ...record.ratings, [key]: value } })}
                />
              ),
            )}
          </Box>
        </Section>
      )}
      {of && of.units.length > 0 && (
        <UnitsEditor record={record} of={of} kinds={kinds} locked={locked} put={put} set={setDraft} />
      )}
      {record.part_class === 'cable' && !locked && <CoresFill record={record} kinds={kinds} set={setDraft} />}
      <Section title="Outline">
        <Box sx={{ ...grid, gridTemplateColumns: '1fr 1fr 1fr' }}>
          {number('Width, mm', 'width_mm')}
          {number('Height, mm', 'height_mm')}
          {number('Depth, mm', 'depth_mm')}
          {number('Diameter, mm', 'diameter_mm')}
          {number('Weight, kg', 'weight_kg')}
          <TextField
            select
            label="Mounting"
            value={record.mounting}
            disabled={locked}
            onChange={(e) => put({ mounting: e.target.value as PartRecord['mounting'] })}
          >
            {kinds.mountings.map((m) => (
              <MenuItem key={m} value={m}>
                {m}
              </MenuItem>
            ))}
          </TextField>
        </Box>
      </Section>
      <Section title="Buying">
        <Box sx={grid}>
          {text('Supplier', 'supplier')}
          {text('Order number', 'order_number')}
          {number('Price', 'price')}
          {text('Currency', 'currency')}
          {text('Link', 'link', { sx: { gridColumn: '1 / 3' } })}
        </Box>
      </Section>
      <DrawnWith record={record} kinds={kinds} locked={locked} put={put} />
      <FilesSection record={record} locked={locked} put={put} />
      <TextsEditor record={record} locked={locked} put={put} />
      {problem && <Box sx={{ color: SNAG, fontSize: 12.5, mt: 1 }}>{problem}</Box>}
      {!locked && (
        <Box sx={{ display: 'flex', gap: 1, mt: 1.5, alignItems: 'center' }}>
          <TextField
            select
            label="Library"
            value={target}
            onChange={(e) => setTarget(e.target.value)}
            sx={{ width: 170 }}
          >
            {shelves
              .filter((s) => s.may_change)
              .map((s) => (
                <MenuItem key={s.id} value={s.id}>
                  {s.name}
                </MenuItem>
              ))}
          </TextField>
          <Button variant="contained" disabled={!changed} onClick={() => void save()}>
            {record.id ? 'Save' : 'Keep'}
          </Button>
          {changed && record.id && (
            <Button
              onClick={() => {
                setDraft(start)
                setProblem('')
              }}
            >
              Undo changes
            </Button>
          )}
        </Box>
      )}
      {children}
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
