/** Insulation colours by IEC 60757 code as they are painted; a code of four letters is a two-coloured wire. */
const COLOURS: Record<string, string> = {
  BK: '#1B1B1B',
  BN: '#7A4A21',
  RD: '#C0392B',
  OG: '#E07B1A',
  YE: '#E8C81E',
  GN: '#2E8B45',
  BU: '#2463AE',
  VT: '#7B3FA0',
  GY: '#8A8F98',
  WH: '#FFFFFF',
  PK: '#E58CA8',
  GD: '#B8912E',
  TQ: '#2AA7A1',
  SR: '#B9BEC6',
}
const LIGHT = new Set(['WH', 'YE', 'SR', 'PK'])

export interface WirePaint {
  first: string
  second: string
  edged: boolean
}

export function wirePaint(code: string): WirePaint {
  const [a, b] = [code.slice(0, 2), code.slice(2)]
  return {
    first: COLOURS[a] ?? '#1B1B1B',
    second: b ? (COLOURS[b] ?? '') : '',
    edged: LIGHT.has(a) || LIGHT.has(b),
  }
}
