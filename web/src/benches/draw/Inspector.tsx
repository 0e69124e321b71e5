/** The inspector: what is selected, its texts, part, units, wiring and snags; the sheet when nothing is. */
import Box from '@mui/material/Box'
import { useQuery } from '@tanstack/react-query'
import { lazy, memo, Suspense, useDeferredValue } from 'react'
import { client, got } from '../../api/client'
import { LINE } from '../../theme/theme'
import type { LastingOutline } from '../../project/useOutline'
import { useRevision } from '../../project/useRevision'
import { BelongsTo } from './BelongsTo'
import { FigurePanel } from './FigurePanel'
import { MarkPanel } from './MarkPanel'
import { DevicePanel } from './DevicePanel'
import { MadePanel } from './MadePanel'
import { MoveToSheet } from './MoveToSheet'
import { SelectionPanel } from './SelectionPanel'
import { SheetPanel } from './SheetPanel'
import { usePick, type ProjectState } from '../../project/store'
import { useTools, type DrawState } from './store'
import { WirePanel } from './WirePanel'

interface Props {
  outline: LastingOutline
  canEdit: boolean
  onGo: (id: string, sheet?: string) => void
}

/** What the inspector goes by, at one moment. */
// What is asked for now and then is fetched when it is.
const KeepStamp = lazy(async () => ({ default: (await import('./KeepStamp')).KeepStamp }))
const ReplacePanel = lazy(async () => ({ default: (await import('./ReplacePanel')).ReplacePanel }))
const StampsPanel = lazy(async () => ({ default: (await import('./StampsPanel')).StampsPanel }))

type Shown = Pick<ProjectState & DrawState, 'projectId' | 'view' | 'selection' | 'subject' | 'panel'>

/** The drawing comes first: the inspector follows when there is time. */
export function Inspector(props: Props) {
  const now = { ...usePick('projectId', 'view', 'selection', 'subject'), ...useTools('panel') }
  return <Panels {...props} shown={useDeferredValue(now)} revision={useRevision()} />
}

const Panels = memo(function Panels({
  outline,
  canEdit,
  onGo,
  shown,
  revision,
}: Props & { shown: Shown; revision: number }) {
  const { projectId, view, selection, subject, panel } = shown
  const ids = selection.size ? [...selection] : subject ? [subject] : []
  const items = ids.map((id) => view.items[id]).filter((i) => i !== undefined)
  const symbols = items.filter((i) => i.kind === 'symbol')
  // A band shows its cable as a symbol shows its device.
  const named = items.filter((i) => i.kind === 'symbol' || i.kind === 'band')
  const deviceIds = new Set(named.map((i) => i.facts.device ?? ''))
  const deviceId = deviceIds.size === 1 ? [...deviceIds][0]! : ''
  const wires = items.filter((i) => i.kind === 'wire')
  const card = useQuery({
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
  })
  const sheets = outline.sheets
  const lone = symbols.length === 1 ? symbols[0] : undefined
  const only = items.length === 1 ? items[0]! : undefined
  // Symbols of one device alone show that device.
  const oneDevice = deviceId !== '' && named.length === items.length
  const several = canEdit && items.length > 1 && wires.length < items.length && !oneDevice
  return (
    <Box
      component="aside"
      aria-label="Inspector"
      sx={{
        width: 262,
        flexShrink: 0,
        borderLeft: `1px solid ${LINE}`,
        bgcolor: '#FBF8F1',
        overflow: 'auto',
        p: 1.75,
      }}
    >
      {panel === 'stamps' && canEdit ? (
        <Suspense fallback={null}>
          <StampsPanel />
        </Suspense>
      ) : panel === 'keep' && canEdit ? (
        <Suspense fallback={null}>
          <KeepStamp />
        </Suspense>
      ) : panel === 'replace' && canEdit ? (
        <Suspense fallback={null}>
          <ReplacePanel />
        </Suspense>
      ) : several ? (
        <SelectionPanel items={items} />
      ) : only?.kind === 'continuation' ? (
        <MarkPanel key={only.id} mark={only} canEdit={canEdit} onGo={onGo} />
      ) : only?.kind === 'figure' || only?.kind === 'note' ? (
        <FigurePanel key={only.id} item={only} canEdit={canEdit} />
      ) : deviceId && card.data ? (
        <DevicePanel
          key={deviceId}
          card={card.data}
          symbol={lone?.kind === 'symbol' ? lone : undefined}
          canEdit={canEdit}
          onGo={onGo}
        />
      ) : lone && !deviceId ? (
        <BelongsTo symbol={lone} canEdit={canEdit} />
      ) : wires.length && wires.length === items.length ? (
        <WirePanel
          view={view}
          key={wires[0]!.id}
          wires={wires}
          types={outline.wire_types}
          canEdit={canEdit}
        />
      ) : items.length ? (
        <Box sx={{ color: 'text.secondary' }}>{items.length} things selected.</Box>
      ) : view.sheet.sheet?.made ? (
        <MadePanel
          key={view.sheet.sheet.id}
          view={view}
          canEdit={outline.role !== 'viewer' && outline.state === 'open'}
        />
      ) : (
        <SheetPanel key={view.sheet.sheet?.id} view={view} canEdit={canEdit} />
      )}
      {canEdit && panel === '' && items.length > 0 && <MoveToSheet items={items} sheets={sheets} />}
    </Box>
  )
})
