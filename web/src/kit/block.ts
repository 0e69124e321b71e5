/** Blocks of cells as spreadsheets put them on the clipboard: tabs and line breaks, quoted as RFC 4180 has it. */
import Papa from 'papaparse'

/** The cells of a block, row by row; a line break within a cell becomes a space, as all cells here are lines. */
export function cellsIn(text: string): string[][] {
  const whole = text.replace(/\r\n?/g, '\n').replace(/\n$/, '')
  const read = Papa.parse<string[]>(whole, { delimiter: '\t', newline: '\n' })
  // A quotation mark that nothing closes is an inch, and no beginning of a quoted cell.
  const rows = read.errors.some((e) => e.type === 'Quotes')
    ? whole.split('\n').map((line) => line.split('\t'))
    : read.data
  return rows.map((row) => row.map((cell) => cell.replace(/\s*\n\s*/g, ' ')))
}

/** Cells as a block. */
export const blockOf = (cells: string[][]) => Papa.unparse(cells, { delimiter: '\t', newline: '\n' })
