/** What the armed stroke needs to know: the strip and kind of terminals, the cable of a band, names of continuations. */
import InputBase from '@mui/material/InputBase'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import { useQuery } from '@tanstack/react-query'
import { useEffect } from 'react'
import { client, got } from '../../api/client'
import { LINE } from '../../theme/theme'
import { useBench } from '../../project/useBench'
import { usePick } from '../../project/store'
import { useTools, NEW_STRIP, type Stroke } from './store'

interface Named {
  id: string
  tag: string
  text: string
}

const KINDS = [
  ['', 'kind by the wire'],
  ['terminal', 'feed-through'],
  ['terminal-earth', 'earth'],
  ['terminal-fuse', 'fuse'],
  ['terminal-disconnect', 'disconnect'],
]

export function StrokeTarget({ what }: { what: Stroke }) {
  if (what === 'marks') return <MarkNames />
  if (what === 'picture') return <PictureTarget />
  return what === 'terminals' || what === 'band' ? <DeviceTarget what={what} /> : null
}

/** Names for a row of continuations; those without another end are offered first. */
function MarkNames() {
  const { projectId, sheetId, revision, markNames, set } = {
    ...usePick('projectId', 'sheetId', 'revision'),
    ...useTools('markNames', 'set'),
  }
  const found = useQuery({
    queryKey: ['marks', projectId, sheetId, revision],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/offers', {
          params: { path: { project_id: projectId }, query: { q: 'continuation', sheet_id: sheetId } },
        }),
      ),
  })
  return (
    <>
      <InputBase
        autoFocus
        placeholder="Names, parted by commas; one name is numbered"
        value={markNames}
        onChange={(e) => set({ markNames: e.target.value })}
        onKeyDown={(e) => {
          if (e.key === 'Enter' || e.key === 'Escape') (e.target as HTMLElement).blur()
        }}
        inputProps={{ 'aria-label': 'Names of the continuations', list: 'mark-names' }}
        sx={{
          fontSize: 13,
          width: 330,
          bgcolor: '#fff',
          border: `1px solid ${LINE}`,
          borderRadius: 1,
          px: 1,
        }}
      />
      <datalist id="mark-names">
        {found.data
          ?.filter((o) => o.text)
          .map((o) => (
            <option key={o.text} value={o.text} />
          ))}
      </datalist>
    </>
  )
}

/** The pictures of the project; they are taken in with the title blocks. */
function PictureTarget() {
  const { projectId, pictureId, set } = { ...usePick('projectId'), ...useTools('pictureId', 'set') }
  const found = useBench<{ pictures: { id: string; name: string }[] }>('title-blocks', () =>
    got(
      client.GET('/api/projects/{project_id}/title-blocks', { params: { path: { project_id: projectId } } }),
    ),
  )
  const pictures = found.data?.pictures ?? []
  useEffect(() => {
    if (pictures[0] && !pictures.some((p) => p.id === pictureId)) set({ pictureId: pictures[0].id })
  })
  if (found.data && !pictures.length)
    return <span style={{ fontSize: 12.5 }}>No picture yet: add one in Brief, Title blocks.</span>
  return (
    <Select
      size="small"
      variant="standard"
      disableUnderline
      value={pictures.some((p) => p.id === pictureId) ? pictureId : ''}
      onChange={(e) => set({ pictureId: e.target.value })}
      inputProps={{ 'aria-label': 'Picture' }}
      sx={{ fontSize: 13 }}
    >
      {pictures.map((p) => (
        <MenuItem key={p.id} value={p.id}>
          {p.name}
        </MenuItem>
      ))}
    </Select>
  )
}

function DeviceTarget({ what }: { what: 'terminals' | 'band' }) {
  const { projectId, strokeTarget, terminalKind, set } = {
    ...usePick('projectId'),
    ...useTools('strokeTarget', 'terminalKind', 'set'),
  }
  const path = { params: { path: { project_id: projectId } } }
  const found = useBench<{ strips?: Named[]; cables?: Named[] }>(
    what === 'band' ? 'cables' : 'terminals',
    () =>
      what === 'band'
        ? got(client.GET('/api/projects/{project_id}/cables', path))
        : got(client.GET('/api/projects/{project_id}/terminals', path)),
  )
  const options = (what === 'band' ? found.data?.cables : found.data?.strips) ?? []
  const known = strokeTarget === NEW_STRIP ? what === 'terminals' : options.some((o) => o.id === strokeTarget)
  return (
    <>
      <Select
        size="small"
        variant="standard"
        displayEmpty
        disableUnderline
        value={known ? strokeTarget : ''}
        onChange={(e) => set({ strokeTarget: e.target.value })}
        inputProps={{ 'aria-label': what === 'band' ? 'Cable of the band' : 'Strip of the terminals' }}
        sx={{ fontSize: 13 }}
      >
        <MenuItem value="">{what === 'band' ? 'a new cable' : 'the strip used last'}</MenuItem>
        {what === 'terminals' && <MenuItem value={NEW_STRIP}>a new strip</MenuItem>}
        {options.map((o) => (
          <MenuItem key={o.id} value={o.id}>
            {o.tag} {o.text}
          </MenuItem>
        ))}
      </Select>
      {what === 'terminals' && (
        <Select
          size="small"
          variant="standard"
          displayEmpty
          disableUnderline
          value={terminalKind}
          onChange={(e) => set({ terminalKind: e.target.value })}
          inputProps={{ 'aria-label': 'Kind of the terminals' }}
          sx={{ fontSize: 13 }}
        >
          {KINDS.map(([id, name]) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </Select>
      )}
    </>
  )
}
