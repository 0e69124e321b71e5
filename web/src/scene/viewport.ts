/** Moving the view of the surface that is shown, from commands; the surface says how. */
import type { Box } from './item'

let show: (box: Box | null) => void = () => undefined

export const leadsView = (way: typeof show) => {
  show = way
}
/** Bring all that is drawn into view. */
export const showAll = () => show(null)
/** Bring a part of the sheet into view, mm. */
export const showBox = (box: Box) => show(box)

/** The box around boxes, null around none. */
export function around(boxes: Box[]): Box | null {
  if (!boxes.length) return null
  return [
    Math.min(...boxes.map((b) => b[0])),
    Math.min(...boxes.map((b) => b[1])),
    Math.max(...boxes.map((b) => b[2])),
    Math.max(...boxes.map((b) => b[3])),
  ]
}
