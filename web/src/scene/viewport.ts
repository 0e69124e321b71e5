/** Moving the view of the surface that is shown, from commands; the surface says how. */
import type { Box } from './item'

/** Bring a box of mm into view, or all that is drawn. */
export type Show = (box: Box | null) => void

const shown: Show[] = []

/** A surface is shown that is led so; what is returned says that it no longer is. */
export function leadsView(show: Show) {
  shown.push(show)
  return () => void shown.splice(shown.indexOf(show), 1)
}
/** Whether there is anything to be led. */
export const hasView = () => shown.length > 0
/** Bring all that is drawn into view. */
export const showAll = () => shown.forEach((show) => show(null))
/** Bring a part of the sheet into view that was shown last, mm. */
export const showBox = (box: Box) => shown.at(-1)?.(box)

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
