/** Functions or locations as a table: code, text, parent, side, what is there; adding and taking away. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import { useState } from 'react'
import { COPPER, LINE, MONO, QUIET } from '../../theme/theme'
import type { PlaceLine, Side } from '../../project/PlaceChoice'
import { Rows } from '../../kit/Rows'
import { usePick } from '../../project/store'

const SIDES: Side[] = ['panel', 'door', 'field', 'machine']

type Line = PlaceLine & { side?: Side }
interface Values {
  code?: string
  text?: string
  parent_id?: string
  side?: Side
}
/** What is done with functions or locations, each its own edits. */
interface Acts {
  add: (values: { code: string; text: string; parent_id: string; side: Side }) => Promise<unknown>
  change: (line: Line, values: Values) => void
  remove: (line: Line, moveTo: string) => void
}

interface Props {
  kind: 'function' | 'location'
  title: string
  note: string
  lines: Line[]
  canEdit: boolean
}

const PLACE = 'text/spool-place'
const BOX = { padding: '4px 8px', border: `1px solid ${LINE}`, borderRadius: 4 }
const SIDE_OPTIONS = SIDES.map((s) => ({ id: s, name: s }))

function useActs(kind: Props['kind']): Acts {
  const { send } = usePick('send')
  if (kind === 'location')
    return {
      add: (values) => send({ kind: 'add-location', ...values }),
      change: (line, values) => void send({ kind: 'change-location', location_id: line.id, ...values }),
      remove: (line, to) => void send({ kind: 'remove-location', location_id: line.id, move_to: to }),
    }
  return {
    add: ({ code, text, parent_id }) => send({ kind: 'add-function', code, text, parent_id }),
    change: (line, { code, text, parent_id }) =>
      void send({ kind: 'change-function', function_id: line.id, code, text, parent_id }),
    remove: (line, to) => void send({ kind: 'remove-function', function_id: line.id, move_to: to }),
  }
}

export function Structure({ kind, title, note, lines, canEdit }: Props) {
  const acts = useActs(kind)
  const place = kind === 'location'
  return (
    <Box
      component="section"
      aria-label={title}
      sx={{ mt: 3, '& td': { verticalAlign: 'middle !important', py: '2px' } }}
    >
      <Box component="h2" sx={{ fontSize: 16, m: 0 }}>
        {title}
      </Box>
      <Box sx={{ color: QUIET, fontSize: 12, mb: 1 }}>{note}</Box>
      <Rows label={title} columns={['Code', 'Description', 'Within', ...(place ? ['Is'] : []), 'There', '']}>
        {lines.map((line) => (
          <PlaceRow key={line.id} {...{ line, lines, place, acts, canEdit }} />
        ))}
      </Rows>
      {canEdit && <NewPlace {...{ kind, lines, acts }} />}
    </Box>
  )
}

interface RowProps {
  line: Line
  lines: Line[]
  place: boolean
  acts: Acts
  canEdit: boolean
}

function PlaceRow({ line, lines, place, acts, canEdit }: RowProps) {
  const change = (values: Values) => acts.change(line, values)
  return (
    <tr
      onDragOver={(e) => {
        if (e.dataTransfer.types.includes(PLACE)) e.preventDefault()
      }}
      onDrop={(e) => {
        const moved = lines.find((l) => l.id === e.dataTransfer.getData(PLACE))
        if (moved && moved.id !== line.id) acts.change(moved, { parent_id: line.id })
      }}
    >
      <td style={{ width: 150, paddingLeft: 8 + 18 * depthOf(line, lines) }}>
        <span
          draggable={canEdit}
          title="Drag onto another to put it within that"
          onDragStart={(e) => e.dataTransfer.setData(PLACE, line.id)}
          style={{ cursor: canEdit ? 'grab' : 'default', color: QUIET, padding: '0 4px' }}
        >
          ⠿
        </span>
        <Cell
          label={`Code of ${line.name}`}
          value={line.code}
          mono
          canEdit={canEdit}
          onSave={(code) => change({ code })}
        />
      </td>
      <td>
        <Cell
          label={`Description of ${line.name}`}
          value={line.text}
          canEdit={canEdit}
          onSave={(text) => change({ text })}
        />
      </td>
      <Where {...{ line, lines, place, canEdit, change }} />
      <td style={{ color: QUIET, fontSize: 12 }}>{line.used || 'nothing'}</td>
      <td style={{ width: 150, textAlign: 'right' }}>
        {canEdit && <Leaving {...{ line, lines }} remove={(to) => acts.remove(line, to)} />}
      </td>
    </tr>
  )
}

type WhereProps = Omit<RowProps, 'acts'> & { change: (values: Values) => void }

/** What a place lies within, and which side of the panel a location is. */
function Where({ line, lines, place, canEdit, change }: WhereProps) {
  return (
    <>
      <td style={{ width: 110 }}>
        <Pick
          label={`${line.name} lies within`}
          value={line.parent_id}
          disabled={!canEdit}
          options={[{ id: '', name: '' }, ...lines.filter((o) => o.id !== line.id)]}
          onPick={(id) => change({ parent_id: id })}
        />
      </td>
      {place && (
        <td style={{ width: 100 }}>
          <Pick
            label={`${line.name} is`}
            value={line.side ?? 'panel'}
            disabled={!canEdit}
            options={SIDE_OPTIONS}
            onPick={(v) => change({ side: v as Side })}
          />
        </td>
      )}
    </>
  )
}

