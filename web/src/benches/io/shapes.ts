/** What the server says of points and cards, and what the bench calls them by. */
import type { Schemas } from '../../api/shapes'

export type Point = Schemas['PointValue']
export type Channel = Schemas['ChannelValue']
export type Card = Schemas['CardValue']
export type Rack = Schemas['RackValue']
export type Need = Schemas['NeedValue']
export type IoView = Schemas['IoView']
export type ListRead = Schemas['ListRead']
export type AddressSpace = Schemas['MapValue']
export type Scheme = Card['scheme']

export const SCHEMES: { id: Scheme; name: string }[] = [
  { id: 'byte.bit', name: 'byte.bit' },
  { id: 'word', name: 'words' },
  { id: 'whole', name: 'whole numbers' },
  { id: 'octal', name: 'octal numbers' },
  { id: 'slot', name: 'slot and point' },
]

export const TYPES = ['DI', 'DO', 'AI', 'AO'] as const
export type IoType = (typeof TYPES)[number]

/** What a point asks beside its type, in words. */
export const SORTS = [
  { id: '', name: 'plain' },
  { id: 'fast', name: 'fast' },
  { id: 'rtd', name: 'resistance thermometer' },
  { id: 'thermocouple', name: 'thermocouple' },
  { id: 'safe', name: 'safe' },
]

/** A channel by name, as it is dragged and chosen. */
export const channelKey = (card: string, c: Channel) => `${card} ${c.io_type} ${c.channel}`

/** Type and sort as they are shown together. */
export const kindOf = (p: { io_type: string; sort: string }) =>
  p.sort ? `${p.io_type} ${p.sort}` : p.io_type

/** Whether all words of a filter are in what a point says of itself. */
export function matches(p: Point, words: string): boolean {
  const said =
    `${p.tag} ${p.text} ${kindOf(p)} ${p.location} ${p.function} ${p.device} ${p.connected}`.toLowerCase()
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => said.includes(word))
}

/** A channel with the card it is on. */
export interface Spot {
  card: string
  row: Channel
}
