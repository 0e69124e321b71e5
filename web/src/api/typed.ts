/** What a person looked at when they began to type: the server refuses what would replace a text they never saw. */
let shown = -1
let since = -1

/** Note the revision of the project that this window shows. */
export const nowShown = (revision: number) => {
  shown = revision
}

export const shownNow = () => shown

/** Send what was typed since this window showed a revision: what the act sends at once says so. */
export function typedAt<T>(revision: number, act: () => T): T {
  const before = since
  since = revision
  try {
    return act()
  } finally {
    since = before
  }
}

/** The revision that what is being sent was typed at, -1 when it was not typed over anything. */
export const typedSince = () => since
