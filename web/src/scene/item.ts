/** What is painted: things of a scene with their primitives and facts, as the server declares them. */
import type { Schemas } from '../api/shapes'

export type Item = Schemas['SceneItem']
export type Facts = Schemas['Facts']
export type Prim = Item['prims'][number]
export type Box = Item['box']

/** A primitive of a kind. */
export type PrimOf<K extends Prim['kind']> = Extract<Prim, { kind: K }>
