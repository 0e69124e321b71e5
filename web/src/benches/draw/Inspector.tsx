/** The inspector: what is selected, its texts, part, units, wiring and snags; the sheet when nothing is. */
import Box from '@mui/material/Box'
import { useQuery } from '@tanstack/react-query'
import { memo, useDeferredValue, useMemo, type ComponentType } from 'react'
import { client, got } from '../../api/client'
import type { DeviceCard } from '../../api/shapes'
import { DraftHome } from '../../kit/drafts'
import { fetched } from '../../kit/fetched'
import type { View } from '../../project/view'
import type { Item } from '../../scene/item'
import type { LastingOutline } from '../../project/useOutline'
import { useRevision } from '../../project/useRevision'
import { BelongsTo } from './BelongsTo'
import { FigurePanel } from './FigurePanel'
import { InLayer } from './InLayer'
import { MarkPanel } from './MarkPanel'
import { DevicePanel } from './DevicePanel'
import { MadePanel } from './MadePanel'
import { MoveToSheet } from './MoveToSheet'
import { SelectionPanel } from './SelectionPanel'
import { SheetPanel } from './SheetPanel'
import { usePick, type ProjectState } from '../../project/store'
import { useTools, type DrawState, type Panel } from './store'
import { WirePanel } from './WirePanel'

interface Props {
  outline: LastingOutline
  canEdit: boolean
  onGo: (id: string, sheet?: string) => void
}

// What is asked for now and then is fetched when it is.
const KeepStamp = fetched(() => import('./KeepStamp').then((m) => m.KeepStamp))
const LayersPanel = fetched(() => import('./LayersPanel').then((m) => m.LayersPanel))
const PlannedPanel = fetched(() => import('./PlannedPanel').then((m) => m.PlannedPanel))
const ReplacePanel = fetched(() => import('./ReplacePanel').then((m) => m.ReplacePanel))
const TracePanel = fetched(() => import('./TracePanel').then((m) => m.TracePanel))
const StampsPanel = fetched(() => import('./StampsPanel').then((m) => m.StampsPanel))

/** Panels that are called for, whatever is selected. */
const CALLED: Partial<Record<Panel, ComponentType>> = {
  stamps: StampsPanel,
  keep: KeepStamp,
  replace: ReplacePanel,
  planned: PlannedPanel,
}

type Shown = Pick<ProjectState & DrawState, 'projectId' | 'view' | 'selection' | 'subject' | 'panel'>

/** The drawing comes first: the inspector follows when there is time. */
export function Inspector(props: Props) {
  const now = { ...usePick('projectId', 'view', 'selection', 'subject'), ...useTools('panel') }
  return <Panels {...props} shown={useDeferredValue(now)} revision={useRevision()} />
}

/** What the panels need to know of the selection. */
interface Chosen {
  items: Item[]
  symbols: Item[]
  wires: Item[]
  /** The one device that all that is chosen of devices belongs to, "" for several or none. */
  deviceId: string
  /** Whether nothing but that device is chosen. */
  oneDevice: boolean
}

function chosenOf({ view, selection, subject }: Shown): Chosen {
  const ids = selection.size ? [...selection] : subject ? [subject] : []
  const items = ids.map((id) => view.items[id]).filter((i) => i !== undefined)
  const symbols = items.filter((i) => i.kind === 'symbol')
  // A band shows its cable as a symbol shows its device.
  const named = items.filter((i) => i.kind === 'symbol' || i.kind === 'band')
  const devices = new Set(named.map((i) => i.facts.device ?? ''))
  const deviceId = devices.size === 1 ? [...devices][0]! : ''
  const oneDevice = deviceId !== '' && named.length === items.length
  return { items, symbols, wires: items.filter((i) => i.kind === 'wire'), deviceId, oneDevice }
}

/** What is known of a device, at a revision. */
function useCard(projectId: string, deviceId: string, revision: number) {
  return useQuery({
    queryKey: ['device', projectId, deviceId, revision],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/devices/{device_id}', {
          params: { path: { project_id: projectId, device_id: deviceId } },
        }),
      ),
    enabled: deviceId !== '',
    placeholderData: (before) => (before?.id === deviceId ? before : undefined),
    retry: false,
  }).data
}

type PanelsProps = Props & { shown: Shown; revision: number }

const Panels = memo(function Panels({ outline, canEdit, onGo, shown, revision }: PanelsProps) {
  const { projectId, view, panel } = shown
  const chosen = useMemo(() => chosenOf(shown), [shown])
  const card = useCard(projectId, chosen.deviceId, revision)
  const { items } = chosen
  const Called = canEdit ? CALLED[panel] : undefined
  const about = chosen.deviceId || items.map((item) => item.id).join() || view.sheet.sheet?.id
  return (
    <DraftHome.Provider value={`${projectId}|${about}`}>
      {panel === 'trace' ? (
        <TracePanel onGo={onGo} />
      ) : panel === 'layers' ? (
        <LayersPanel canEdit={canEdit} />
      ) : Called ? (
        <Called />
      ) : items.length ? (
        <OfSelection {...{ outline, canEdit, onGo, view, chosen, card }} />
      ) : view.sheet.sheet?.made ? (
        <MadePanel
          key={view.sheet.sheet.id}
          view={view}
          canEdit={outline.role !== 'viewer' && outline.state === 'open'}
        />
      ) : (
        <SheetPanel key={view.sheet.sheet?.id} view={view} canEdit={canEdit} />
      )}
      {canEdit && panel === '' && items.length > 0 && (
        <>
          <InLayer items={items} />
          <MoveToSheet items={items} sheets={outline.sheets} />
        </>
      )}
    </DraftHome.Provider>
  )
})

type SelectionProps = Props & { view: View; chosen: Chosen; card: DeviceCard | undefined }

/** The panel of what is selected: one thing, one device, strokes of wires, or several of different kinds. */
function OfSelection({ outline, canEdit, onGo, view, chosen, card }: SelectionProps) {
  const { items, symbols, wires, deviceId, oneDevice } = chosen
  const only = items.length === 1 ? items[0]! : undefined
  const symbol = symbols.length === 1 ? symbols[0] : undefined
  const onlyWires = wires.length === items.length
  if (canEdit && !only && !onlyWires && !oneDevice) return <SelectionPanel items={items} />
  if (only?.kind === 'continuation')
    return <MarkPanel key={only.id} mark={only} canEdit={canEdit} onGo={onGo} />
  if (only?.kind === 'figure' || only?.kind === 'note')
    return <FigurePanel key={only.id} item={only} canEdit={canEdit} />
  if (deviceId && card)
    return <DevicePanel key={deviceId} card={card} symbol={symbol} canEdit={canEdit} onGo={onGo} />
  if (symbol && !deviceId) return <BelongsTo symbol={symbol} canEdit={canEdit} />
  const types = outline.wire_types
  if (onlyWires)
    return <WirePanel view={view} key={wires[0]!.id} wires={wires} types={types} canEdit={canEdit} />
  return <Box sx={{ color: 'text.secondary' }}>{items.length} things selected.</Box>
}
