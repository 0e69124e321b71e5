/** A title block in the inspector: name, size, where it is used, new cells, pictures. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useRef, useState } from 'react'
import { QUIET } from '../../theme/theme'
import { Field } from '../../kit/Field'
import { PanelPick } from '../../kit/Pick'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'
import type { Blocks } from './shapes'

interface Props {
  blocks: Blocks
  own: boolean
  picked: string[]
  canEdit: boolean
  onPick: (ids: string[]) => void
  onTake: (name: string) => void
  onGone: () => void
  onKeep: () => void
}

const number = (text: string) => Number(text.replace(',', '.')) || 0

/** The bytes of a file as base64. */
async function base64Of(file: File): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer())
  let text = ''
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000))
  return btoa(text)
}

export function BlockPanel({ blocks, own, picked, canEdit, onPick, onTake, onGone, onKeep }: Props) {
  const { send } = usePick('send')
  const { block } = blocks
  if (!own) return <BuiltIn {...{ block, canEdit, onTake }} />
  const used = blocks.project.find((b) => b.id === block.id)?.used ?? ''
  const addCell = async (picture = '') => {
    const answer = await send({
      kind: 'put-title-cell',
      block_id: block.id,
      cell_id: '',
      x: 0,
      y: 0,
      width: Math.min(40, block.width_mm),
      height: Math.min(12, block.height_mm),
      heading: picture ? '' : 'New',
      picture_id: picture,
    })
    if (answer) onPick(answer.placed)
  }
  return (
    <>
      <Measures {...{ block, canEdit }} />
      <Box sx={{ fontSize: 12.5, my: 0.5 }}>{used ? `Used by ${used}.` : 'Not used yet.'}</Box>
      {canEdit && (
        <>
          <Button onClick={() => void send({ kind: 'change-settings', title_block_id: block.id })}>
            Use it for the project
          </Button>
          <Button onClick={onKeep}>Keep in the library</Button>
          <Button onClick={() => onTake(`${block.name}, copy`)}>Copy</Button>
          <Section title="Cells">
            <Button variant="outlined" onClick={() => void addCell()}>
              Add a cell
            </Button>
            {picked.length > 1 && (
              <Button
                onClick={() =>
                  void send({ kind: 'remove-title-cells', cell_ids: picked }).then(() => onPick([]))
                }
              >
                Remove {picked.length} cells
              </Button>
            )}
          </Section>
          <Pictures blocks={blocks} onPlace={(id) => void addCell(id)} />
          <Remove {...{ blocks, used, onGone }} />
        </>
      )}
    </>
  )
}

function Pictures({ blocks, onPlace }: { blocks: Blocks; onPlace: (id: string) => void }) {
  const { send, projectId } = usePick('send', 'projectId')
  const file = useRef<HTMLInputElement>(null)
  const take = async (chosen: File) => {
    const name = chosen.name.replace(/\.[^.]*$/, '')
    const answer = await send({ kind: 'add-picture', name, data: await base64Of(chosen) })
    if (answer?.placed[0]) onPlace(answer.placed[0])
  }
  return (
    <Section title="Pictures">
      {blocks.pictures.map((p) => (
        <Box key={p.id} sx={{ display: 'flex', alignItems: 'center', gap: 0.5, mb: 0.5 }}>
          <img
            src={`/api/projects/${projectId}/pictures/${p.id}`}
            alt=""
            style={{ height: 22, maxWidth: 60, objectFit: 'contain' }}
          />
          <span style={{ flex: 1, fontSize: 12.5 }}>{p.name}</span>
          <Button onClick={() => onPlace(p.id)}>Place</Button>
          <Button
            color="inherit"
            aria-label={`Remove picture ${p.name}`}
            sx={{ minWidth: 0 }}
            onClick={() => void send({ kind: 'remove-picture', picture_id: p.id })}
          >
            ×
          </Button>
        </Box>
      ))}
      <Button onClick={() => file.current?.click()}>Add a picture, PNG or JPEG</Button>
      <input
        ref={file}
        type="file"
        accept="image/png,image/jpeg"
        hidden
        aria-label="Picture file"
        onChange={(e) => {
          const chosen = e.target.files?.[0]
          e.target.value = ''
          if (chosen) void take(chosen)
        }}
      />
    </Section>
  )
}

interface BuiltInProps {
  block: Blocks['block']
  canEdit: boolean
  onTake: (name: string) => void
}

function BuiltIn({ block, canEdit, onTake }: BuiltInProps) {
  const [name, setName] = useState('')
  return (
    <>
      <Box sx={{ fontWeight: 600 }}>{block.name}</Box>
      <Box sx={{ color: QUIET, fontSize: 12, mb: 1 }}>
        Built in. A copy in the project can be changed, get your logo, and be kept in the library.
      </Box>
      {canEdit && (
        <>
          <TextField
            label="Name of the copy"
            fullWidth
            value={name}
            placeholder={block.name}
            onChange={(e) => setName(e.target.value)}
          />
          <Button variant="contained" sx={{ mt: 1 }} onClick={() => onTake(name)}>
            Take into the project
          </Button>
        </>
      )}
    </>
  )
}

interface RemoveProps {
  blocks: Blocks
  used: string
  onGone: () => void
}

function Remove({ blocks, used, onGone }: RemoveProps) {
  const { send } = usePick('send')
  const { block } = blocks
  const [goesTo, setGoesTo] = useState<string | null>(null)
  const others = blocks.project.filter((b) => b.id !== block.id)
  const remove = async () => {
    const answer = await send({
      kind: 'remove-title-block',
      block_id: block.id,
      ...(goesTo !== null ? { move_to: goesTo } : {}),
    })
    if (answer) onGone()
  }
  return (
    <Section title="Remove">
      {used && (
        <PanelPick
          label="What has it gets"
          value={goesTo ?? ''}
          options={[{ id: '', name: 'the one built in' }, ...others]}
          onPick={setGoesTo}
        />
      )}
      <Button color="error" onClick={() => void remove()}>
        Remove from the project
      </Button>
    </Section>
  )
}

interface MeasuresProps {
  block: Blocks['block']
  canEdit: boolean
}

function Measures({ block, canEdit }: MeasuresProps) {
  const { send } = usePick('send')
  const change = (values: { name?: string; width_mm?: number; height_mm?: number }) =>
    send({ kind: 'change-title-block', block_id: block.id, ...values })
  return (
    <>
      <Field label="Name" value={block.name} disabled={!canEdit} onSave={(v) => change({ name: v })} />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        <Field
          label="Width, mm"
          value={String(block.width_mm)}
          disabled={!canEdit}
          onSave={(v) => change({ width_mm: number(v) })}
        />
        <Field
          label="Height, mm"
          value={String(block.height_mm)}
          disabled={!canEdit}
          onSave={(v) => change({ height_mm: number(v) })}
        />
      </Box>
    </>
  )
}
