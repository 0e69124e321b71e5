/** The strip as it stands on its rail: choosing, dragging to another place, bridging across. */
import Box from '@mui/material/Box'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { Drawing } from '../../kit/Drawing'
import { TableBar } from '../../kit/TableBar'
import { usePick } from '../../project/store'
import type { At } from '../../scene/Surface'
import { COPPER, MONO, QUIET } from '../../theme/theme'
import { movePlaces } from './moving'
import { terminalsOf, type Row, type Strip, type Target } from './shapes'
import type { FaceTool, Held } from './useHeld'

interface Props {
  strip: Strip
  canEdit: boolean
  held: Held
}

/** Where a drag began, and where it is. */
interface Drag {
  key: string
  from: number
  to: number
  over: string
  add: boolean
  chosen: boolean
}

const WHOLE_MM = 230 // of a strip can be read as a whole
const LONG = 2.1 // as much longer than wide, a strip is not shown as a whole at first

export function StripFace({ strip, canEdit, held }: Props) {
  return (
    <>
      <TableBar>
        <b style={{ fontFamily: MONO }}>{strip.tag}</b>
        <span style={{ color: QUIET, fontSize: 12.5 }}>
          {strip.rail ? `on a rail of ${strip.rail}` : 'on no rail yet'}
        </span>
        <Box sx={{ flex: 1 }} />
        {canEdit && (
          <ToggleButtonGroup
            exclusive
            size="small"
            value={held.tool}
            aria-label="Tool"
            onChange={(_, v: FaceTool | null) => v && held.setTool(v)}
          >
            <ToggleButton value="choose" title="Choose terminals, drag them to another place">
              Choose
            </ToggleButton>
            <ToggleButton
              value="bridge"
              title="Drag across terminals; with Shift only the first and the last"
            >
              Bridge across
            </ToggleButton>
          </ToggleButtonGroup>
        )}
        <ToggleButtonGroup
          exclusive
          size="small"
          value={held.upright ? 'upright' : 'level'}
          aria-label="How it lies"
          onChange={(_, v: string | null) => v && held.setUpright(v === 'upright')}
        >
          <ToggleButton value="level">Level</ToggleButton>
          <ToggleButton value="upright">Upright</ToggleButton>
        </ToggleButtonGroup>
      </TableBar>
      <Picture {...{ strip, canEdit, held }} />
    </>
  )
}

/** The place of the strip under the pointer, "" when there is none. */
function placeUnder(at: At): string {
  const id = at.target?.closest('[data-id]')?.getAttribute('data-id') ?? ''
  return id.replace(/^(number|lead):/, '')
}

/** What the pointer does on the picture: it chooses, drags to another place, or bridges across. */
function usePointer({ strip, canEdit, held }: Props) {
  const { send, projectId } = usePick('send', 'projectId')
  const navigate = useNavigate()
  const [drag, setDrag] = useState<Drag | null>(null)
  const live = useRef<Drag | null>(null)
  const hold = (next: Drag | null) => {
    live.current = next
    setDrag(next)
  }
  const { rows } = strip
  const along = (at: At) => (strip.lies_upright ? at.y : at.x)
  const known = (id: string) => rows.some((r) => r.key === id)
  const down = (at: At) => {
    const target = targetUnder(strip, at)
    if (target) return void navigate(`/p/${projectId}/draw/${target.sheet_id}?sel=${target.symbol_id}`)
    const id = placeUnder(at)
    const bridge = strip.laid.find((b) => `bridge:${b.id}` === id)
    if (bridge)
      return held.choose(new Set(rows.filter((r) => bridge.units.includes(r.unit)).map((r) => r.key)))
    if (!known(id)) return held.choose(new Set())
    if (held.tool === 'choose' && at.event.shiftKey && held.chosen.size)
      return held.choose(new Set(until(rows, held.chosen, id)))
    const more = at.event.ctrlKey || at.event.metaKey
    const chosen = held.chosen.has(id)
    if (held.tool === 'choose' && !chosen) held.choose(new Set(more ? [...held.chosen, id] : [id]))
    hold({ key: id, from: along(at), to: along(at), over: id, add: more, chosen })
  }
  const move = (at: At) => {
    if (!live.current) return
    const id = placeUnder(at)
    hold({ ...live.current, to: along(at), over: known(id) ? id : live.current.over })
  }
  const up = (at: At) => {
    const was = live.current
    hold(null)
    if (!was) return
    if (held.tool === 'bridge' && canEdit) return bridgeAcross(strip, was, at.event.shiftKey, send)
    if (canEdit && isLong(was)) movePlaces(strip, [...held.chosen], { to: beforeWhich(strip, held, was.to) })
    else if (was.add && was.chosen) held.choose(new Set([...held.chosen].filter((k) => k !== was.key)))
    else if (!was.add) held.choose(new Set([was.key]))
  }
  return { drag, down, move, up }
}

