/** A part's picture in space, once it is read; null until then, and the reason when it cannot be. */
import { useEffect, useState } from 'react'
import { wordsOf } from '../api/client'
import { modelOf, type Model } from './solids'

export function useModel(name: string, front: string, up: string) {
  const [model, setModel] = useState<Model | null>(null)
  const [problem, setProblem] = useState('')
  useEffect(() => {
    setModel(null)
    setProblem('')
    if (!name) return
    let here = true
    modelOf(name, front, up).then(
      (read) => here && setModel(read),
      (error: unknown) => here && setProblem(wordsOf(error)),
    )
    return () => {
      here = false
    }
  }, [name, front, up])
  return { model, problem }
}
