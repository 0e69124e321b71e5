/** The frame of a project: top bar, bench rail, the bench. */
import Box from '@mui/material/Box'
import { useQuery } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useEffect } from 'react'
import { Navigate, Route, Routes, useNavigate, useParams } from 'react-router'
import { client, got, wordsOf, type Me } from '../api/client'
import type { SheetLine } from '../api/shapes'
import { DrawBench } from '../benches/draw/DrawBench'
import { useSheet } from '../benches/draw/store'
import { IssueBench } from '../benches/issue/IssueBench'
import { PartsBench } from '../benches/parts/PartsBench'
import { SnagsBench } from '../benches/snags/SnagsBench'
import { BENCHES, BenchRail } from './BenchRail'
import { TopBar } from './TopBar'

export function ProjectShell({ me }: { me: Me }) {
  const { projectId = '' } = useParams()
  const go = useNavigate()
  const { enqueueSnackbar } = useSnackbar()
  const message = useSheet((s) => s.message)
  const revision = useSheet((s) => s.revision)
  const outline = useQuery({
    queryKey: ['outline', projectId],
    queryFn: () =>
      got(client.GET('/api/projects/{project_id}', { params: { path: { project_id: projectId } } })),
  })
  const { refetch } = outline
  useEffect(() => {
    if (message) {
      enqueueSnackbar(message.text, {
        variant: message.kind === 'error' ? 'error' : 'default',
        autoHideDuration: message.kind === 'error' ? 7000 : 2500,
        preventDuplicate: true,
      })
    }
  }, [message, enqueueSnackbar])
  useEffect(() => {
    if (revision > 0) void refetch()
  }, [revision, refetch])
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const bench = BENCHES[Number(event.key) - 1]
      if (event.altKey && bench) {
        event.preventDefault()
        void go(`/p/${projectId}/${bench.path}`)
      }
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [go, projectId])

  if (outline.error) {
    return (
      <Box sx={{ p: 4 }}>
        <p>{wordsOf(outline.error)}</p>
        <a href="/">To the projects</a>
      </Box>
    )
  }
  if (!outline.data) return <Box sx={{ p: 4 }}>Opening the project…</Box>
  const sheets = outline.data.sheets as unknown as SheetLine[]
  // A ladder sheet is where most people start; the demo opens on its control circuit.
  const first = sheets.find((s) => s.frame === 'ladder') ?? sheets[0]
  return (
    <Box sx={{ height: '100%', display: 'flex', flexDirection: 'column' }}>
      <TopBar me={me} outline={outline.data} />
      <Box sx={{ flex: 1, display: 'flex', minHeight: 0 }}>
        <BenchRail projectId={projectId} />
        <Routes>
          <Route path="draw/:sheetId" element={<DrawBench outline={outline.data} />} />
          <Route
            path="draw"
            element={
              first ? (
                <Navigate to={`/p/${projectId}/draw/${first.id}`} replace />
              ) : (
                <DrawBench outline={outline.data} />
              )
            }
          />
          <Route path="parts" element={<PartsBench />} />
          <Route path="snags" element={<SnagsBench sheets={sheets} />} />
          <Route path="issue" element={<IssueBench sheets={sheets} />} />
          <Route path="*" element={<Navigate to={`/p/${projectId}/draw`} replace />} />
        </Routes>
      </Box>
    </Box>
  )
}
