/** Taking in a point list: what it holds and what is wrong is shown first; nothing is taken in before. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import { useState } from 'react'
import { client, got, wordsOf } from '../../api/client'
import { COPPER, LINE, MONO, QUIET, SNAG } from '../../theme/theme'
import { Rows } from '../../kit/Rows'
import { usePick } from '../../project/store'
import type { ListRead } from './shapes'

export function PointFile({ close }: { close: () => void }) {
  const { projectId, send, say } = usePick('projectId', 'send', 'say')
  const [read, setRead] = useState<ListRead | null>(null)
  const [name, setName] = useState('')
  const choose = async (file: File | undefined) => {
    if (!file) return
    const body = new FormData()
    body.append('file', file)
    try {
      const found = await got(
        client.POST('/api/projects/{project_id}/io/read', {
          params: { path: { project_id: projectId } },
          body: body as never,
          bodySerializer: (b) => b as never,
        }),
      )
      setRead(found)
      setName(file.name)
    } catch (error) {
      setRead(null)
      say(wordsOf(error), 'error')
    }
  }
  const news = read?.lines.filter((l) => l.change !== 'same') ?? []
  const take = async () => {
    const points = news.map(({ tag, text, io_type, connected }) => ({ tag, text, io_type, connected }))
    if (await send({ kind: 'take-in-points', points })) close()
  }
  return (
    <Box
      component="section"
      aria-label="Point list to take in"
      sx={{ border: `1px solid ${COPPER}`, bgcolor: '#fff', p: 1.5, mb: 1.5 }}
    >
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center' }}>
        <Button variant="outlined" component="label">
          Choose a CSV or XLSX file
          <input
            hidden
            type="file"
            accept=".csv,.xlsx,.txt"
            data-testid="point-file"
            onChange={(e) => void choose(e.target.files?.[0])}
          />
        </Button>
        <span style={{ flex: 1, color: QUIET }}>
          {name || 'First row: Tag, Text, Type (DI, DO, AI, AO), Connected to'}
        </span>
        <Button onClick={close}>Cancel</Button>
        {read && (
          <Button variant="contained" disabled={!news.length} onClick={() => void take()}>
            Take in {news.length}
          </Button>
        )}
      </Stack>
      {read && <Found read={read} />}
    </Box>
  )
}

interface FoundProps {
  read: ListRead
}

function Found({ read }: FoundProps) {
  return (
    <>
      {read.faults.length > 0 && (
        <Box role="alert" sx={{ mt: 1, color: SNAG }}>
          {read.faults.length} fault{read.faults.length > 1 ? 's' : ''}; these rows are left out:
          <ul style={{ margin: '4px 0 0 18px', padding: 0 }}>
            {read.faults.map((f, i) => (
              <li key={i}>
                Row {f.row}, {f.column}: {f.why}
              </li>
            ))}
          </ul>
        </Box>
      )}
      <Box sx={{ mt: 1, maxHeight: 220, overflow: 'auto', border: `1px solid ${LINE}` }}>
        <Rows label="Rows of the file" columns={['Row', 'Tag', 'Text', 'Type', 'Connected', '']}>
          {read.lines.map((l) => (
            <tr key={l.row}>
              <td>{l.row}</td>
              <td style={{ fontFamily: MONO, fontWeight: 600 }}>{l.tag}</td>
              <td>{l.text}</td>
              <td>{l.io_type}</td>
              <td>{l.connected}</td>
              <td style={{ color: l.change === 'same' ? QUIET : COPPER }}>
                {l.change === 'same' ? 'as it is' : l.change}
              </td>
            </tr>
          ))}
        </Rows>
      </Box>
      {read.gone.length > 0 && (
        <Box sx={{ mt: 0.5, fontSize: 12, color: QUIET }}>
          Not in the file, and left as they are: {read.gone.join(', ')}
        </Box>
      )}
    </>
  )
}
