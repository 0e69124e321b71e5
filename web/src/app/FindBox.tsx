/**
 * The box of the omnibox as it stands before what finds has been fetched: the drawing comes first, and what finds comes
 * after it or when the box is entered. What has been typed by then is taken over.
 */
import Box from '@mui/material/Box'
import { useCallback, useEffect, useState } from 'react'
import { fetched } from '../kit/fetched'
import { useProject } from '../project/store'
import { useRevision } from '../project/useRevision'
import { FindField } from './FindField'
import { OMNIBOX } from './focus'

const Omnibox = fetched(() => import('./Omnibox').then((m) => m.Omnibox))

export function FindBox({ projectId }: { projectId: string }) {
  const [words, setWords] = useState('')
  const [entered, setEntered] = useState(false)
  const [here, setHere] = useState(false)
  const drawn = useRevision() >= 0
  const bring = useCallback(() => {
    const { say } = useProject.getState()
    Omnibox.bring().then(
      () => setHere(true),
      () => say('What finds could not be fetched. Load the page anew.', 'error'),
    )
  }, [])
  useEffect(() => {
    if (drawn) bring()
  }, [drawn, bring])
  if (here) return <Omnibox projectId={projectId} words={words} setWords={setWords} entered={entered} />
  return (
    <Box sx={{ width: 'min(360px, 100%)' }}>
      <FindField
        inputProps={{ 'aria-label': OMNIBOX }}
        value={words}
        onChange={(e) => setWords(e.target.value)}
        onFocus={() => {
          setEntered(true)
          bring()
        }}
        onBlur={() => {
          setEntered(false)
          setWords('')
        }}
      />
    </Box>
  )
}
