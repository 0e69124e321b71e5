/** Ways of laying of IEC 60204-1, annex D, in words. */
export const LAYINGS = [
  { id: 'B1', name: 'B1, wires in conduit or trunking' },
  { id: 'B2', name: 'B2, cable in conduit or trunking' },
  { id: 'C', name: 'C, cable on a wall' },
  { id: 'E', name: 'E, cable on a tray in air' },
] as const

export type Laying = (typeof LAYINGS)[number]['id']
