/** Stamps in the inspector: choose one, answer its questions once or in a table, and put it down on the sheet. */
import Box from '@mui/material/Box'
import InputBase from '@mui/material/InputBase'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { client, got, wordsOf } from '../../api/client'
import { LINE, QUIET } from '../../theme/theme'
import { Act, Acts } from '../../kit/Act'
import { ChangeStamp } from './ChangeStamp'
import { StampAnswers } from './StampAnswers'
import { StampPicture } from './StampPicture'
import type { StampLine } from './stampShapes'
import { usePick } from '../../project/store'
import { useTools } from './store'
import { cancel, startStamp } from './tools'

const ORIGINS = { project: 'of this project', library: 'of the library', application: 'comes along' }

export function useStamps() {
  const { projectId, revision } = usePick('projectId', 'revision')
  return useQuery({
    queryKey: ['stamps', projectId, revision],
    queryFn: () =>
      got(client.GET('/api/projects/{project_id}/stamps', { params: { path: { project_id: projectId } } })),
    placeholderData: (before) => before,
  })
}

export function StampsPanel() {
  const { projectId, set, send, say, tool } = {
    ...usePick('projectId', 'send', 'say'),
    ...useTools('set', 'tool'),
  }
  const stamps = useStamps()
  const [words, setWords] = useState('')
  const [chosen, setChosen] = useState('')
  const [changing, setChanging] = useState(false)
  const found = (stamps.data ?? []).filter((s) =>
    `${s.name} ${s.text}`.toLowerCase().includes(words.toLowerCase()),
  )
  const stamp = stamps.data?.find((s) => s.id === chosen)
  const close = () => {
    if (tool.name === 'stamp') cancel()
    set({ panel: '' })
  }
  const choose = (s: StampLine) => {
    setChosen(s.id)
    startStamp(s.id, [Object.fromEntries(s.questions.map((q) => [q.name, q.suggestion]))])
  }
  const path = (id: string) => ({ params: { path: { project_id: projectId, stamp_id: id } } })
  const keep = (id: string) =>
    got(client.POST('/api/projects/{project_id}/stamps/{stamp_id}/keep', path(id))).then(
      () => say('Kept in the library, for every project.'),
      (error) => say(wordsOf(error), 'error'),
    )
  const drop = (id: string) =>
    got(client.DELETE('/api/projects/{project_id}/stamps/{stamp_id}', path(id))).then(
      () => void stamps.refetch(),
      (error) => say(wordsOf(error), 'error'),
    )
  if (stamp && changing)
    return (
      <ChangeStamp
        key={stamp.id}
        stamp={stamp}
        close={() => {
          setChanging(false)
          setChosen('')
        }}
      />
    )
  if (stamp)
    return (
      <>
        <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
          <Box sx={{ fontWeight: 600, flex: 1 }}>{stamp.name}</Box>
          <Act
            onClick={() => {
              setChosen('')
              if (tool.name === 'stamp') cancel()
            }}
          >
            All stamps
          </Act>
        </Box>
        <StampPicture id={stamp.id} height={130} />
        <StampAnswers key={stamp.id} stamp={stamp} />
        <Acts>
          {stamp.origin === 'project' && (
            <>
              <Act
                onClick={() => {
                  cancel()
                  setChanging(true)
                }}
              >
                Change
              </Act>
              <Act onClick={() => void keep(stamp.id)}>Keep in the library</Act>
              <Act
                onClick={() => {
                  cancel()
                  setChosen('')
                  void send({ kind: 'remove-stamp', stamp_id: stamp.id })
                }}
              >
                Remove
              </Act>
            </>
          )}
          {stamp.origin === 'library' && (
            <Act
              onClick={() => {
                cancel()
                setChosen('')
                void drop(stamp.id)
              }}
            >
              Take out of the library
            </Act>
          )}
        </Acts>
      </>
    )
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mb: 0.5 }}>
        <Box sx={{ fontWeight: 600, flex: 1 }}>Stamps</Box>
        <Act onClick={close}>Close</Act>
      </Box>
      <InputBase
        fullWidth
        placeholder="Filter stamps"
        value={words}
        onChange={(e) => setWords(e.target.value)}
        inputProps={{ 'aria-label': 'Filter stamps' }}
        sx={{ fontSize: 13, bgcolor: '#fff', border: `1px solid ${LINE}`, borderRadius: 1, px: 1, mb: 1 }}
      />
      {found.map((s) => (
        <Box
          key={s.id}
          component="button"
          type="button"
          onClick={() => choose(s)}
          sx={{
            display: 'block',
            width: '100%',
            textAlign: 'left',
            font: 'inherit',
            bgcolor: '#fff',
            border: `1px solid ${LINE}`,
            borderRadius: 1,
            p: 0.75,
            mb: 0.75,
            cursor: 'pointer',
            '&:hover': { borderColor: 'primary.main' },
          }}
        >
          <StampPicture id={s.id} height={84} />
          <Box sx={{ fontWeight: 500 }}>{s.name}</Box>
          <Box sx={{ fontSize: 11.5, color: QUIET }}>{s.text || ORIGINS[s.origin]}</Box>
        </Box>
      ))}
      {stamps.data && !found.length && (
        <Box sx={{ color: QUIET }}>
          No stamp is called “{words}”. Select a circuit and press Shift+K to keep it.
        </Box>
      )}
    </>
  )
}
