import { describe, expect, test } from 'vitest'
import table from '../../../jolly_core/scenes/paints.json'
import { PENS, ROLES, TONES, wirePaint } from './paints'

const {
  colours,
  other,
  light,
  mm,
  light_mm: lightMm,
} = table.wire as {
  colours: Record<string, string>
  other: string
  light: string[]
  mm: number
  light_mm: number
}

describe('a wire', () => {
  test('of one colour is painted in it', () => {
    expect(wirePaint('BU')).toEqual({ first: colours['BU'], second: '', edged: false, mm })
  })

  test('of two colours has both, in their order', () => {
    expect(wirePaint('GNYE')).toMatchObject({ first: colours['GN'], second: colours['YE'] })
    expect(wirePaint('YEGN')).toMatchObject({ first: colours['YE'], second: colours['GN'] })
  })

  test('of a light colour is edged, and thinner where all of it is light', () => {
    const [one] = light
    expect(wirePaint(one!)).toMatchObject({ edged: true, mm: lightMm })
    expect(wirePaint(`BU${one!}`)).toMatchObject({ edged: true, mm })
  })

  test('of no known colour is painted as any other', () => {
    expect(wirePaint('ZZ').first).toBe(other)
    expect(wirePaint('BUZZ').second).toBe(other)
    expect(wirePaint('')).toEqual({ first: other, second: '', edged: false, mm })
  })
})

describe('the table', () => {
  test('has a width for each pen, and dashes as a browser reads them', () => {
    for (const pen of Object.values(PENS)) expect(pen.mm).toBeGreaterThan(0)
    const dashes = Object.values(PENS).flatMap((pen) => pen.dash ?? [])
    expect(dashes.length).toBeGreaterThan(0)
    for (const dash of dashes) expect(dash).toMatch(/^[\d.]+( [\d.]+)*$/)
  })

  test('has an ink and a family for each kind of text', () => {
    for (const role of Object.values(ROLES)) {
      expect(role.ink).toMatch(/^#[0-9A-Fa-f]{6}$/)
      expect(role.family).toContain('"')
    }
    expect(Object.keys(TONES).length).toBeGreaterThan(0)
  })
})
