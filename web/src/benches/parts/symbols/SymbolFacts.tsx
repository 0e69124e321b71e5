/** What a symbol is beside its lines: name, class, unit, nicknames, poles, pins and where it parts a wire. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import TextField from '@mui/material/TextField'
import { LINE, MONO, QUIET } from '../../../theme/theme'
import { Act } from '../../../kit/Act'
import { Pick, plain } from '../../../kit/Pick'
import { Section } from '../../../kit/Section'
import type { Kinds } from '../kinds'
import { PLACE_NAMES, type PlaceName, type Point, type Sketch } from './art'
import type { Chosen } from './Canvas'

interface Props {
  sketch: Sketch
  kinds: Kinds
  standard: 'iec' | 'na'
  setStandard: (standard: 'iec' | 'na') => void
  chosen: Chosen
  choose: (chosen: Chosen) => void
  setPlace: (name: PlaceName, to: Point | null) => void
  put: (part: Partial<Sketch>) => void
}

const cell = {
  font: `12px ${MONO}`,
  border: `1px solid ${LINE}`,
  borderRadius: 3,
  padding: '2px 4px',
  background: '#fff',
} as const

export function SymbolFacts(props: Props) {
  return (
    <>
      <Naming {...props} />
      <DrawnFor {...props} />
      <Pins {...props} />
      <TextPlaces {...props} />
      <Parting {...props} />
    </>
  )
}

const nicknamesOf = (text: string) =>
  text
    .split(',')
    .map((n) => n.trim())
    .filter(Boolean)

function Naming({ sketch, kinds, put }: Props) {
  const of = kinds.classes.find((c) => c.key === sketch.class)
  const classes = kinds.classes.map((c) => ({ id: c.key, name: c.name }))
  const units = [...(of?.units ?? []), 'block'].map((key) => ({
    id: key,
    name: key === 'block' ? 'any pins, by name' : (kinds.units[key]?.name ?? key),
  }))
  const takeClass = (key: string) => {
    const next = kinds.classes.find((c) => c.key === key)
    const unit = next?.units.includes(sketch.unit) ? sketch.unit : (next?.units[0] ?? 'block')
    put({ class: key, unit })
  }
  return (
    <>
      <TextField
        fullWidth
        label="Name"
        value={sketch.name}
        onChange={(e) => put({ name: e.target.value })}
        sx={{ mt: 0.5 }}
      />
      <TextField
        fullWidth
        margin="dense"
        label="Nicknames, parted by commas"
        defaultValue={sketch.nicknames.join(', ')}
        placeholder="what one types at the caret"
        onBlur={(e) => put({ nicknames: nicknamesOf(e.target.value) })}
        slotProps={{ inputLabel: { shrink: true } }}
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1, mt: 1 }}>
        <Pick label="Class" value={sketch.class} options={classes} onPick={takeClass} />
        <Pick label="Unit" value={sketch.unit} options={units} onPick={(unit) => put({ unit })} />
        <Pick
          label="Poles at most"
          value={String(sketch.poles)}
          options={plain(['1', '2', '3', '4'])}
          onPick={(n) => put({ poles: Number(n) })}
        />
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={sketch.leads}
              onChange={(e) => put({ leads: e.target.checked })}
            />
          }
          label={<span style={{ fontSize: 12.5 }}>begins a device</span>}
        />
      </Box>
    </>
  )
}

/** The standard that is drawn for; without a drawing of its own the IEC one stands. */
function DrawnFor({ sketch, standard, setStandard, put }: Props) {
  return (
    <Section title="Drawn for">
      <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'center' }} role="group" aria-label="Standard">
        {(['iec', 'na'] as const).map((s) => (
          <Button
            key={s}
            size="small"
            variant={s === standard ? 'contained' : 'outlined'}
            aria-pressed={s === standard}
            onClick={() => setStandard(s)}
          >
            {s === 'iec' ? 'IEC' : 'North America'}
          </Button>
        ))}
        {standard === 'na' && !sketch.na?.length && (
          <Act onClick={() => put({ na: sketch.iec })} hint="Begin with the IEC drawing">
            Copy IEC
          </Act>
        )}
      </Box>
      {standard === 'na' && !sketch.na?.length && (
        <Box sx={{ fontSize: 12, color: QUIET, mt: 0.5 }}>
          Nothing drawn: the IEC drawing stands here, too.
        </Box>
      )}
    </Section>
  )
}

