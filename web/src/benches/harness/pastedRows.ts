/** Rows of a spreadsheet as wires: by their headings where they have some, else signal, colour, size, from, to, twisted, shield. */

export interface WireRow {
  signal: string
  colour: string
  size: string
  start: string
  end: string
  twisted: string
  shield: string
}

const KEYS = ['signal', 'colour', 'size', 'start', 'end', 'twisted', 'shield'] as const
/** What a column may be headed. */
const HEADINGS: Record<(typeof KEYS)[number], RegExp> = {
  signal: /^(signal|name|wire|number)/i,
  colour: /^(colou?r|col)/i,
  size: /^(mm|size|cross|section|awg|gauge)/i,
  start: /^from/i,
  end: /^to\b/i,
  twisted: /^(twist|pair)/i,
  shield: /^(shield|screen)/i,
}

export function rowsIn(text: string): WireRow[] {
  const lines = text.split(/\r?\n/).filter((line) => line.trim())
  const tabbed = lines.some((line) => line.includes('\t'))
  const cells = lines.map((line) => line.split(tabbed ? '\t' : /[;,]/).map((cell) => cell.trim()))
  const head = cells[0]
  let places: number[] = KEYS.map((_, n) => n)
  if (head?.some((c) => HEADINGS.start.test(c)) && head.some((c) => HEADINGS.end.test(c))) {
    places = KEYS.map((key) => head.findIndex((c) => HEADINGS[key].test(c)))
    cells.shift()
  }
  return cells.map((row) => {
    const value = (n: number) => (places[n]! < 0 ? '' : (row[places[n]!] ?? ''))
    const [signal, colour, size, start, end] = [0, 1, 2, 3, 4].map(value) as [
      string,
      string,
      string,
      string,
      string,
    ]
    return { signal, colour, size, start, end, twisted: value(5), shield: value(6) }
  })
}
