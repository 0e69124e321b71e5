/** Pages of the bench that are no cable. */
export const WAYS = 'ways'
export const ALL = 'all'
