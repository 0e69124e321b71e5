/** The wire types of the project as a table: name, colour, size, category, where laid, how numbers show. */
import { PanelPick } from '../../kit/Pick'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useMemo, useState, type ReactNode } from 'react'
import { asGiven, makeEdit, type AnyEdit } from '../../api/client'
import { LINE, QUIET } from '../../theme/theme'
import { TableBar } from '../../kit/TableBar'
import { Bench } from '../../kit/Bench'
import { Grid } from '../../kit/Grid'
import type { CellChange, Column } from '../../kit/gridData'
import { wirePaint } from '../../theme/paints'
import { usePick } from '../../project/store'
import type { WireTypeRecord, WiringHabits } from './shapes'
import { useWiring } from './useWiring'

const PLACES: Record<string, string> = { middle: 'middle', ends: 'both ends', hidden: 'nowhere' }
const YES = [
  { id: 'true', name: 'yes' },
  { id: 'false', name: 'no' },
]
const LAID = [
  { id: 'false', name: 'in the panel' },
  { id: 'true', name: 'outside' },
]

function columnsOf(habits: WiringHabits, canEdit: boolean): Column<WireTypeRecord>[] {
  const edit = () => canEdit
  const categories = habits.categories.map((id) => ({ id, name: id }))
  const places = habits.number_places.map((id) => ({ id, name: PLACES[id] ?? id }))
  return [
    { key: 'name', name: 'Wire type', width: 118, text: (t) => t.name, edit },
    { key: 'colour', name: 'Colour', width: 60, text: (t) => t.colour, edit, mono: true },
    {
      key: 'cross_section_mm2',
      name: 'mm²',
      width: 46,
      text: (t) => (t.cross_section_mm2 ? String(t.cross_section_mm2) : ''),
      edit,
      mono: true,
    },
    { key: 'awg', name: 'AWG', width: 46, text: (t) => t.awg, edit, mono: true },
    { key: 'category', name: 'Category', width: 90, choices: categories, text: (t) => t.category, edit },
    {
      key: 'numbered',
      name: 'Numbered',
      width: 76,
      choices: YES,
      text: (t) => (t.numbered ? 'yes' : 'no'),
      value: (t) => String(t.numbered),
      edit,
    },
    {
      key: 'outside',
      name: 'Laid',
      width: 88,
      choices: LAID,
      text: (t) => (t.outside ? 'outside' : 'in the panel'),
      value: (t) => String(t.outside),
      edit,
    },
    {
      key: 'number_at',
      name: 'Number at',
      width: 98,
      choices: places,
      text: (t) => PLACES[t.number_at] ?? t.number_at,
      value: (t) => t.number_at,
      edit,
    },
    { key: 'used', name: 'Strokes', width: 60, text: (t) => String(t.used), mono: true },
  ]
}

/** The value of a cell as the edit takes it. */
function cellValue(key: string, value: string): unknown {
  if (key === 'numbered' || key === 'outside') return value === 'true'
  return key === 'cross_section_mm2' ? Number(value.replace(',', '.')) || 0 : value
}

function changesEdit(changes: CellChange[]): AnyEdit {
  const types = new Map<string, Record<string, unknown>>()
  for (const { id, key, value } of changes)
    types.set(id, { ...(types.get(id) ?? { wire_type_id: id }), [key]: cellValue(key, value) })
  return makeEdit('change-wire-types', { changes: [...types.values()].map((line) => asGiven(line)) })
}

