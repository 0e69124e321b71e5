/** The line to the server: whether it answers, whether it knows who one is, and how many edits wait to be sent. */
import { create } from 'zustand'

export interface Line {
  state: 'in step' | 'away' | 'signed out'
  waiting: number
  /** How many edits were refused so far. */
  refused: number
}

export const useLine = create<Line>(() => ({ state: 'in step', waiting: 0, refused: 0 }))

const { getState: get, setState: set } = useLine

/** What a gate between the browser and the server says while the server is not there; 0 where nothing says anything. */
const AWAY = [0, 502, 504]
const NOBODY = 401
/** How long it rests until the server is asked again, ms. */
export const AGAIN_MS = 1500

export const isAway = (status: number) => AWAY.includes(status)

/** Note with what status the server answered, 0 for not at all. */
export function heard(status: number) {
  const { state } = get()
  const now = isAway(status)
    ? 'away'
    : status === NOBODY
      ? 'signed out'
      : state === 'away'
        ? 'in step'
        : state
  if (now !== state) set({ state: now })
}

/** Note that somebody has signed in, or out: what waits goes on, or nothing does any more. */
export const known = () => set({ state: 'in step' })

/** Wait until the line stands again, or until it is time to try. */
function restored(): Promise<void> {
  const signedOut = get().state === 'signed out'
  return new Promise((resolve) => {
    const end = () => {
      stop()
      window.clearTimeout(timer)
      resolve()
    }
    const stop = useLine.subscribe(({ state }) => state === 'in step' && end())
    const timer = signedOut ? undefined : window.setTimeout(end, AGAIN_MS)
  })
}

/**
 * Do something with the server, again and again while it is away or does not know who one is.
 *
 * What is sent has a name of its own, so that the server does once what reached it twice.
 */
export async function deliver<T>(act: () => Promise<T>): Promise<T> {
  for (;;) {
    try {
      return await act()
    } catch (error) {
      const status = (error as { status?: number }).status ?? -1
      if (!isAway(status) && status !== NOBODY) throw error
      heard(status)
      await restored()
    }
  }
}

/** Count something among what waits until it has ended. */
export async function counted<T>(act: Promise<T>): Promise<T> {
  set({ waiting: get().waiting + 1 })
  try {
    return await act
  } finally {
    set({ waiting: get().waiting - 1 })
  }
}

export const wasRefused = () => set({ refused: get().refused + 1 })

/** Wait until nothing waits any more. */
export function allSent(): Promise<void> {
  return new Promise((resolve) => {
    if (!get().waiting) return resolve()
    const stop = useLine.subscribe(({ waiting }) => {
      if (waiting) return
      stop()
      resolve()
    })
  })
}
