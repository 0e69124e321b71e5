/** The frame of a project: top bar, bench rail, the bench. */
import Box from '@mui/material/Box'
import { useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useCallback, useEffect, useState } from 'react'
import { Navigate, Route, Routes, useLocation, useParams } from 'react-router'
import { wordsOf, type Me } from '../api/client'
import { useLine } from '../api/line'
import { useProject } from '../project/store'
import { BenchRail } from './BenchRail'
import { BENCHES } from './benches'
import { DraftHome } from '../kit/drafts'
import { useRevision } from '../project/useRevision'
import { PictureBase } from '../scene/pictures'
import { commandFor, isTyping, useCommandLists } from '../project/commands'
import { useEverywhere } from './commands'
import { focusOmnibox } from './focus'
import { Shortcuts } from './Shortcuts'
import { TopBar } from './TopBar'
import { firstOf, useOutline, useOutlineNow } from '../project/useOutline'

const POLL_MS = 1500

/** Keys of everywhere and of the bench that is open. */
function useBenchKeys(canEdit: boolean) {
  useEffect(() => {
    // The Draw bench takes its own keys, because a letter there may be the beginning of a word.
    const onKey = (event: KeyboardEvent) => {
      const lists = Object.entries(useCommandLists.getState())
      const heard = lists.filter(([where]) => where !== 'Draw').map(([, commands]) => commands)
      const plain = !event.ctrlKey && !event.altKey && !event.metaKey && event.key !== 'F1'
      const command = plain && isTyping(event) ? undefined : commandFor(event, heard, canEdit)
      if (!command || (isTyping(event) && ['undo', 'redo', 'redo-too'].includes(command.id))) return
      event.preventDefault()
      command.run()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [canEdit])
}

export function ProjectShell({ me }: { me: Me }) {
  const { projectId = '' } = useParams()
  const { pathname, search } = useLocation()
  const onSheet = pathname.includes('/draw')
  const outline = useOutline(projectId)
  useEffect(() => {
    const timer = window.setInterval(() => void useProject.getState().poll(), POLL_MS)
    return () => window.clearInterval(timer)
  }, [])
  const canEdit = outline.data?.role !== 'viewer' && outline.data?.state === 'open'
  const [helping, setHelping] = useState(false)
  const help = useCallback(() => setHelping(true), [])
  useEverywhere(projectId, focusOmnibox, help)
  useBenchKeys(canEdit)
  if (outline.error) {
    return (
      <Box sx={{ p: 4 }}>
        <p>{wordsOf(outline.error)}</p>
        <a href="/">To the projects</a>
      </Box>
    )
  }
  if (!outline.data) return <Box sx={{ p: 4 }}>Opening the project…</Box>
  const first = firstOf(outline.data)
  return (
    <PictureBase.Provider value={`/api/projects/${projectId}/pictures/`}>
      <DraftHome.Provider value={`${pathname}${search}`}>
        <Box sx={{ height: '100%', display: 'flex', flexDirection: 'column' }}>
          <Following projectId={projectId} onSheet={onSheet} />
          <TopBar me={me} outline={outline.data} />
          <Shortcuts open={helping} close={() => setHelping(false)} />
          <Box sx={{ flex: 1, display: 'flex', minHeight: 0 }}>
            <BenchRail projectId={projectId} />
            <Routes>
              {first && (
                <Route
                  path="draw"
                  element={<Navigate to={`/p/${projectId}/draw/${first.id}${search}`} replace />}
                />
              )}
              {BENCHES.map(({ path, Page }) => (
                <Route
                  key={path}
                  path={`${path}/:section?`}
                  element={<Page outline={outline.data} canEdit={canEdit} />}
                />
              ))}
              <Route path="*" element={<Navigate to={`/p/${projectId}/draw`} replace />} />
            </Routes>
          </Box>
        </Box>
      </DraftHome.Provider>
    </PictureBase.Provider>
  )
}

/** What follows the store without a picture of its own: messages, and the outline at each revision. */
function Following({ projectId, onSheet }: { projectId: string; onSheet: boolean }) {
  const { enqueueSnackbar, closeSnackbar } = useSnackbar()
  const message = useProject((s) => s.message)
  const loaded = useProject((s) => s.loaded && s.projectId === projectId)
  const standing = useLine((line) => line.state === 'in step')
  const queries = useQueryClient()
  const revision = useRevision()
  useEffect(() => {
    if (loaded) useProject.getState().resume()
  }, [loaded, projectId])
  useEffect(() => {
    // What could not be had while the line was down is asked for again.
    const failed = { predicate: (q: { state: { status: string } }) => q.state.status === 'error' }
    if (standing) void queries.refetchQueries(failed)
  }, [standing, queries])
  const { refetch, data: known } = useOutlineNow(projectId)
  useEffect(() => {
    if (known && !onSheet) useProject.getState().enter(projectId, known.revision, known.undo, known.redo)
  }, [known, onSheet, projectId])
  useEffect(() => {
    if (!message) closeSnackbar()
    else
      enqueueSnackbar(message.text, {
        variant: message.kind === 'error' ? 'error' : 'default',
        autoHideDuration: message.kind === 'error' ? 7000 : 2500,
        preventDuplicate: true,
      })
  }, [message, enqueueSnackbar, closeSnackbar])
  useEffect(() => {
    if (revision > 0) void refetch()
  }, [revision, refetch])
  return null
}