interface LeavingProps {
  line: Line
  lines: Line[]
  remove: (moveTo: string) => void
}

/** Taking a place away; of one that is used it is asked where what is in it goes. */
function Leaving({ line, lines, remove }: LeavingProps) {
  const [asking, setAsking] = useState(false)
  if (asking)
    return (
      <Pick
        label={`Where what is in ${line.name} goes`}
        value=""
        disabled={false}
        empty="goes to…"
        options={lines.filter((o) => o.id !== line.id)}
        onPick={remove}
      />
    )
  return (
    <Button
      color="inherit"
      aria-label={`Remove ${line.name}`}
      onClick={() => (line.used ? setAsking(true) : remove(''))}
    >
      Remove
    </Button>
  )
}

interface NewProps {
  kind: Props['kind']
  lines: Line[]
  acts: Acts
}

function NewPlace({ kind, lines, acts }: NewProps) {
  const [code, setCode] = useState('')
  const [side, setSide] = useState<Side>('panel')
  const [text, setText] = useState('')
  const [within, setWithin] = useState('')
  const place = kind === 'location'
  const add = async () => {
    if (!(await acts.add({ code, text, parent_id: within, side }))) return
    setCode('')
    setText('')
  }
  return (
    <Box
      component="form"
      sx={{ display: 'flex', gap: 1, mt: 0.75, alignItems: 'center' }}
      onSubmit={(e: React.FormEvent) => {
        e.preventDefault()
        void add()
      }}
    >
      <input
        aria-label={`New ${kind}`}
        placeholder={place ? 'KP3' : 'K3'}
        value={code}
        onChange={(e) => setCode(e.target.value)}
        style={{ ...BOX, font: `13px ${MONO}`, width: 100 }}
      />
      {place && (
        <Pick
          label="The new location is"
          value={side}
          disabled={false}
          options={SIDE_OPTIONS}
          onPick={(v) => setSide(v as Side)}
        />
      )}
      <input
        aria-label={`Description of the new ${kind}`}
        placeholder="description"
        value={text}
        onChange={(e) => setText(e.target.value)}
        style={{ ...BOX, font: 'inherit', width: 220 }}
      />
      <Pick
        label={`The new ${kind} lies within`}
        value={within}
        disabled={false}
        empty="within…"
        options={[{ id: '', name: '' }, ...lines]}
        onPick={setWithin}
      />
      <Button type="submit" disabled={!code.trim()}>
        Add a {kind}
      </Button>
    </Box>
  )
}

/** How deep a place lies in the tree. */
function depthOf(line: PlaceLine, lines: PlaceLine[]): number {
  const above = lines.find((l) => l.id === line.parent_id)
  return above ? 1 + depthOf(above, lines) : 0
}

interface PickProps {
  label: string
  value: string
  disabled: boolean
  empty?: string
  options: { id: string; name: string }[]
  onPick: (id: string) => void
}

function Pick({ label, value, disabled, empty, options, onPick }: PickProps) {
  return (
    <Select
      variant="standard"
      disableUnderline
      displayEmpty
      value={options.some((o) => o.id === value) ? value : ''}
      disabled={disabled}
      inputProps={{ 'aria-label': label }}
      renderValue={(v) => options.find((o) => o.id === v)?.name || empty || '-'}
      onChange={(e) => onPick(e.target.value)}
      sx={{ fontSize: 12.5, color: empty ? COPPER : undefined }}
    >
      {options.map((o) => (
        <MenuItem key={o.id} value={o.id} sx={{ fontSize: 12.5 }}>
          {o.name || 'none'}
        </MenuItem>
      ))}
    </Select>
  )
}

interface CellProps {
  label: string
  value: string
  mono?: boolean
  canEdit: boolean
  onSave: (value: string) => void
}

/** A text in a cell, saved when it is left or Enter is pressed. */
function Cell({ label, value, mono, canEdit, onSave }: CellProps) {
  const [text, setText] = useState<string | null>(null)
  const save = () => {
    if (text !== null && text !== value) onSave(text.trim())
    setText(null)
  }
  return (
    <input
      aria-label={label}
      value={text ?? value}
      disabled={!canEdit}
      onChange={(e) => setText(e.target.value)}
      onBlur={save}
      onKeyDown={(e) => {
        if (e.key === 'Enter') e.currentTarget.blur()
        if (e.key === 'Escape') setText(null)
      }}
      style={{
        width: mono ? 'calc(100% - 24px)' : '100%',
        font: mono ? `600 12.5px ${MONO}` : 'inherit',
        color: 'inherit',
        border: '1px solid transparent',
        borderRadius: 3,
        background: 'transparent',
        padding: '2px 4px',
      }}
    />
  )
}
