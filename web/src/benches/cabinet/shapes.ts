/** What the server says of layouts. */
import type { Schemas } from '../../api/shapes'

export type Waiting = Schemas['Waiting']
export type Route = Schemas['RouteValue']
export type SpaceBox = Schemas['Solid']
export type EnclosureValue = Schemas['EnclosureValue']
export type CabinetView = Schemas['CabinetView']
export type SurfaceName = 'plate' | 'door'
