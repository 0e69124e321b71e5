/** Taking in a project file: progress while it goes up and is checked, then what came in; on an error nothing did. */
import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import LinearProgress from '@mui/material/LinearProgress'
import Paper from '@mui/material/Paper'
import { useRef, useState } from 'react'
import { Link } from 'react-router'
import type { components } from '../api/schema'

type TakenIn = components['schemas']['TakenIn']
interface Props {
  open: boolean
  close: () => void
  onDone: () => void
}

const WORDS: [string, string, string][] = [
  ['sheet', 'sheet', 'sheets'],
  ['device', 'device', 'devices'],
  ['symbol', 'symbol', 'symbols'],
  ['wire', 'wire', 'wires'],
  ['part', 'part', 'parts'],
  ['cable', 'cable', 'cables'],
  ['io_point', 'I/O point', 'I/O points'],
  ['title_block', 'title block', 'title blocks'],
]

const csrf = () => /(?:^|; )spool_csrf=([^;]*)/.exec(document.cookie)?.[1] ?? ''

/** Send a file with word of how far it is; the typed client cannot tell that. */
function upload(file: File, onProgress: (share: number) => void, hold: (r: XMLHttpRequest) => void) {
  return new Promise<TakenIn>((resolve, reject) => {
    const request = new XMLHttpRequest()
    hold(request)
    request.open('POST', '/api/projects/import')
    request.setRequestHeader('X-CSRFToken', csrf())
    request.responseType = 'json'
    request.upload.onprogress = (e) => onProgress(e.lengthComputable ? e.loaded / e.total : 0)
    request.upload.onload = () => onProgress(1)
    request.onerror = () => reject(new Error('The server cannot be reached. Nothing was taken in.'))
    request.onabort = () => reject(new Error('Stopped. Nothing was taken in.'))
    request.onload = () => {
      const body = request.response as (TakenIn & { message?: string }) | null
      if (request.status === 200 && body) resolve(body)
      else
        reject(
          new Error(`${body?.message ?? `The server answered ${request.status}.`} Nothing was taken in.`),
        )
    }
    const form = new FormData()
    form.append('file', file)
    request.send(form)
  })
}

export function ImportFile({ open, close, onDone }: Props) {
  const input = useRef<HTMLInputElement>(null)
  const running = useRef<XMLHttpRequest | null>(null)
  const [share, setShare] = useState<number | null>(null)
  const [name, setName] = useState('')
  const [problem, setProblem] = useState('')
  const [taken, setTaken] = useState<TakenIn | null>(null)
  const take = async (file: File) => {
    setName(file.name)
    setProblem('')
    setTaken(null)
    setShare(0)
    try {
      setTaken(await upload(file, setShare, (r) => (running.current = r)))
      onDone()
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error))
    }
    setShare(null)
  }
  const chooser = (
    <input
      ref={input}
      type="file"
      accept=".json"
      hidden
      aria-label="Project file"
      onChange={(e) => {
        const file = e.target.files?.[0]
        e.target.value = ''
        if (file) void take(file)
      }}
    />
  )
  if (!open && share === null && !taken && !problem) return chooser
  return (
    <Paper variant="outlined" component="section" aria-label="Import" sx={{ p: 2, mb: 2 }}>
      {chooser}
      {share !== null ? (
        <Coming name={name} share={share} stop={() => running.current?.abort()} />
      ) : (
        <>
          <Outcome {...{ problem, taken }} />
          <Buttons
            taken={taken}
            choose={() => input.current?.click()}
            close={() => {
              setProblem('')
              setTaken(null)
              close()
            }}
          />
        </>
      )}
    </Paper>
  )
}

interface ComingProps {
  name: string
  share: number
  stop: () => void
}

function Coming({ name, share, stop }: ComingProps) {
  return (
    <>
      <Box sx={{ mb: 1 }}>{share < 1 ? `Sending ${name}…` : `Reading and checking ${name}…`}</Box>
      <LinearProgress
        aria-label="Import"
        variant={share < 1 ? 'determinate' : 'indeterminate'}
        value={share * 100}
      />
      <Button sx={{ mt: 1 }} onClick={stop}>
        Stop
      </Button>
    </>
  )
}

interface OutcomeProps {
  problem: string
  taken: TakenIn | null
}

function Outcome({ problem, taken }: OutcomeProps) {
  return (
    <>
      {problem && <Alert severity="error">{problem}</Alert>}
      {taken && (
        <Alert severity="success">
          <b>{taken.name}</b> came in:{' '}
          {WORDS.filter(([kind]) => taken.counts[kind])
            .map(([kind, one, many]) => `${taken.counts[kind]} ${taken.counts[kind] === 1 ? one : many}`)
            .join(', ')}
          .{taken.brought_up && ` The file was of version ${taken.version} and was brought up.`}
        </Alert>
      )}
      {!problem && !taken && (
        <Box sx={{ color: 'text.secondary' }}>
          A project file ends in .spool.json. It is checked throughout before anything is taken in.
        </Box>
      )}
    </>
  )
}

interface ButtonsProps {
  taken: TakenIn | null
  choose: () => void
  close: () => void
}

function Buttons({ taken, choose, close }: ButtonsProps) {
  return (
    <Box sx={{ display: 'flex', gap: 1, mt: 1.5 }}>
      {taken && (
        <Button variant="contained" component={Link} to={`/p/${taken.id}`}>
          Open it
        </Button>
      )}
      <Button variant={taken ? 'text' : 'contained'} onClick={choose}>
        Choose a file
      </Button>
      <Button onClick={close}>Close</Button>
    </Box>
  )
}
