/** The project's revision, followed a moment after the last edit: what is asked for beside the sheet lets it go first. */
import { useEffect, useState } from 'react'
import { useProject } from './store'

const REST_MS = 100

export function useRevision(): number {
  const revision = useProject((s) => s.revision)
  const [rested, setRested] = useState(revision)
  useEffect(() => {
    if (rested === revision) return
    const timer = window.setTimeout(() => setRested(revision), rested < 0 ? 0 : REST_MS)
    return () => window.clearTimeout(timer)
  }, [revision, rested])
  return rested
}
