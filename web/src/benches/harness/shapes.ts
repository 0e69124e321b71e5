/** What the server says of harnesses. */
import type { Schemas } from '../../api/shapes'

export type HarnessWire = Schemas['HarnessWireValue']
export type Segment = Schemas['SegmentValue']
export type HarnessNode = Schemas['NodeValue']
export type Connector = Schemas['ConnectorValue']
export type HarnessValue = Schemas['HarnessValue']
export type HarnessView = Schemas['HarnessView']
export type BlocksView = Schemas['BlocksView']
export type BlockConnector = Schemas['BlockConnector']
export type ConnectorFacts = Schemas['ConnectorFacts']
export type SceneItem = Schemas['SceneValue']['items'][number]