function Pins({ sketch, kinds, chosen, choose, put }: Props) {
  const usual = kinds.units[sketch.unit]?.pins ?? []
  const rename = (i: number, name: string) =>
    put({ pins: sketch.pins.map((p, n) => (n === i ? [p[0], p[1], name] : p)) })
  return (
    <Section title={`Pins ${sketch.pins.length}`}>
      {sketch.pins.map(([x, y, name], i) => (
        <Box
          key={i}
          sx={{
            display: 'flex',
            gap: 0.75,
            alignItems: 'center',
            py: 0.2,
            bgcolor: chosen?.kind === 'pin' && chosen.index === i ? '#F5E3D5' : undefined,
          }}
          onFocus={() => choose({ kind: 'pin', index: i })}
        >
          <span style={{ font: `12px ${MONO}`, color: QUIET, width: 62 }}>
            {i + 1}: {x}, {y}
          </span>
          <input
            aria-label={`Name of pin ${i + 1}`}
            value={name}
            placeholder={usual[i]?.replaceAll(/[{}]/g, '') ?? 'name'}
            style={{ ...cell, width: 84 }}
            onChange={(e) => rename(i, e.target.value)}
          />
        </Box>
      ))}
      {sketch.pins.length === 0 && (
        <Box sx={{ fontSize: 12, color: QUIET }}>Take the pin tool and click where wires shall end.</Box>
      )}
      {usual.length > 0 && (
        <Box sx={{ fontSize: 11.5, color: QUIET, mt: 0.5 }}>
          Left open, a pin has the marking of its unit.
        </Box>
      )}
    </Section>
  )
}

function TextPlaces({ sketch, setPlace }: Props) {
  return (
    <Section title="Where texts stand">
      {PLACE_NAMES.map((name, i) => (
        <Box key={name} sx={{ display: 'flex', gap: 0.75, alignItems: 'center', fontSize: 12.5, py: 0.2 }}>
          <span style={{ width: 70 }}>{name}</span>
          <span style={{ flex: 1, color: QUIET }}>
            {sketch.places?.[name] ? 'where it is dragged to' : 'the usual place'}
          </span>
          {sketch.places?.[name] ? (
            <Act onClick={() => setPlace(name, null)}>Usual</Act>
          ) : (
            <Act hint="Then drag it on the drawing" onClick={() => setPlace(name, [2, i ? 3 + i : -3])}>
              Place
            </Act>
          )}
        </Box>
      ))}
    </Section>
  )
}

/** Between which of its pins the symbol parts a wire that runs under it: those in line with each other. */
function Parting({ sketch, put }: Props) {
  const parts = (a: number, b: number) => sketch.through.some(([x, y]) => x === a && y === b)
  const pairs = sketch.pins.flatMap((p, a) =>
    sketch.pins.flatMap((q, b) =>
      a < b && (p[0] === q[0] || p[1] === q[1]) ? [[a, b] as [number, number]] : [],
    ),
  )
  if (!pairs.length) return null
  return (
    <Section title="Parts a wire between">
      {pairs.map(([a, b]) => (
        <FormControlLabel
          key={`${a}-${b}`}
          sx={{ display: 'flex', my: -0.5 }}
          control={
            <Checkbox
              size="small"
              checked={parts(a, b)}
              onChange={(e) =>
                put({
                  through: e.target.checked
                    ? [...sketch.through, [a, b]]
                    : sketch.through.filter(([x, y]) => x !== a || y !== b),
                })
              }
            />
          }
          label={
            <span style={{ fontSize: 12.5 }}>
              pin {a + 1} and pin {b + 1}
            </span>
          }
        />
      ))}
    </Section>
  )
}
