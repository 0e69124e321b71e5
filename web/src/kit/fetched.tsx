/**
 * Parts of the application that are fetched when they are shown first.
 *
 * React's own `lazy` keeps what has come back for up to 300 ms, lest a placeholder flash, and does so at each level of
 * what lies in each other; a person who opens a bench waits for that. Here a part is shown as soon as it is there.
 */
import { useEffect, useState, type ComponentType, type ReactNode } from 'react'

export interface Fetched<P> {
  (props: P): ReactNode
  /** Fetch it now, because it is about to be shown. */
  bring: () => Promise<void>
}

const gone = (
  <p role="alert" style={{ margin: 24 }}>
    This part of the application could not be fetched. <a href="">Load the page anew.</a>
  </p>
)

/** @param meanwhile what stands there until it has come. */
export function fetched<P extends object>(
  load: () => Promise<ComponentType<P>>,
  meanwhile: ReactNode = null,
): Fetched<P> {
  let Part: ComponentType<P> | undefined
  let coming: Promise<void> | undefined
  const bring = () =>
    (coming ??= load().then(
      (found) => {
        Part = found
      },
      (error: unknown) => {
        coming = undefined // who shows it anew tries again
        throw error
      },
    ))
  function Shown(props: P) {
    const [state, setState] = useState<'coming' | 'here' | 'gone'>(Part ? 'here' : 'coming')
    useEffect(() => {
      if (state !== 'coming') return
      bring().then(
        () => setState('here'),
        () => setState('gone'),
      )
    }, [state])
    if (Part) return <Part {...props} />
    return state === 'gone' ? gone : meanwhile
  }
  return Object.assign(Shown, { bring })
}
