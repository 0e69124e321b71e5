/** What follows from a snag is folded under it: the cause stands in the list, with how many others come of it. */

interface Told {
  key: string
  cause: string
}

export type Folded<T extends Told> = T & { after: number; follows: boolean }

/** Return the rows that are shown: causes with how many follow, and what follows from the one that is unfolded. */
export function folded<T extends Told>(rows: T[], unfolded: string): Folded<T>[] {
  const keys = new Set(rows.map((row) => row.key))
  const of = (row: T) => (row.cause !== row.key && keys.has(row.cause) ? row.cause : '')
  const shown: Folded<T>[] = []
  for (const row of rows.filter((r) => !of(r))) {
    const after = rows.filter((r) => of(r) === row.key)
    shown.push({ ...row, after: after.length, follows: false })
    if (row.key === unfolded) shown.push(...after.map((r) => ({ ...r, after: 0, follows: true })))
  }
  return shown
}
