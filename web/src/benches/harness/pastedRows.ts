/** Rows of a spreadsheet as wires: by their headings where they have some, else signal, colour, size, from, to. */

export interface WireRow {
  signal: string
  colour: string
  size: string
  start: string
  end: string
}

const KEYS = ['signal', 'colour', 'size', 'start', 'end'] as const
/** What a column may be headed. */
const HEADINGS: Record<(typeof KEYS)[number], RegExp> = {
  signal: /^(signal|name|wire|number)/i,
  colour: /^(colou?r|col)/i,
  size: /^(mm|size|cross|section|awg|gauge)/i,
  start: /^from/i,
  end: /^to\b/i,
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
    return { signal: value(0), colour: value(1), size: value(2), start: value(3), end: value(4) }
  })
}
