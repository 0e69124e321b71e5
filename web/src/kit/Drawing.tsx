/** A generated drawing on the work surface: painted items, a selection, and whatever a bench lays over it. */
import { memo, useMemo, type ReactNode } from 'react'
import type { Schemas } from '../api/shapes'
import { type Box as Rect } from '../scene/item'
import { ItemView, type Art } from '../scene/Painter'
import { Surface, type At, type Placed } from '../scene/Surface'

export type SceneValue = Schemas['SceneValue']

interface Props {
  scene: SceneValue
  name: string
  selected: Set<string>
  linked?: Set<string>
  art?: Art
  fit?: Rect
  strokes?: boolean
  onDown?: (at: At) => void
  onMove?: (at: At) => void
  onUp?: (at: At) => void
  children?: ReactNode
  /** Things over the drawing that keep their size, given the way from mm to pixels. */
  overlay?: (place: (x: number, y: number) => Placed) => ReactNode
}

const NO_ART: Art = {}
const nothing = () => undefined

export function Drawing(props: Props) {
  const { scene, name, selected, linked, art, fit, strokes, onDown, onMove, onUp, children } = props
  const box = useMemo<Rect>(() => fit ?? [0, 0, scene.width, scene.height], [fit, scene.width, scene.height])
  return (
    <Surface
      width={scene.width}
      height={scene.height}
      fit={box}
      fitKey={name}
      plain
      strokes={strokes ?? false}
      onDown={onDown ?? nothing}
      onMove={onMove ?? nothing}
      onUp={onUp ?? nothing}
      onDouble={nothing}
      {...(props.overlay ? { overlay: props.overlay } : {})}
    >
      <Painted items={scene.items} {...{ selected, linked, art }} />
      {children}
    </Surface>
  )
}

interface PaintedProps {
  items: SceneValue['items']
  selected: Set<string>
  linked: Set<string> | undefined
  art: Art | undefined
}

/** What is drawn; not gone through again while it, and what is chosen, are the same. */
const Painted = memo(function Painted({ items, selected, linked, art }: PaintedProps) {
  return items.map((item) => (
    <ItemView
      key={item.id}
      item={item}
      art={art ?? NO_ART}
      look={selected.has(item.id) ? 'selected' : linked?.has(item.id) ? 'linked' : 'plain'}
    />
  ))
})
