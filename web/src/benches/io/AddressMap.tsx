/** The address map: bytes and bits, words and numbers, each with the point that takes it; gaps and overlaps seen. */
import Box from '@mui/material/Box'
import { Empty } from '../../kit/Bench'
import { COPPER, LINE, MONO, QUIET, SNAG } from '../../theme/theme'
import type { AddressSpace } from './shapes'

const TAKEN = '#CFE3DC'
const SPARE = '#EEF3EF'
const CELL_PX = 58

type Row = AddressSpace['rows'][number]
type Cell = Row['cells'][number]

interface Props {
  spaces: AddressSpace[] | undefined
  chosen: Set<string>
  onPick: (pointId: string) => void
}

export function AddressMap({ spaces, chosen, onPick }: Props) {
  if (!spaces) return <Empty>Reading the addresses…</Empty>
  if (!spaces.length) return <Empty>No card has an address yet. Add a card on the left.</Empty>
  return (
    <Box sx={{ flex: 1, overflow: 'auto', p: 2 }}>
      <Legend />
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 3, alignItems: 'flex-start' }}>
        {spaces.map((space) => (
          <Box key={space.space} component="section" aria-label={`Address map, ${space.title}`}>
            <Box sx={{ fontWeight: 600, mb: 0.75 }}>Address map, {space.title}</Box>
            {space.rows.map((row) => (
              <MapLine key={row.name} {...{ row, chosen, onPick }} />
            ))}
          </Box>
        ))}
      </Box>
    </Box>
  )
}

function MapLine({ row, chosen, onPick }: { row: Row; chosen: Set<string>; onPick: (id: string) => void }) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.4, mb: 0.4 }}>
      <span style={{ width: 66, fontFamily: MONO, fontSize: 12, color: QUIET }}>{row.name}</span>
      {row.cells.length === 0 && (
        <span style={{ fontSize: 12, color: QUIET, borderTop: `1px dashed ${QUIET}`, width: 8 * CELL_PX }}>
          not in use
        </span>
      )}
      {row.cells.map((cell) => (
        <MapBox
          key={cell.text}
          cell={cell}
          chosen={chosen.has(cell.point_id)}
          onPick={() => cell.point_id && onPick(cell.point_id)}
        />
      ))}
    </Box>
  )
}

function MapBox({ cell, chosen, onPick }: { cell: Cell; chosen: boolean; onPick: () => void }) {
  const word = cell.size > 1
  const ground = cell.overlaps
    ? '#F3C9C0'
    : chosen
      ? '#F5D2B5'
      : cell.point
        ? TAKEN
        : cell.address
          ? SPARE
          : '#fff'
  const words = cell.point || (cell.address ? 'spare' : 'free')
  return (
    <Box
      component="button"
      type="button"
      title={`${cell.address || cell.text}: ${words}${cell.overlaps ? ' (taken twice)' : ''}`}
      aria-label={`${cell.address || cell.text} ${words}`}
      onClick={onPick}
      sx={{
        width: word ? 8 * (CELL_PX + 3) - 3 : CELL_PX,
        height: 25,
        font: 'inherit',
        fontFamily: word ? undefined : MONO,
        fontSize: 11,
        textAlign: word ? 'left' : 'center',
        border: `1px solid ${cell.overlaps ? SNAG : LINE}`,
        borderRadius: 0.75,
        bgcolor: ground,
        color: cell.address ? undefined : QUIET,
        px: 0.5,
        overflow: 'hidden',
        whiteSpace: 'nowrap',
      }}
    >
      {word ? `${cell.text}  ${words}` : cell.text}
    </Box>
  )
}

function Legend() {
  const kinds: [string, string][] = [
    ['with a point', TAKEN],
    ['spare channel', SPARE],
    ['chosen', '#F5D2B5'],
    ['taken twice', '#F3C9C0'],
    ['free', '#fff'],
  ]
  return (
    <Box sx={{ display: 'flex', gap: 2, mb: 1.5, fontSize: 12, color: COPPER }}>
      {kinds.map(([name, ground]) => (
        <span key={name} style={{ display: 'flex', gap: 5, alignItems: 'center', color: QUIET }}>
          <span style={{ width: 18, height: 12, background: ground, border: `1px solid ${LINE}` }} />
          {name}
        </span>
      ))}
    </Box>
  )
}
