/** A generated drawing as a picture among words: it is looked at, and neither panned nor chosen in. */
import type { Schemas } from '../api/shapes'
import { ItemView, type Art } from '../scene/Painter'

const NO_ART: Art = {}

export function StillPicture({ scene, label }: { scene: Schemas['SceneValue']; label: string }) {
  return (
    <svg
      role="img"
      aria-label={label}
      viewBox={`0 0 ${scene.width} ${scene.height}`}
      style={{ width: '100%', display: 'block', pointerEvents: 'none' }}
    >
      {scene.items.map((item) => (
        <ItemView key={item.id} item={item} art={NO_ART} look="plain" />
      ))}
    </svg>
  )
}
