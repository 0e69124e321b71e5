/** How layout sheets are dimensioned. */
import { PanelPick } from '../../kit/Pick'
import { usePick } from '../../project/store'
import { useOutline } from '../../project/useOutline'

const WAYS = [
  { id: 'chain', name: 'from each to the next' },
  { id: 'running', name: 'running from the lower left corner' },
] as const

export function Dimensions({ canEdit }: { canEdit: boolean }) {
  const { projectId, send } = usePick('projectId', 'send')
  const value = useOutline(projectId).data?.settings.dimensions as string | undefined
  return (
    <PanelPick
      label="Dimensions on layout sheets"
      value={value ?? 'chain'}
      options={WAYS}
      disabled={!canEdit}
      onPick={(id) => void send({ kind: 'change-settings', dimensions: id as (typeof WAYS)[number]['id'] })}
    />
  )
}
