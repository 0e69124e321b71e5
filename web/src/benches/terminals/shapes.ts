/** What the server says of strips. */
import type { Schemas } from '../../api/shapes'

export type Target = Schemas['TargetValue']
export type Row = Schemas['StripRowValue']
export type StripLine = Schemas['StripLine']
export type Strip = Schemas['StripValue']
export type Bridge = Schemas['BridgeValue']
export type TerminalsView = Schemas['TerminalsView']
export type TerminalKind = 'feed-through' | 'earth' | 'fuse' | 'disconnect'

export const KINDS: { id: TerminalKind; name: string }[] = [
  { id: 'feed-through', name: 'feed-through' },
  { id: 'earth', name: 'earth' },
  { id: 'fuse', name: 'fuse' },
  { id: 'disconnect', name: 'disconnect' },
]

/** The terminals among some rows. */
export const terminalsOf = (rows: Row[]) => rows.filter((r) => r.kind === 'terminal')
