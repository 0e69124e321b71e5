/** What the server says of cables. */
import type { Schemas } from '../../api/shapes'

export type Core = Schemas['CoreValue']
export type Cable = Schemas['CableValue']
export type Group = Schemas['FieldGroupValue']
export type Way = Schemas['WayValue']
export type CablesView = Schemas['CablesView']
export type CablePicture = Schemas['CablePicture']