export function WireTypesSection({ list, canEdit }: { list: ReactNode; canEdit: boolean }) {
  const { send, say } = usePick('send', 'say')
  const habits = useWiring()
  const [picked, setPicked] = useState<string[]>([])
  const data = habits.data
  const columns = useMemo(() => (data ? columnsOf(data, canEdit) : []), [data, canEdit])
  if (!data)
    return (
      <Bench name="Brief" list={list}>
        {null}
      </Bench>
    )
  const chosen = data.types.find((t) => t.id === picked.at(-1))
  const add = async (rows: Record<string, string>[]) => {
    for (const row of rows) {
      const values = Object.fromEntries(Object.entries(row).map(([k, v]) => [k, cellValue(k, v)]))
      await send(makeEdit('add-wire-type', asGiven({ colour: 'BK', ...values })))
    }
  }
  const fresh = () => {
    const names = new Set(data.types.map((t) => t.name))
    let n = 1
    while (names.has(`New type ${n}`)) n++
    void add([{ name: `New type ${n}` }])
  }
  return (
    <Bench name="Brief" list={list} inspector={<Legend data={data} chosen={chosen} canEdit={canEdit} />}>
      <Bar count={data.types.length} canEdit={canEdit} fresh={fresh} />
      <Grid
        name="Wire types"
        columns={columns}
        rows={data.types}
        selected={new Set(picked)}
        onSelect={setPicked}
        onChange={(changes) => void send(changesEdit(changes))}
        onBeyond={(rows) => void add(rows)}
        onProblem={(problem) => say(problem, 'error')}
      />
      <Box sx={{ px: 1.5, py: 0.5, fontSize: 11.5, color: QUIET, borderTop: `1px solid ${LINE}` }}>
        Colours are codes of IEC 60757; two together, such as GNYE, mean two colours. A size in mm² takes the
        place of a gauge, and the reverse.
      </Box>
    </Bench>
  )
}

interface LegendProps {
  data: WiringHabits
  chosen: WireTypeRecord | undefined
  canEdit: boolean
}

/** Insulations as they look on the sheet; and what becomes of the wires of a type that is taken away. */
function Legend({ data, chosen, canEdit }: LegendProps) {
  const others = data.types.filter((t) => t.id !== chosen?.id)
  return (
    <>
      <Box sx={{ fontWeight: 600, mb: 0.5 }}>Legend</Box>
      {data.types.map((t) => {
        const paint = wirePaint(t.colour)
        return (
          <Box key={t.id} sx={{ display: 'flex', alignItems: 'center', gap: 1, py: 0.25, fontSize: 12.5 }}>
            <svg width={46} height={8} aria-hidden>
              {paint.edged && <path d="M0 4H46" stroke="#14213D" strokeWidth={6} />}
              <path d="M0 4H46" stroke={paint.first} strokeWidth={4.4} />
              {paint.second && (
                <path d="M0 4H46" stroke={paint.second} strokeWidth={4.4} strokeDasharray="8 8" />
              )}
            </svg>
            <span style={{ fontWeight: t.id === chosen?.id ? 600 : 400 }}>
              {t.name} {t.cross_section_mm2 ? `${t.cross_section_mm2} mm²` : t.awg && `AWG ${t.awg}`}
            </span>
          </Box>
        )
      })}
      {chosen && canEdit && <TakeAway {...{ chosen, others }} />}
    </>
  )
}

interface BarProps {
  count: number
  canEdit: boolean
  fresh: () => void
}

function Bar({ count, canEdit, fresh }: BarProps) {
  const { send } = usePick('send')
  const usual = (standard: 'iec' | 'na') => void send({ kind: 'take-wire-types', standard })
  return (
    <TableBar>
      <Box sx={{ flex: 1, color: QUIET, fontSize: 12 }}>{count} wire types</Box>
      {canEdit && (
        <>
          <Button variant="outlined" onClick={fresh}>
            Add a type
          </Button>
          <Button variant="outlined" onClick={() => usual('iec')}>
            Usual ones, IEC
          </Button>
          <Button variant="outlined" onClick={() => usual('na')}>
            Usual ones, NFPA
          </Button>
        </>
      )}
    </TableBar>
  )
}

interface TakeAwayProps {
  chosen: WireTypeRecord
  others: WireTypeRecord[]
}

function TakeAway({ chosen, others }: TakeAwayProps) {
  const { send } = usePick('send')
  const [goes, setGoes] = useState('')
  return (
    <Box sx={{ mt: 2 }}>
      <Box sx={{ fontWeight: 600, fontSize: 13 }}>Take {chosen.name} away</Box>
      {chosen.used > 0 && (
        <PanelPick
          label={`Its ${chosen.used} strokes become`}
          value={goes}
          options={others}
          onPick={setGoes}
        />
      )}
      <Button
        variant="outlined"
        disabled={chosen.used > 0 && !others.some((t) => t.id === goes)}
        onClick={() =>
          void send({
            kind: 'remove-wire-type',
            wire_type_id: chosen.id,
            goes_to: chosen.used ? goes : '',
          })
        }
      >
        Take away
      </Button>
    </Box>
  )
}
