/** What is painted: things of a scene with their primitives and facts; jolly_core/scenes makes them. */

/** A primitive of a scene; jolly_core/scenes/primitives.py documents the kinds. */
export type Prim = [string, ...unknown[]]
export type Box = [number, number, number, number]

export interface Item {
  id: string
  kind: string
  prims: Prim[]
  box: Box
  facts: {
    device?: string
    definition?: string
    tag?: string
    text?: string
    group?: number
    number?: string
    fixed?: boolean
    type?: string
    name?: string
    locked?: boolean
    /** How many poles a symbol has and may have; texts of it that were moved ("dx,dy") or hidden ("off"). */
    poles?: [number, number]
    texts?: Record<string, string>
    /** How far texts have moved by themselves, to be clear of others: "dx,dy" in mm by role. */
    settled?: Record<string, string>
    /** What a figure is, its location, and its corners in grid steps. */
    figure?: string
    location?: string
    dashed?: boolean
    corners?: [number, number, number, number]
    ends?: [number, number][]
    pins?: [number, number][]
    body?: Box
    /** The graphics of a symbol that somebody drew; the others are fetched once. */
    art?: Prim[]
    /** Ends of a rail or duct in plate mm, and length and ends of a harness segment on its board. */
    run?: [number, number, number, number]
    length?: number
    from?: [number, number]
    to?: [number, number]
  }
}

/** Items as the server gives them: their facts are an open record there, because each kind of thing has its own. */
export const asItems = (
  items: readonly { id: string; kind: string; prims: unknown[]; box: Box; facts: object }[],
) => items as Item[]

/** Graphics as the server gives them: of a list's first value it is not said there that it is the primitive's name. */
export const asPrims = (art: unknown[][]) => art as Prim[]
