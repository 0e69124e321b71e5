/** The layer of what is selected, and whether it moves together. */
import type { Item } from '../../scene/item'
import { makeEdit } from '../../api/client'
import { Act, Acts } from '../../kit/Act'
import { PanelPick } from '../../kit/Pick'
import { usePick } from '../../project/store'
import { groupSelected, IN_LAYERS, ungroupSelected } from './acts'
import { useLayers } from './useLayers'

export function InLayer({ items }: { items: Item[] }) {
  const { send } = usePick('send')
  const layers = useLayers().data ?? []
  const things = items.filter((i) => IN_LAYERS.has(i.kind))
  if (!things.length) return null
  const found = new Set(things.map((i) => i.facts.layer ?? ''))
  const together = things.some((i) => i.facts.together)
  return (
    <>
      {layers.length > 0 && (
        <PanelPick
          label="In the layer"
          value={found.size === 1 ? [...found][0]! : 'several'}
          options={[{ id: '', name: 'none' }, ...layers.map(({ id, name }) => ({ id, name }))]}
          onPick={(layer_id) =>
            void send(makeEdit('put-in-layer', { ids: things.map((i) => i.id), layer_id }))
          }
        />
      )}
      <Acts>
        {things.length > 1 && !together && (
          <Act onClick={groupSelected} hint="G">
            Group
          </Act>
        )}
        {together && (
          <Act onClick={ungroupSelected} hint="Shift+G">
            Ungroup
          </Act>
        )}
      </Acts>
    </>
  )
}
