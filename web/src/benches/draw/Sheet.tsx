/** The sheet: the painted scene, what is previewed, the caret, and the boxes at it. */
import type { View } from '../../project/view'
import Box from '@mui/material/Box'
import { memo, useMemo } from 'react'
import type { Box as Rect, Item } from '../../scene/item'
import { COPPER, SNAG } from '../../theme/theme'
import { ItemView, type Art, type Look } from '../../scene/Painter'
import { GRID, Surface, type At } from '../../scene/Surface'
import { usePick, type Preview } from '../../project/store'
import { useTools, type Point } from './store'
import { atRest, moments, pointerDown, pointerMove, pointerUp } from './tools'
import { around } from '../../scene/viewport'
import { useArt } from '../../project/useArt'
import { useHidden, visible } from './useLayers'
import { useSaid } from './useSaid'

const NOTHING: ReadonlySet<string> = new Set()

interface ItemsProps {
  items: Record<string, Item>
  art: Art
  looks: Map<string, Look>
  changed: ReadonlySet<string>
}

/** All that is drawn; not gone through when only caret, tool or pointer move. */
const Items = memo(function Items({ items, art, looks, changed }: ItemsProps) {
  return Object.values(items).map((item) => (
    <ItemView
      key={item.id}
      item={item}
      art={art}
      look={changed.has(item.id) && item.kind !== 'frame' ? 'preview' : (looks.get(item.id) ?? 'plain')}
    />
  ))
})

interface Props {
  canEdit: boolean
  onGo: (entityId: string) => void
}

/** Of a sheet with many leaves below each other the first is shown: how high it is at most for its width. */
const LEAF = 0.72

/** Where something is drawn, and what of the sheet is worth looking at. */
function useRoom(view: View): { boxes: Rect[]; fit: Rect } {
  const facts = view.sheet.sheet
  const boxes = useMemo(
    () =>
      Object.values(view.items)
        .filter((i) => i.kind !== 'frame')
        .map((i) => i.box),
    [view.items],
  )
  const fit = useMemo(
    (): Rect =>
      facts?.frame === 'plan'
        ? [0, 0, facts.width, Math.min(facts.height, facts.width * LEAF)]
        : contentBox(view.items, facts?.width ?? 420, facts?.height ?? 297, facts?.frame === 'zones'),
    [view.items, facts],
  )
  return { boxes, fit }
}

export function Sheet({ canEdit, onGo }: Props) {
  const { view, preview, selection, subject, caret, loaded, revision } = {
    ...usePick('view', 'preview', 'selection', 'subject', 'loaded', 'revision'),
    ...useTools('tool', 'caret'),
  }
  const art = useArt()
  const facts = view.sheet.sheet
  const hidden = useHidden()
  const said = useSaid(view.items)
  const drawn = preview ? preview.view.items : said
  const items = useMemo(() => visible(drawn, hidden), [drawn, hidden])
  const looks = useMemo(() => lookOf(items, selection, subject), [items, selection, subject])
  const { boxes, fit } = useRoom(view)
  if (!facts)
    return (
      <Box sx={{ p: 3, color: 'text.secondary' }}>
        {loaded ? 'This sheet is gone. Choose another one on the left.' : 'Opening the sheet…'}
      </Box>
    )

  const down = (at: At) => {
    const link = at.target?.getAttribute('data-link')
    // A link to a pin names the symbol first.
    if (link && atRest()) onGo(link.split('.')[0] ?? link)
    else if (canEdit || atRest()) pointerDown(at)
  }
  const move = (at: At) => (canEdit ? pointerMove(at) : undefined)
  const { ghost, box } = moments()
  return (
    <Surface
      width={facts.width}
      height={facts.height}
      fit={fit}
      fitKey={facts.id}
      onDown={down}
      onMove={move}
      onUp={pointerUp}
      onDouble={() => moments().finish?.()}
      boxes={boxes}
      overlay={(place) => {
        const at = place(caret[0] * GRID, caret[1] * GRID)
        if (box) return box(at)
        if (!preview || (!preview.problem && !preview.remarks.length)) return null
        return <Said preview={preview} />
      }}
    >
      <g data-revision={revision} />
      <Items items={items} art={art} looks={looks} changed={preview?.changed ?? NOTHING} />
      {ghost?.()}
      {canEdit && <Caret caret={caret} />}
    </Surface>
  )
}

/** Selected things, and what hangs together with them: units of the device, wires of the net. */
function lookOf(items: Record<string, Item>, selection: Set<string>, subject: string): Map<string, Look> {
  const looks = new Map<string, Look>()
  const devices = new Set<string>()
  const groups = new Set<number>()
  for (const id of selection.size ? selection : subject ? [subject] : []) {
    const item = items[id]
    if (!item) continue
    if (item.kind === 'symbol' && item.facts.device) devices.add(item.facts.device)
    if (item.kind === 'wire' && item.facts.group !== undefined && selection.size === 1)
      groups.add(item.facts.group)
  }
  for (const item of Object.values(items)) {
    if (selection.has(item.id)) looks.set(item.id, 'selected')
    else if (item.kind !== 'wire' && item.facts.device && devices.has(item.facts.device))
      looks.set(item.id, 'linked')
    else if (item.facts.group !== undefined && groups.has(item.facts.group)) looks.set(item.id, 'linked')
  }
  return looks
}

const LEAST_MM = 150
/** What is worth looking at: everything drawn, or the top of an empty sheet. */
function contentBox(items: Record<string, Item>, width: number, height: number, zones: boolean): Rect {
  const drawn = Object.values(items).filter((i) => i.kind !== 'frame')
  if (drawn.length < 6 && zones) return [0, 0, width, height]
  if (drawn.length < 6) return [20, 18, Math.min(width, 290), Math.min(height, 190)]
  const box = around(drawn.map((i) => i.box))!
  // A bus alone is thin: what will be drawn below it is worth looking at, too.
  box[3] = Math.max(box[3], Math.min(height - 6, box[1] + LEAST_MM))
  return [
    Math.max(0, box[0] - 14),
    Math.max(0, box[1] - 4),
    Math.min(width, box[2] + 4),
    Math.min(height, box[3] + 6),
  ]
}

interface CaretProps {
  caret: Point
}

function Caret({ caret }: CaretProps) {
  const [cx, cy] = [caret[0] * GRID, caret[1] * GRID]
  return (
    <g data-testid="caret" data-at={caret.join(',')} pointerEvents="none" stroke={COPPER} strokeWidth={0.45}>
      <path d={`M${cx - 3.4} ${cy}h2.2M${cx + 1.2} ${cy}h2.2M${cx} ${cy - 3.4}v2.2M${cx} ${cy + 1.2}v2.2`} />
      <circle cx={cx} cy={cy} r={1.2} fill="none" />
    </g>
  )
}

interface SaidProps {
  preview: Preview
}

function Said({ preview }: SaidProps) {
  return (
    <Box
      role="status"
      data-testid="preview-problem"
      sx={{
        position: 'absolute',
        left: 12,
        bottom: 12,
        px: 1.5,
        py: 0.75,
        bgcolor: '#fff',
        color: preview.problem ? SNAG : COPPER,
        border: '1px solid currentColor',
        borderRadius: 1,
        maxWidth: 520,
      }}
    >
      {preview.problem || preview.remarks.join(' ')}
    </Box>
  )
}
