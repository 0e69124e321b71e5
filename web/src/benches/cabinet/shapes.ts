/** What the server says of layouts. */
import type { Schemas } from '../../api/shapes'

export type Waiting = Schemas['Waiting']
export type Route = Schemas['RouteValue']
export type Way = Schemas['WireWay']
export type SpaceBox = Schemas['Solid']
export type LaneValue = Schemas['LaneValue']
export type EnclosureValue = Schemas['EnclosureValue']
export type LayoutStamp = Schemas['LayoutStamp']
export type CabinetView = Schemas['CabinetView']
export type SurfaceName = Schemas['SurfaceValue']['name']
/** How the enclosure is looked at: a surface, the door from behind, in space. */
export type Look = SurfaceName | 'door-back' | 'space'

export { numberIn } from '../../kit/numbers'
