/** Stamps in the inspector: choose one, answer its questions once or in a table, and put it down on the sheet. */
import { held } from '../../kit/held'
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
  const { set, tool } = useTools('set', 'tool')
  const stamps = useStamps()
  const [words, setWords] = useState('')
  const [chosen, setChosen] = useState('')
  const [changing, setChanging] = useState(false)
  const stamp = stamps.data?.find((s) => s.id === chosen)
  const leave = () => {
    if (held(tool, 'stamp')) cancel()
    setChanging(false)
    setChosen('')
  }
  if (stamp && changing) return <ChangeStamp key={stamp.id} stamp={stamp} close={leave} />
  if (stamp)
    return (
      <>
        <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
          <Box sx={{ fontWeight: 600, flex: 1 }}>{stamp.name}</Box>
          <Act onClick={leave}>All stamps</Act>
        </Box>
        <StampPicture id={stamp.id} height={130} />
        <StampAnswers key={stamp.id} stamp={stamp} />
        <StampActs
          stamp={stamp}
          leave={leave}
          change={() => {
            cancel()
            setChanging(true)
          }}
          again={() => void stamps.refetch()}
        />
      </>
    )
  const close = () => {
    leave()
    set({ panel: '' })
  }
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
      {stamps.data && <StampList stamps={stamps.data} words={words} choose={setChosen} />}
    </>
  )
}

interface StampActsProps {
  stamp: StampLine
  leave: () => void
  change: () => void
  again: () => void
}

/** What can be done with a stamp of the project or the library. */
function StampActs({ stamp, leave, change, again }: StampActsProps) {
  const { projectId, send, say } = usePick('projectId', 'send', 'say')
  const path = { params: { path: { project_id: projectId, stamp_id: stamp.id } } }
  const failed = (error: unknown) => say(wordsOf(error), 'error')
  const keep = () =>
    got(client.POST('/api/projects/{project_id}/stamps/{stamp_id}/keep', path)).then(
      () => say('Kept in the library, for every project.'),
      failed,
    )
  const remove = () => {
    leave()
    void send({ kind: 'remove-stamp', stamp_id: stamp.id })
  }
  const drop = () => {
    leave()
    void got(client.DELETE('/api/projects/{project_id}/stamps/{stamp_id}', path)).then(again, failed)
  }
  return (
    <Acts>
      {stamp.origin === 'project' && (
        <>
          <Act onClick={change}>Change</Act>
          <Act onClick={() => void keep()}>Keep in the library</Act>
          <Act onClick={remove}>Remove</Act>
        </>
      )}
      {stamp.origin === 'library' && <Act onClick={drop}>Take out of the library</Act>}
    </Acts>
  )
}

interface StampListProps {
  stamps: StampLine[]
  words: string
  choose: (id: string) => void
}

function StampList({ stamps, words, choose }: StampListProps) {
  const found = stamps.filter((s) => `${s.name} ${s.text}`.toLowerCase().includes(words.toLowerCase()))
  const take = (s: StampLine) => {
    choose(s.id)
    startStamp(s.id, [Object.fromEntries(s.questions.map((q) => [q.name, q.suggestion]))])
  }
  return (
    <>
      {found.map((s) => (
        <Box
          key={s.id}
          component="button"
          type="button"
          onClick={() => take(s)}
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
      {!found.length && (
        <Box sx={{ color: QUIET }}>
          No stamp is called “{words}”. Select a circuit and press Shift+K to keep it.
        </Box>
      )}
    </>
  )
}
