/** The lines of the sheet tree that are in sight, opened by a click and put elsewhere by dragging them. */
import Box from '@mui/material/Box'
import { useCallback, useEffect, useEffectEvent, useRef, useState } from 'react'
import { makeEdit } from '../../api/client'
import type { PageLine, SheetLine } from '../../api/shapes'
import { useGo } from '../../kit/useGo'
import { useHeight } from '../../kit/useHeight'
import { COPPER, QUIET } from '../../theme/theme'
import { GroupRow, LINES, SheetRow } from './SheetRow'
import { useProject } from '../../project/store'

const ROW_PX = 26
const OVER = 10
export type By = 'function' | 'location' | 'number'

export type Row =
  | { type: 'group'; key: string; label: string; count: number; first: SheetLine | null }
  | { type: 'sheet'; key: string; sheet: SheetLine }
  | { type: 'page'; key: string; page: PageLine }

/** The rows in view of a list that scrolls, and bringing one of them into view. */
function useRows(rows: Row[], current: string) {
  const box = useRef<HTMLDivElement>(null)
  const [top, setTop] = useState(0)
  const height = useHeight(box, 600)
  const bringIntoView = useEffectEvent((id: string) => {
    const at = rows.findIndex((r) => r.key === id)
    const element = box.current
    if (at < 0 || !element) return
    const y = at * ROW_PX
    if (y < element.scrollTop || y + ROW_PX > element.scrollTop + element.clientHeight)
      element.scrollTop = Math.max(0, y - element.clientHeight / 3)
  })
  // Only when another sheet is opened: scrolling by hand is left alone.
  useEffect(() => bringIntoView(current), [current])
  const first = Math.max(0, Math.floor(top / ROW_PX) - OVER)
  const last = Math.min(rows.length, Math.ceil((top + height) / ROW_PX) + OVER)
  return { box, setTop, first, last }
}

/** Put a dragged sheet behind another one, or at the front of a group, and into that one's group. */
function moveSheet(held: string, target: Row, sheets: SheetLine[], by: By) {
  const model = target.type === 'sheet' ? target.sheet : target.type === 'group' ? target.first : null
  if (!held || !model || model.id === held) return
  const order = sheets.filter((s) => s.id !== held)
  const at = order.findIndex((s) => s.id === model.id)
  const after = target.type === 'sheet' ? model.id : (order[at - 1]?.id ?? '-')
  const groups = {
    function: { function_id: model.function_id },
    location: { location_id: model.location_id },
    number: {},
  }
  const { send } = useProject.getState()
  void send(makeEdit('order-sheets', { sheet_ids: [held], after_id: after, ...groups[by], follow: true }))
}

interface TreeProps {
  projectId: string
  sheets: SheetLine[]
  rows: Row[]
  by: By
  current: string
  canEdit: boolean
  isClosed: (key: string) => boolean
  toggle: (key: string) => void
  insert: (after: string) => void
  nothing: string
}

const TREE = { flex: 1, minHeight: 60, overflow: 'auto', position: 'relative', ...LINES } as const

/** Open a sheet: it is asked for at once, and the address follows. */
function useOpening(projectId: string) {
  const go = useGo()
  return useCallback(
    (id: string) => {
      useProject.getState().openAhead(projectId, id)
      go(`/p/${projectId}/draw/${id}`)
    },
    [projectId, go],
  )
}

export function SheetTree(props: TreeProps) {
  const { sheets, rows, by, current, canEdit } = props
  const open = useOpening(props.projectId)
  const people = useProject((s) => s.people)
  const { box, setTop, first, last } = useRows(rows, current)
  const [held, setHeld] = useState('')
  const [over, setOver] = useState('')
  const drag = (key: string) => {
    setHeld(key)
    setOver('')
  }
  return (
    <Box ref={box} data-testid="sheet-tree" onScroll={(e) => setTop(e.currentTarget.scrollTop)} sx={TREE}>
      <div style={{ height: rows.length * ROW_PX, position: 'relative' }}>
        {rows.slice(first, last).map((row, i) => (
          <div
            key={row.key}
            className="row"
            draggable={canEdit && row.type === 'sheet'}
            onDragStart={(e) => {
              drag(row.key)
              e.dataTransfer.effectAllowed = 'move'
              e.dataTransfer.setData('text/plain', row.key)
            }}
            onDragEnd={() => drag('')}
            onDragOver={(e) => {
              if (!held || row.type === 'page') return
              e.preventDefault()
              setOver(row.key)
            }}
            onDrop={(e) => {
              e.preventDefault()
              drag('')
              moveSheet(held, row, sheets, by)
            }}
            style={{
              top: (first + i) * ROW_PX,
              height: ROW_PX,
              opacity: held === row.key ? 0.45 : 1,
              borderBottom: over === row.key ? `2px solid ${COPPER}` : undefined,
            }}
          >
            <OneRow row={row} open={open} people={people} {...props} />
          </div>
        ))}
      </div>
      {props.nothing && <Box sx={{ p: 1.5, color: QUIET }}>{props.nothing}</Box>}
    </Box>
  )
}

interface RowProps extends TreeProps {
  row: Row
  open: (id: string) => void
  people: readonly { name: string; sheet_id: string }[]
}

function OneRow({ row, open, people, projectId, by, current, canEdit, isClosed, toggle, insert }: RowProps) {
  if (row.type === 'group')
    return (
      <GroupRow
        label={row.label}
        count={row.count}
        closed={isClosed(row.key)}
        onToggle={() => toggle(row.key)}
      />
    )
  const page = row.type === 'sheet' ? row.sheet : row.page
  const there = people.filter((p) => p.sheet_id === row.key).map((p) => p.name)
  return (
    <SheetRow
      projectId={projectId}
      id={page.id}
      number={page.number}
      title={page.title}
      current={row.key === current}
      indent={by !== 'number' || row.type === 'page'}
      people={[...new Set(there)].join('\n')}
      onOpen={open}
      onInsert={canEdit && row.type === 'sheet' ? insert : undefined}
    />
  )
}
