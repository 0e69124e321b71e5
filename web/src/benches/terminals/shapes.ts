/** What the server says of strips. */
import type { Schemas } from '../../api/shapes'

export type Target = Schemas['TargetValue']
export type StripRow = Schemas['StripRowValue']
export type TerminalGroup = Schemas['TerminalGroupValue']
export type Strip = Schemas['StripValue']
export type TerminalsView = Schemas['TerminalsView']
