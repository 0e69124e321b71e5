/** One part of the library: its form, where it is used, who changed it when. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { client, got, wordsOf } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { LINE, QUIET } from '../../theme/theme'
import { Section } from '../../kit/Section'
import { useProject } from '../../project/store'
import { draftStep, type Draft, type Kinds, type Shelf } from './kinds'
import { PartForm } from './PartForm'

interface Props {
  id: string
  kinds: Kinds | undefined
  shelves: Shelf[]
  close: () => void
  go: (id: string) => void
}

export function PartPage({ id, kinds, shelves, close, go }: Props) {
  const [like, setLike] = useState<Draft | null>(null)
  const queries = useQueryClient()
  const part = useQuery({
    queryKey: ['part', id],
    queryFn: async () =>
      await got(client.GET('/api/library/part/{part_id}', { params: { path: { part_id: id } } })),
    retry: false,
  })
  if (part.error)
    return (
      <Box sx={{ width: 470, p: 2, borderLeft: `1px solid ${LINE}`, color: QUIET }}>
        {wordsOf(part.error)}
      </Box>
    )
  if (!kinds || !part.data) return <Box sx={{ width: 470, borderLeft: `1px solid ${LINE}` }} />
  const given = { kinds, shelves, close, done: go }
  if (like) return <PartForm {...given} title={`Like ${part.data.record.number}`} note="" start={like} />
  const { shelf } = part.data
  const remove = () =>
    got(client.POST('/api/library/parts/remove', { body: { shelf: shelf.id, ids: [id] } })).then(
      () => {
        void queries.invalidateQueries({ queryKey: ['library'] })
        useProject
          .getState()
          .say(`${part.data.record.number} is out of the library. Projects keep their copies.`)
        close()
      },
      (error: unknown) => useProject.getState().say(wordsOf(error), 'error'),
    )
  return (
    <PartForm
      key={part.data.record.version}
      title={part.data.record.number}
      note={shelf.may_change ? '' : `${shelf.name} is read only: make one like it in another library.`}
      start={part.data}
      shelf={shelf}
      {...given}
    >
      <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
        <Button variant="outlined" onClick={() => void draftStep({ act: 'like', part_id: id }).then(setLike)}>
          Make one like it
        </Button>
        {shelf.may_change && <Button onClick={() => void remove()}>Take out of the library</Button>}
      </Box>
      <Known part={part.data} />
    </PartForm>
  )
}

type Part = Schemas['StoredPart']

interface KnownProps {
  part: Part
}

/** Where a part is used, and how it came to be as it is. */
function Known({ part }: KnownProps) {
  const { history, projects, record } = part
  return (
    <>
      <Section title="Where used">
        {projects.length ? (
          projects.map((p) => (
            <Box key={p.id} sx={{ fontSize: 12.5 }}>
              {p.name}: {p.devices} {p.devices === 1 ? 'device' : 'devices'}, copy of version {p.version}
              {p.version !== record.version && ' (older)'}
            </Box>
          ))
        ) : (
          <Box sx={{ fontSize: 12.5, color: QUIET }}>In none of your projects.</Box>
        )}
      </Section>
      <Section title="History">
        {history.length ? (
          history.map((h, i) => (
            <Box key={i} sx={{ fontSize: 12.5, mb: 0.5 }}>
              <b>{h.version}</b> {h.by}, {new Date(h.at).toLocaleString('en-GB')}: {h.act}
              {h.changed.map((d) => (
                <div key={d.field} style={{ color: QUIET, paddingLeft: 12 }}>
                  {d.field}: {d.before || 'nothing'} → {d.after || 'nothing'}
                </div>
              ))}
            </Box>
          ))
        ) : (
          <Box sx={{ fontSize: 12.5, color: QUIET }}>Not changed since it was taken in.</Box>
        )}
      </Section>
    </>
  )
}
