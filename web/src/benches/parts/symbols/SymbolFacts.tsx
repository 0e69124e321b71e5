/** What a symbol is beside its lines: name, class, unit, nicknames, poles, pins and where it parts a wire. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { LINE, MONO, QUIET } from '../../../theme/theme'
import { Act } from '../../../kit/Act'
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
  const { sketch, kinds, standard, setStandard, chosen, choose, setPlace, put } = props
  const of = kinds.classes.find((c) => c.key === sketch.class)
  const usual = kinds.units[sketch.unit]?.pins ?? []
  const takeClass = (key: string) => {
    const next = kinds.classes.find((c) => c.key === key)
    const unit = next?.units.includes(sketch.unit) ? sketch.unit : (next?.units[0] ?? 'block')
    put({ class: key, unit })
  }
  const parts = (a: number, b: number) => sketch.through.some(([x, y]) => x === a && y === b)
  const pairs = sketch.pins.flatMap((p, a) =>
    sketch.pins.flatMap((q, b) =>
      a < b && (p[0] === q[0] || p[1] === q[1]) ? [[a, b] as [number, number]] : [],
    ),
  )
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
        onBlur={(e) =>
          put({
            nicknames: e.target.value
              .split(',')
              .map((n) => n.trim())
              .filter(Boolean),
          })
        }
        slotProps={{ inputLabel: { shrink: true } }}
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1, mt: 1 }}>
        <TextField select label="Class" value={sketch.class} onChange={(e) => takeClass(e.target.value)}>
          {kinds.classes.map((c) => (
            <MenuItem key={c.key} value={c.key}>
              {c.name}
            </MenuItem>
          ))}
        </TextField>
        <TextField select label="Unit" value={sketch.unit} onChange={(e) => put({ unit: e.target.value })}>
          {[...(of?.units ?? []), 'block'].map((key) => (
            <MenuItem key={key} value={key}>
              {key === 'block' ? 'any pins, by name' : (kinds.units[key]?.name ?? key)}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Poles at most"
          value={sketch.poles}
          onChange={(e) => put({ poles: Number(e.target.value) })}
        >
          {[1, 2, 3, 4].map((n) => (
            <MenuItem key={n} value={n}>
              {n}
            </MenuItem>
          ))}
        </TextField>
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
              onChange={(e) =>
                put({ pins: sketch.pins.map((p, n) => (n === i ? [p[0], p[1], e.target.value] : p)) })
              }
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
      {pairs.length > 0 && (
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
      )}
    </>
  )
}
