/** One place of a strip as a row: targets on both sides, number, bridge to the next, its place on a sheet. */
import DragIndicatorIcon from '@mui/icons-material/DragIndicator'
import IconButton from '@mui/material/IconButton'
import CloseIcon from '@mui/icons-material/Close'
import { useEffect, useState } from 'react'
import { COPPER, LINE, MONO, SNAG, TEAL } from '../../theme/theme'
import { PlaceChoice } from '../../project/PlaceChoice'
import { SheetLink } from '../../project/SheetLink'
import { useProject, usePick } from '../../project/store'
import type { Strip, StripRow, Target } from './shapes'

interface Props {
  strip: Strip
  row: StripRow
  next: StripRow | undefined
  bridged: string[]
  canEdit: boolean
  lifted: boolean
  onLift: () => void
  onDrop: () => void
  /** Move the row by places, as the arrow keys on its handle ask. */
  onStep: (by: number) => void
}

export function StripRowView({ strip, row, next, bridged, canEdit, lifted, onLift, onDrop, onStep }: Props) {
  const { send } = usePick('send')
  return (
    <tr
      data-testid={`place-${row.number}`}
      onDragOver={(e) => e.preventDefault()}
      onDrop={onDrop}
      style={{ opacity: lifted ? 0.4 : 1 }}
    >
      <td
        draggable={canEdit}
        tabIndex={canEdit ? 0 : -1}
        onDragStart={onLift}
        onKeyDown={(e) => {
          const by = e.key === 'ArrowUp' ? -1 : e.key === 'ArrowDown' ? 1 : 0
          if (by && canEdit) {
            e.preventDefault()
            onStep(by)
          }
        }}
        title="Drag to another place, or press the arrow keys"
        aria-label={`Move ${row.number}`}
        style={{ cursor: canEdit ? 'grab' : 'default', padding: 2 }}
      >
        <DragIndicatorIcon fontSize="small" sx={{ color: '#A9A08C' }} />
      </td>
      {row.kind !== 'terminal' ? (
        <td colSpan={8} style={{ background: '#F6F1E7' }}>
          {row.number}
          {canEdit && (
            <IconButton
              size="small"
              aria-label={`Remove ${row.number.toLowerCase()}`}
              onClick={() => void send({ kind: 'remove-strip-accessory', item_id: row.item_id })}
            >
              <CloseIcon sx={{ fontSize: 14 }} />
            </IconButton>
          )}
        </td>
      ) : (
        <TerminalCells {...{ strip, row, next, bridged, canEdit }} />
      )}
    </tr>
  )
}

function Targets({ targets }: { targets: Target[] }) {
  const projectId = useProject((s) => s.projectId)
  return targets.map((t) => (
    <div key={t.name}>
      <a
        href={`/p/${projectId}/draw/${t.sheet_id}?sel=${t.symbol_id}`}
        style={{ fontFamily: MONO, fontSize: 12, color: TEAL }}
      >
        {t.name}
      </a>
    </div>
  ))
}

/** A stroke for each bridge the terminal is part of, each bridge in a lane of its own. */
function BridgeMark({ row, bridged }: { row: StripRow; bridged: string[] }) {
  return (
    <span style={{ fontFamily: MONO, color: COPPER, fontSize: 11 }}>
      {bridged.map((b, n) => (row.bridges.includes(b) ? <span key={b}>●{n + 1}</span> : null))}
    </span>
  )
}

function NumberCell({ strip, row, canEdit }: { strip: Strip; row: StripRow; canEdit: boolean }) {
  const [text, setText] = useState(row.number)
  useEffect(() => setText(row.number), [row.number])
  const save = () => {
    if (text !== row.number)
      void useProject
        .getState()
        .send({ kind: 'number-terminal', strip_id: strip.id, unit: row.unit, number: text })
        .then((answer) => answer ?? setText(row.number))
  }
  return (
    <input
      value={text}
      disabled={!canEdit}
      aria-label={`Number of terminal ${row.number}`}
      onChange={(e) => setText(e.target.value)}
      onBlur={save}
      onKeyDown={(e) => {
        if (e.key === 'Enter') e.currentTarget.blur()
        if (e.key === 'Escape') setText(row.number)
      }}
      style={{
        width: 52,
        font: `600 12.5px ${MONO}`,
        textAlign: 'center',
        border: '1px solid #14213D',
        borderRadius: 3,
        background: '#fff',
        padding: '2px 0',
      }}
    />
  )
}

interface TerminalCellsProps {
  strip: Strip
  row: StripRow
  next: StripRow | undefined
  bridged: string[]
  canEdit: boolean
}

/** The numbers of the wires that land on a terminal. */
const numbersOf = (row: StripRow) => [
  ...new Set([...row.panel, ...row.field, ...row.unknown].map((t) => t.number).filter(Boolean)),
]

function TerminalCells({ strip, row, next, bridged, canEdit }: TerminalCellsProps) {
  const { send } = usePick('send')
  const shared = next?.bridges.find((b) => row.bridges.includes(b))
  const toggle = () => {
    if (shared) void send({ kind: 'remove-bridge', bridge_id: shared })
    else if (next) void send({ kind: 'bridge-terminals', strip_id: strip.id, units: [row.unit, next.unit] })
  }
  return (
    <>
      <td>
        <Targets targets={row.field} />
      </td>
      <td style={{ fontFamily: MONO, fontSize: 12 }}>
        {row.field.map((t) => (
          <div key={t.name}>{`${t.cable} ${t.core}`}</div>
        ))}
      </td>
      <td style={{ textAlign: 'center' }}>
        <BridgeMark row={row} bridged={bridged} />
        {next?.kind === 'terminal' && (
          <BridgeButton
            on={shared !== undefined}
            label={`${shared ? 'Part' : 'Bridge'} ${row.number} and ${next.number}`}
            disabled={!canEdit}
            toggle={toggle}
          />
        )}
      </td>
      <td>
        <NumberCell strip={strip} row={row} canEdit={canEdit} />
      </td>
      <td style={{ fontFamily: MONO, fontSize: 11.5, color: row.part ? undefined : SNAG }}>
        {row.part || (strip.part ? row.terminal_kind : '')}
      </td>
      <td>
        <Targets targets={row.panel} />
        {row.unknown.map((t) => (
          <div key={t.name} style={{ color: SNAG, fontSize: 12 }}>
            <span style={{ fontFamily: MONO }}>{t.name}</span> has no location
            <PlaceChoice
              deviceId={t.device_id}
              functionId={t.function_id}
              locationId=""
              canEdit={canEdit}
              label="Say where it is"
            />
          </div>
        ))}
      </td>
      <td style={{ fontFamily: MONO }}>{numbersOf(row).join(', ')}</td>
      <td>
        <SheetLink sheetId={row.sheet_id} select={row.symbol_id}>
          {row.place}
        </SheetLink>
      </td>
    </>
  )
}

interface BridgeButtonProps {
  on: boolean
  label: string
  disabled: boolean
  toggle: () => void
}

function BridgeButton({ on, label, disabled, toggle }: BridgeButtonProps) {
  return (
    <button
      type="button"
      disabled={disabled}
      onClick={toggle}
      aria-label={label}
      title={on ? 'Take the bridge away' : 'Bridge to the next terminal'}
      style={{
        display: 'block',
        margin: '2px auto -12px',
        position: 'relative',
        zIndex: 1,
        width: 14,
        height: 14,
        padding: 0,
        borderRadius: 7,
        border: `1px solid ${on ? COPPER : LINE}`,
        background: on ? COPPER : '#fff',
        cursor: 'pointer',
      }}
    />
  )
}
