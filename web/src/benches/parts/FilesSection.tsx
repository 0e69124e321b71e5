/** A part's picture, data sheet and picture in space: files kept in the library, given to it by name. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { client, got, wordsOf } from '../../api/client'
import { fileBody } from '../../api/upload'
import { LINE, MONO, QUIET } from '../../theme/theme'
import { PanelPick } from '../../kit/Pick'
import { Act } from '../../kit/Act'
import { fetched } from '../../kit/fetched'
import { Section } from '../../kit/Section'
import { useProject } from '../../project/store'
import type { PartRecord } from './kinds'

interface Props {
  record: PartRecord
  locked: boolean
  put: (part: Partial<PartRecord>) => void
}

// three.js is only fetched when a part has a picture in space.
const SolidPreview = fetched(() => import('./SolidPreview').then((m) => m.SolidPreview))

const FILES = [
  { field: 'picture', label: 'Picture', accept: '.png,.jpg,.jpeg,.svg' },
  { field: 'datasheet', label: 'Data sheet', accept: '.pdf,.png,.jpg,.jpeg,.svg' },
  { field: 'solid', label: 'In space', accept: '.glb,.gltf,.stl' },
] as const

export const fileUrl = (name: string) => `/api/library/files/${encodeURIComponent(name)}`

export function FilesSection({ record, locked, put }: Props) {
  const take = (field: 'picture' | 'datasheet' | 'solid', file: File) => {
    got(client.POST('/api/library/files', fileBody(file))).then(
      (name) => put({ [field]: String(name), ...(field === 'solid' ? axesOf(String(name)) : {}) }),
      (error: unknown) => useProject.getState().say(wordsOf(error), 'error'),
    )
  }
  return (
    <Section title="Pictures and data sheet">
      {record.picture && <Picture record={record} />}
      {record.solid && <SolidPreview record={record} />}
      {record.solid && !locked && <Axes record={record} put={put} />}
      {FILES.map(({ field, label, accept }) => (
        <Box key={field} sx={{ display: 'flex', gap: 1, alignItems: 'center', fontSize: 12.5 }}>
          <span style={{ width: 74, color: QUIET }}>{label}</span>
          <span style={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis' }}>
            {record[field] ? (
              <a href={fileUrl(record[field])} target="_blank" rel="noreferrer" style={{ fontFamily: MONO }}>
                {record[field]}
              </a>
            ) : (
              'none'
            )}
          </span>
          {!locked && (
            <>
              <Button size="small" component="label">
                Choose…
                <input
                  type="file"
                  hidden
                  accept={accept}
                  aria-label={`${label} file`}
                  onChange={(e) => {
                    const file = e.target.files?.[0]
                    if (file) take(field, file)
                    e.target.value = ''
                  }}
                />
              </Button>
              {record[field] && <Act onClick={() => put({ [field]: '' })}>Take off</Act>}
            </>
          )}
        </Box>
      ))}
    </Section>
  )
}

/** How files of a kind usually stand: glTF with its front to +z and its top to +y, STL as it lies on a machine. */
const axesOf = (name: string): Partial<PartRecord> =>
  name.endsWith('.stl') ? { solid_front: '-y', solid_up: '+z' } : { solid_front: '+z', solid_up: '+y' }

/** Which axes of the file point to the front and up. */
function Axes({ record, put }: { record: PartRecord; put: Props['put'] }) {
  const axes = (['+x', '-x', '+y', '-y', '+z', '-z'] as const).map((id) => ({ id, name: id }))
  const pick = (field: 'solid_front' | 'solid_up') => (id: string) => put({ [field]: id })
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 0.5 }}>
      <PanelPick
        label="Its front is"
        value={record.solid_front}
        options={axes}
        onPick={pick('solid_front')}
      />
      <PanelPick label="Its top is" value={record.solid_up} options={axes} onPick={pick('solid_up')} />
    </Box>
  )
}

interface PictureProps {
  record: PartRecord
}

function Picture({ record }: PictureProps) {
  return (
    <Box
      component="img"
      src={fileUrl(record.picture)}
      alt={`Picture of ${record.number}`}
      sx={{
        maxWidth: 180,
        maxHeight: 120,
        border: `1px solid ${LINE}`,
        bgcolor: '#fff',
        p: 0.5,
        mb: 0.5,
      }}
    />
  )
}
