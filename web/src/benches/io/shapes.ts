/** What the server says of points and cards; jolly_server/benches/io.py makes it. */
export interface Point {
  id: string
  tag: string
  text: string
  io_type: string
  connected: string
  card: string
  device_id: string
  channel: number
  address: string
}

export interface Channel {
  io_type: string
  channel: number
  address: string
  pins: string
  point_id: string
  point: string
  symbol_id: string
  sheet_id: string
  place: string
}

export interface Card {
  id: string
  tag: string
  text: string
  part: { id: string; number: string; text: string } | null
  scheme: 'byte.bit' | 'whole' | 'word'
  start: string
  channels: Channel[]
}

export interface Spare {
  io_type: string
  points: number
  allocated: number
  channels: number
  spare_percent: number
  needed: number
}

export interface IoView {
  points: Point[]
  cards: Card[]
  spare: Spare[]
  spare_wanted: number
}

export interface ListRead {
  lines: {
    row: number
    tag: string
    text: string
    io_type: 'DI' | 'DO' | 'AI' | 'AO'
    connected: string
    change: string
  }[]
  faults: { row: number; column: string; why: string }[]
  gone: string[]
  headings: Record<string, string>
}
