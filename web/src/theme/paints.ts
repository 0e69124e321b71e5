/** The one table of pens, dashes, fills, inks, faces and insulation colours, which PDF, SVG and DXF read, too. */
import sans from 'dejavu-fonts-ttf/ttf/DejaVuSans.ttf?url'
import monoBold from 'dejavu-fonts-ttf/ttf/DejaVuSansMono-Bold.ttf?url'
import mono from 'dejavu-fonts-ttf/ttf/DejaVuSansMono.ttf?url'
import table from '../../../jolly_core/scenes/paints.json'

export interface Pen {
  mm: number
  dash?: string
}

export interface RolePaint {
  family: string
  weight: number
  ink: string
}

export interface WirePaint {
  first: string
  second: string
  edged: boolean
  mm: number
}

const FILES: Record<string, string> = { sans, mono, 'mono-bold': monoBold }
const faces: Record<string, { family: string; weight: number; generic: string }> = table.faces
const inks: Record<string, string> = table.inks
const insulation: Record<string, string> = table.wire.colours
const light = new Set(table.wire.light)

const penOf = (pen: { mm: number; dash?: number[] }): Pen => ({ mm: pen.mm, dash: pen.dash?.join(' ') })
const mapped = <T, U>(record: Record<string, T>, of: (value: T) => U) =>
  Object.fromEntries(Object.entries(record).map(([name, value]) => [name, of(value)]))

export const INKS = table.inks
export const TONES = table.tones
export const PENS: Record<string, Pen> = mapped(table.pens, penOf)
export const WIRE = { ...penOf(table.wire), edge: table.wire.edge_mm }
export const ROLES: Record<string, RolePaint> = mapped(table.roles, (role) => {
  const face = faces[role.face]!
  return { family: `"${face.family}", ${face.generic}`, weight: face.weight, ink: inks[role.ink]! }
})

/** How a wire is painted by the code of its colour (IEC 60757); four letters are two colours. */
export function wirePaint(code: string): WirePaint {
  const [a, b] = [code.slice(0, 2), code.slice(2)]
  const { other } = table.wire
  const parts = [a, b].filter(Boolean)
  return {
    first: insulation[a] ?? other,
    second: b ? (insulation[b] ?? other) : '',
    edged: parts.some((part) => light.has(part)),
    mm: parts.length && parts.every((part) => light.has(part)) ? table.wire.light_mm : table.wire.mm,
  }
}

/** Make the faces of drawings known to the browser, so that a text is as wide on the screen as on paper. */
export function bringFaces() {
  for (const [name, file] of Object.entries(FILES)) {
    const face = faces[name]!
    document.fonts.add(new FontFace(face.family, `url(${file})`, { weight: String(face.weight) }))
  }
}
