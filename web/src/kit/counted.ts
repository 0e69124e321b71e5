/** A count with its word: "1 sheet", "3 sheets". */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`
