/** Lengths in the units people have: what is typed may name its own, and be a fraction; the model has millimetres. */
import { numberIn } from './numbers'

/** Millimetres in one of each unit (exact, by definition). */
const MM = { mm: 1, cm: 10, m: 1000, in: 25.4, ft: 304.8 }
export type Unit = keyof typeof MM

const CALLED: Record<string, Unit> = {
  ...{ '"': 'in', '″': 'in', '”': 'in', inch: 'in', inches: 'in' },
  ...{ "'": 'ft', '′': 'ft', '’': 'ft', foot: 'ft', feet: 'ft', metre: 'm', metres: 'm' },
}
const FRACTION = /^([+-]?)(?:(\d+)[\s-]+)?(\d+)\s*\/\s*([1-9]\d*)$/
const FEET_AND_INCHES = /^(\S+?)\s*(?:ft|feet|['′’])\s*(\d.*?)\s*(?:in|inches|["″”])?$/i
const WITH_UNIT = /^(.*?[\d.])\s*([a-z]+|["″”'′’])?$/i

const rounded = (mm: number) => Number(mm.toFixed(4))

function amountIn(typed: string): number | null {
  const parts = FRACTION.exec(typed.trim())
  if (!parts) return numberIn(typed)
  const [, sign, whole, above, below] = parts
  return (sign === '-' ? -1 : 1) * (Number(whole ?? 0) + Number(above) / Number(below))
}

/**
 * A typed length in mm, null when it is none: a number or a fraction, of the unit given unless it names another.
 *
 * lengthIn('24', 'in') and lengthIn('2 ft', 'mm') are both 609.6; lengthIn('1 1/2"', 'mm') is 38.1, and feet and inches
 * may stand together, as in 2' 6".
 */
export function lengthIn(typed: string, unit: Unit): number | null {
  const [, feet, inches] = FEET_AND_INCHES.exec(typed.trim()) ?? []
  if (feet !== undefined && inches !== undefined) {
    const parts = [amountIn(feet), amountIn(inches)]
    if (parts[0] == null || parts[1] == null) return null
    return rounded(parts[0] * MM.ft + (feet.startsWith('-') ? -1 : 1) * parts[1] * MM.in)
  }
  const [, amount, named] = WITH_UNIT.exec(typed.trim()) ?? []
  const word = named?.toLowerCase()
  const of = word === undefined ? unit : Object.hasOwn(MM, word) ? (word as Unit) : CALLED[word]
  const value = amount === undefined || of === undefined ? null : amountIn(amount)
  return value === null || of === undefined ? null : rounded(value * MM[of])
}

/** What is said of a text that is no length. */
export const noLength = (typed: string, unit: Unit) =>
  `“${typed}” is no length. Type a number, with a unit unless it is ${unit}.`

/** A length in a unit, as it stands in a field. */
export const lengthOf = (mm: number, unit: Unit) => String(Number((mm / MM[unit]).toFixed(3)))

/** The units of a project: of what is measured in millimetres, and of what is bought by the metre. */
export interface Lengths {
  short: Unit
  long: Unit
  /** A length that is read, with its unit: inches and feet to two places, as on papers. */
  said: (mm: number) => string
  /** The same without the unit. */
  bare: (mm: number) => string
  saidLong: (m: number) => string
}

export const METRIC: Lengths = {
  ...{ short: 'mm', long: 'm' },
  said: (mm) => `${Number(mm.toFixed(2))} mm`,
  bare: (mm) => String(Number(mm.toFixed(2))),
  saidLong: (m) => `${Number(m.toFixed(2))} m`,
}

export const INCHES: Lengths = {
  ...{ short: 'in', long: 'ft' },
  said: (mm) => `${(mm / MM.in).toFixed(2)} in`,
  bare: (mm) => (mm / MM.in).toFixed(2),
  saidLong: (m) => `${((m * 1000) / MM.ft).toFixed(2)} ft`,
}
