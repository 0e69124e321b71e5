/** What the server says of points and cards. */
import type { Schemas } from '../../api/shapes'

export type Point = Schemas['PointValue']
export type Channel = Schemas['ChannelValue']
export type Card = Schemas['CardValue']
export type Spare = Schemas['Spare']
export type IoView = Schemas['IoView']
export type ListRead = Schemas['ListRead']
