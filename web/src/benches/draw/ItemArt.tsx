/** A symbol's picture in a list. */
import { useArt } from '../../project/useArt'
import { ItemView } from '../../scene/Painter'

export function ItemArt({ definition }: { definition: string }) {
  const art = useArt()
  const prims = art[`${definition}-1`]
  if (!prims) return null
  const tall = definition === 'motor' || definition === 'dc-supply' || definition === 'transformer'
  return (
    <svg width={38} height={24} viewBox={tall ? '-12 -3 50 30' : '-3 -8 17 12'} aria-hidden>
      <ItemView
        item={{
          id: definition,
          kind: 'symbol',
          prims: [{ kind: 'art', key: definition, x: 0, y: 0, rotation: 0, mirror: false, poles: 1 }],
          box: [0, 0, 0, 0],
          facts: {},
        }}
        art={art}
        look="plain"
      />
    </svg>
  )
}
