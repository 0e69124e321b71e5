/** The tool in hand, or any other thing that says by its name what else it holds. */

/** What is held where it is the one that is named, null otherwise. */
export const held = <T extends { name: string }, N extends T['name']>(thing: T, name: N) =>
  thing.name === name ? (thing as Extract<T, { name: N }>) : null
