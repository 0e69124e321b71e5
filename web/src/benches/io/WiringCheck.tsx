/** The wiring check: every point that has a channel, in the order one walks, and what the PLC shows of it. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { Empty } from '../../kit/Bench'
import { Windowed } from '../../kit/Windowed'
import { SheetLink } from '../../project/SheetLink'
import { COPPER, LINE, MONO, QUIET, SNAG, TEAL } from '../../theme/theme'
import { resultOf, type Checking, type CheckRow } from './useCheck'

const LINE_PX = 28
const TONES: Record<string, string> = { good: TEAL, fault: SNAG, 'see anew': COPPER }

export function WiringCheck({ check, canEdit }: { check: Checking; canEdit: boolean }) {
  const { view, rows, row } = check
  if (!view) return <Empty>Reading the channels…</Empty>
  if (!rows.length)
    return <Empty>No point has a channel yet. Allocate points first; then every one can be checked.</Empty>
  return (
    <>
      <PlcBar {...{ check, canEdit }} />
      <Windowed
        items={rows}
        heightOf={() => LINE_PX}
        role="listbox"
        name="Points to check"
        shown={rows.indexOf(row!)}
      >
        {(r) => <Line key={r.point_id} row={r} inHand={r === row} onPick={() => check.take(r.point_id)} />}
      </Windowed>
    </>
  )
}

/** Whether the PLC is there and has the list as the project has it, and how far the walk is. */
function PlcBar({ check, canEdit }: { check: Checking; canEdit: boolean }) {
  const { plc } = check.view!
  const good = check.rows.filter((r) => resultOf(r) === 'good').length
  const faults = check.rows.filter((r) => resultOf(r) === 'fault').length
  const state = plc.away
    ? `${plc.away} The walk can be done without it.`
    : plc.channels === 0
      ? 'The PLC has no list of this project yet.'
      : plc.stale
        ? `The PLC has an older list of ${plc.channels} channels.`
        : `The PLC has the ${plc.channels} channels of the project.`
  return (
    <Box
      sx={{ display: 'flex', gap: 1.5, alignItems: 'center', px: 1.5, py: 0.75, fontSize: 12.5 }}
      role="status"
      aria-label="PLC"
    >
      <span style={{ color: plc.away || plc.stale ? COPPER : QUIET }}>{state}</span>
      {canEdit && !plc.away && (plc.stale || plc.channels === 0) && (
        <Button variant="outlined" onClick={check.give}>
          Give it the list
        </Button>
      )}
      <span style={{ flex: 1 }} />
      <span>
        {good} of {check.rows.length} good{faults ? `, ${faults} with a fault` : ''}
      </span>
      <Button component="a" href={`/api/projects/${check.projectId}/reports/wiring-check/pdf`} download>
        Report
      </Button>
    </Box>
  )
}

// Plain elements: there may be thousands of them.
const LOOK = {
  display: 'flex',
  gap: 8,
  alignItems: 'center',
  padding: '0 12px',
  height: LINE_PX,
  boxSizing: 'border-box',
  fontSize: 12.5,
  borderTop: `1px solid ${LINE}`,
  cursor: 'pointer',
} as const
const CUT = { overflow: 'hidden', whiteSpace: 'nowrap', textOverflow: 'ellipsis' } as const

function Line({ row, inHand, onPick }: { row: CheckRow; inHand: boolean; onPick: () => void }) {
  const result = resultOf(row)
  const other = row.seen !== '' && row.seen !== row.tag
  return (
    <div
      role="option"
      aria-selected={inHand}
      aria-label={`${row.address} ${row.tag}${result ? `, ${result}` : ''}`}
      onClick={onPick}
      style={{ ...LOOK, background: inHand ? '#F7E4D6' : '#fff' }}
    >
      <b style={{ fontFamily: MONO, color: TEAL, width: 64 }}>{row.address}</b>
      <b style={{ width: 64, ...CUT }}>{row.tag}</b>
      <span style={{ flex: 1, ...CUT }}>{row.text}</span>
      <span style={{ fontFamily: MONO, fontSize: 11.5, color: QUIET, width: 130, ...CUT }}>
        {row.card}:{row.pins}
      </span>
      <span style={{ width: 56 }}>
        <SheetLink sheetId={row.sheet_id} select={row.symbol_id}>
          {row.place}
        </SheetLink>
      </span>
      <span style={{ fontFamily: MONO, width: 70, color: other ? SNAG : QUIET }}>
        {row.value === null ? '–' : other ? `${row.seen} = ${row.value}` : row.value}
      </span>
      <span style={{ width: 64, fontWeight: 600, color: TONES[result] }}>{result}</span>
    </div>
  )
}
