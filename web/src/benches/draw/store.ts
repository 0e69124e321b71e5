/** What the Draw bench holds beside the open project: caret, tool, and what the next stroke or bus is made of. */
import { held } from '../../kit/held'
import { create } from 'zustand'
import { useShallow } from 'zustand/react/shallow'
import { useProject, type ProjectState } from '../../project/store'
import type { View } from '../../project/view'

/** Strokes without meaning. */
export type Line = 'line' | 'arrow' | 'dimension'
export type Stroke = 'terminals' | 'band' | 'marks' | 'boundary' | Line | 'picture' | 'table'
/** Texts of a symbol that can be dragged. */
export const TEXT_NAMES = ['tag', 'text', 'reference', 'pin'] as const
export type TextName = (typeof TEXT_NAMES)[number]
/** A grid point. */
export type Point = [number, number]
/** A copied piece of circuit, as the server gives and takes it. */
export type Piece = Record<string, unknown>
/** What the inspector shows instead of the selection. */
export type Panel = '' | 'stamps' | 'keep' | 'replace' | 'planned' | 'trace' | 'layers'

export type Tool =
  | { name: 'idle' }
  | { name: 'place'; text: string }
  | { name: 'quick' }
  | { name: 'wire'; bus: boolean; corners: [number, number][]; end: [number, number] }
  | { name: 'copy'; ids: string[]; from: [number, number] }
  | { name: 'drag'; ids: string[]; from: [number, number]; dx: number; dy: number; join: boolean }
  | { name: 'stroke'; what: Stroke; start: [number, number] | null; end: [number, number] }
  | { name: 'paste'; piece: Piece; cut: boolean; end: [number, number] }
  | {
      name: 'stamp'
      id: string
      rows: Record<string, string>[]
      dx: number
      dy: number
      end: [number, number]
    }
  | { name: 'planned'; strip: string; unit: number; symbol: string; carried: boolean; end: [number, number] }
  | { name: 'text'; id: string; role: TextName; from: [number, number]; by: [number, number] }
  | { name: 'marquee'; from: [number, number]; to: [number, number] }

export type ToolName = Tool['name']
export type ToolOf<N extends ToolName> = Extract<Tool, { name: N }>

/** What a row of terminals is told to go to when it shall make a strip of its own. */
export const NEW_STRIP = 'new'

/** What a tool may set of the project: what is selected, what is shown of it, and what is said. */
type Chosen = Pick<ProjectState, 'selection' | 'subject' | 'message' | 'preview'>

export interface DrawState {
  caret: [number, number]
  tool: Tool
  wireType: string
  /** Wire types of the conductors of the next bus, in order. */
  busTypes: string[]
  /** How far apart they lie, grid steps; 0 as far as poles. */
  busSpacing: number
  /** Wire types of the bus the project usually has, [] when its types make none. */
  usualBus: string[]
  /** Names of the continuations of the next stroke, parted by commas. */
  markNames: string
  /** Kind of the terminals of the next row, "" for the usual one of each wire. */
  terminalKind: string
  /** Picture of the project that is put on the sheet next. */
  pictureId: string
  panel: Panel
  /** Code of the language that sheets are shown in, "" for that of the house. */
  language: string
  /** Id of the strip or cable that the next stroke goes to, NEW_STRIP, or "" for the usual one. */
  strokeTarget: string
  /** Planned terminals of that strip that the next row is made of, [] for any. */
  strokeUnits: number[]

  set: (part: Partial<DrawState & Chosen>) => void
}

const idle: Tool = { name: 'idle' }

export const useDraw = create<DrawState>((put) => ({
  caret: [20, 16],
  tool: idle,
  wireType: '',
  busTypes: [],
  busSpacing: 0,
  usualBus: [],
  strokeTarget: '',
  strokeUnits: [],
  markNames: '',
  terminalKind: '',
  pictureId: '',
  panel: '',
  language: '',

  set: (part) => {
    const { selection, subject, message, preview, ...own } = part
    const chosen = { selection, subject, message, preview }
    const given = Object.entries(chosen).filter(([name]) => name in part)
    if (given.length) useProject.setState(Object.fromEntries(given))
    if (Object.keys(own).length) put(own)
  },
}))

/** Where the caret stands on a sheet that is opened: on its first ladder line, else near the corner. */
function firstCaret(view: View): [number, number] {
  const facts = view.sheet.sheet
  return [facts?.lines.length ? facts.rails[0] + 6 : 20, facts?.lines[0]?.[1] ?? 16]
}

/** Whether the sheet that is being opened is another one than before: the caret goes to its beginning. */
let fresh = true

useProject.subscribe((now, before) => {
  const other = now.sheetId !== before.sheetId || now.projectId !== before.projectId
  if (other) {
    fresh = true
    useDraw.setState({ tool: idle, panel: '' })
  } else if (before.loaded && !now.loaded) useDraw.setState({ tool: idle })
  if (fresh && now.loaded && now.sheetId) {
    fresh = false
    useDraw.setState({ caret: firstCaret(now.view) })
  }
  if (now.pointed && now.pointed !== before.pointed) useDraw.setState({ caret: now.pointed.at })
})

// Of a tool that was put down no preview comes late; the last one stays until the edit is answered.
useDraw.subscribe((now, before) => {
  if (held(now.tool, 'idle') && !held(before.tool, 'idle')) useProject.getState().hush()
})

/** The project and the bench together as they are now, for what is done at a key or a move of the pointer. */
export const now = (): ProjectState & DrawState => ({ ...useProject.getState(), ...useDraw.getState() })

/** Some fields of the bench's store; who uses them is rendered anew only when one of these is another one. */
export function useTools<K extends keyof DrawState>(...names: K[]): Pick<DrawState, K> {
  return useDraw(
    useShallow((s) => Object.fromEntries(names.map((name) => [name, s[name]])) as Pick<DrawState, K>),
  )
}