/** What is chosen with all up to a place. */
function until(rows: Row[], chosen: Set<string>, id: string): string[] {
  const keys = rows.map((r) => r.key)
  const places = [...chosen, id].map((key) => keys.indexOf(key))
  return keys.slice(Math.min(...places), Math.max(...places) + 1)
}

/** The target whose name is under the pointer. */
function targetUnder(strip: Strip, at: At): Target | undefined {
  const link = at.target?.closest('[data-link]')?.getAttribute('data-link') ?? ''
  if (!link) return undefined
  const led = strip.rows.flatMap((r) => [...r.field, ...r.panel, ...r.unknown])
  return led.find((t) => t.sheet_id && link.startsWith(t.symbol_id))
}

const isLong = (drag: Drag) => Math.abs(drag.to - drag.from) > 2

function Picture(props: Props) {
  const { strip, canEdit, held } = props
  const { drag, down, move, up } = usePointer(props)
  const { scene } = strip
  const fit: [number, number, number, number] = strip.lies_upright
    ? [0, 0, scene.width, Math.min(scene.height, Math.max(scene.width / LONG, WHOLE_MM / LONG))]
    : [0, 0, Math.min(scene.width, Math.max(scene.height * LONG, WHOLE_MM)), scene.height]
  const selected = new Set([...held.chosen].flatMap((key) => [key, `number:${key}`]))
  const between = drag && held.tool === 'bridge' ? passed(strip, drag) : []
  return (
    <Drawing
      scene={scene}
      name={`${strip.id} ${strip.lies_upright}`}
      fit={fit}
      selected={selected}
      linked={new Set(between.map((r) => r.key))}
      onDown={down}
      onMove={move}
      onUp={up}
    >
      {drag && held.tool === 'choose' && canEdit && isLong(drag) && (
        <Insertion {...{ strip, held, at: drag.to }} />
      )}
    </Drawing>
  )
}

type Send = ReturnType<typeof usePick<'send'>>['send']
type Box4 = [number, number, number, number]

const boxOf = (strip: Strip, key: string) =>
  strip.scene.items.find((i) => i.id === key)?.box as Box4 | undefined

/** Before which of the places that are not lifted something is let go, as their count. */
function beforeWhich(strip: Strip, held: Held, at: number): number {
  const left = strip.rows.filter((r) => !held.chosen.has(r.key))
  const middle = (key: string) => {
    const box = boxOf(strip, key)
    return box ? (strip.lies_upright ? (box[1] + box[3]) / 2 : (box[0] + box[2]) / 2) : -1
  }
  return left.filter((r) => middle(r.key) < at).length
}

/** The terminals from where a drag began to where it is, both included. */
function passed(strip: Strip, drag: Drag): Row[] {
  const terminals = terminalsOf(strip.rows)
  const [a, b] = [drag.key, drag.over].map((key) => terminals.findIndex((r) => r.key === key)) as [
    number,
    number,
  ]
  if (a < 0 || b < 0) return []
  const between = terminals.slice(Math.min(a, b), Math.max(a, b) + 1)
  const level = terminals[a]!.level
  return between.every((r) => r.level === level) ? between : between.filter((r) => r.level === level)
}

function bridgeAcross(strip: Strip, drag: Drag, ends: boolean, send: Send) {
  const rows = passed(strip, drag)
  const units = (ends ? [rows[0], rows.at(-1)] : rows).flatMap((r) => (r ? [r.unit] : []))
  if (new Set(units).size > 1) void send({ kind: 'bridge-terminals', strip_id: strip.id, units, part_id: '' })
}

/** A stroke where what is dragged would be put in. */
function Insertion({ strip, held, at }: { strip: Strip; held: Held; at: number }) {
  const left = strip.rows.filter((r) => !held.chosen.has(r.key))
  const next = left[beforeWhich(strip, held, at)]
  const last = left.at(-1)
  const box = next ? boxOf(strip, next.key) : last && boxOf(strip, last.key)
  if (!box) return null
  const [x1, y1, x2, y2] = box
  const place = strip.lies_upright ? (next ? y1 : y2) : next ? x1 : x2
  const ends = strip.lies_upright ? { x1, x2, y1: place, y2: place } : { x1: place, x2: place, y1, y2 }
  return <line {...ends} stroke={COPPER} strokeWidth={1.2} />
}
