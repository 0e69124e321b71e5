/** What a part is drawn with: a symbol for each kind of its units, and drawings of its outline on plate and door. */
import Box from '@mui/material/Box'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { client, got, wordsOf } from '../../api/client'
import { type Prim } from '../../scene/item'
import { QUIET } from '../../theme/theme'
import { Act } from '../../kit/Act'
import { ArtPicture } from '../../kit/ArtPicture'
import { Section } from '../../kit/Section'
import { useProject } from '../../project/store'
import type { Kinds, PartRecord } from './kinds'
import { OutlineMaker } from './symbols/OutlineMaker'

interface Props {
  record: PartRecord
  kinds: Kinds
  locked: boolean
  put: (part: Partial<PartRecord>) => void
}

const SURFACES = ['plate', 'door']

export function DrawnWith({ record, kinds, locked, put }: Props) {
  const [drawing, setDrawing] = useState<{ surface: string; start: Prim[] } | null>(null)
  const kindsThere = [...new Set(record.units.map(([kind]) => kind))]
  const set = (place: string, key: string) => {
    const rest = Object.entries(record.symbols).filter(([k]) => k !== place)
    put({ symbols: Object.fromEntries(key ? [...rest, [place, key]] : rest) })
  }
  const width = record.width_mm || record.diameter_mm
  const height = record.height_mm || record.diameter_mm
  const draw = (surface: string) => {
    const key = record.symbols[surface]
    if (!key) return setDrawing({ surface, start: [] })
    got(client.POST('/api/library/outline-art', { body: { key } })).then(
      (art) => setDrawing({ surface, start: art }),
      (error: unknown) => useProject.getState().say(wordsOf(error), 'error'),
    )
  }
  return (
    <Section title="Drawn with">
      {kindsThere.map((kind) => (
        <OfKind key={kind} {...{ kind, record, kinds, locked, set }} />
      ))}
      {SURFACES.map((surface) => (
        <Box
          key={surface}
          sx={{ display: 'flex', gap: 0.75, alignItems: 'center', fontSize: 12.5, py: 0.25 }}
        >
          <span style={{ flex: 1 }}>
            On the {surface}: {record.symbols[surface] ? 'drawn' : 'its outline only'}
          </span>
          {!locked && width > 0 && height > 0 && (
            <Act onClick={() => draw(surface)}>{record.symbols[surface] ? 'Change' : 'Draw'}</Act>
          )}
          {!locked && record.symbols[surface] && <Act onClick={() => set(surface, '')}>Outline only</Act>}
        </Box>
      ))}
      {!(width > 0 && height > 0) && (
        <Box sx={{ fontSize: 12, color: QUIET }}>Give width and height, or a diameter, to draw within.</Box>
      )}
      {drawing && (
        <OutlineMaker
          key={drawing.surface}
          surface={drawing.surface}
          start={drawing.start}
          frame={{ width, height, round: !record.width_mm }}
          close={() => setDrawing(null)}
          done={(key) => {
            set(drawing.surface, key)
            setDrawing(null)
          }}
        />
      )}
    </Section>
  )
}

interface SymbolsProps {
  kind: string
  label: string
  standard: string
  record: PartRecord
  value: string
  locked: boolean
  set: (key: string) => void
}

/** Chooses among the symbols that a unit of a kind can be drawn with. */
function Symbols({ kind, label, standard, record, value, locked, set }: SymbolsProps) {
  const class_key = record.part_class
  const found = useQuery({
    queryKey: ['symbols-for', kind, class_key, standard],
    queryFn: async () =>
      await got(
        client.GET('/api/library/symbols-for/{kind}', {
          params: { path: { kind }, query: { class_key, standard } },
        }),
      ),
  })
  const all = found.data ?? []
  return (
    <TextField
      select
      label={label}
      value={value}
      disabled={locked}
      onChange={(e) => set(e.target.value)}
      slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
    >
      <MenuItem value="">the usual one</MenuItem>
      {value && !all.some((s) => s.key === value) && <MenuItem value={value}>a drawing of its own</MenuItem>}
      {all.map((s) => (
        <MenuItem key={s.key} value={s.key} sx={{ gap: 1 }}>
          <ArtPicture art={s.art} width={40} height={22} />
          {s.name}
        </MenuItem>
      ))}
    </TextField>
  )
}

interface OfKindProps {
  kind: string
  record: PartRecord
  kinds: Kinds
  locked: boolean
  set: (place: string, key: string) => void
}

function OfKind({ kind, record, kinds, locked, set }: OfKindProps) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1, mb: 1, pt: 0.5 }}>
      <Symbols
        kind={kind}
        label={`${kinds.units[kind]?.name ?? kind}, IEC`}
        standard="iec"
        record={record}
        value={record.symbols[kind] ?? ''}
        locked={locked}
        set={(key) => set(kind, key)}
      />
      <Symbols
        kind={kind}
        label={`${kinds.units[kind]?.name ?? kind}, North America`}
        standard="na"
        record={record}
        value={record.symbols[`${kind}@na`] ?? ''}
        locked={locked}
        set={(key) => set(`${kind}@na`, key)}
      />
    </Box>
  )
}
