/** How new sheets of each kind begin. */
import Box from '@mui/material/Box'
import { useState } from 'react'
import { asGiven, makeEdit } from '../../api/client'
import { QUIET } from '../../theme/theme'
import { Field } from '../../kit/Field'
import { PanelPick, plain } from '../../kit/Pick'
import { usePick } from '../../project/store'
import type { Sheets } from './shapes'
import { useOutline } from '../../project/useOutline'

type Habit = Sheets['habits'][number]
type Set = (values: Record<string, unknown>) => void

interface PartProps {
  habit: Habit
  set: Set
  canEdit: boolean
}

const FRAMES = [
  { id: 'ladder', name: 'Ladder lines' },
  { id: 'zones', name: 'Zones' },
]
const LADDERS = [
  { id: '1', name: 'one' },
  { id: '2', name: 'two' },
]

export function HabitsPanel({ table, canEdit }: { table: Sheets; canEdit: boolean }) {
  const { send } = usePick('send')
  const [kind, setKind] = useState('schematic')
  const habit = table.habits.find((h) => h.kind === kind)
  const drawn = table.kinds.find((k) => k.id === kind)?.drawn ?? false
  const set: Set = (values) =>
    void send(makeEdit('set-sheet-habit', { sheet_kind: asGiven(kind), ...values }))
  return (
    <>
      <Box sx={{ fontWeight: 600 }}>New sheets</Box>
      <Box sx={{ color: QUIET, fontSize: 12 }}>
        How a sheet of this kind begins. Choose sheets in the table to change those that are there.
      </Box>
      <PanelPick label="Of the kind" value={kind} options={table.kinds} onPick={setKind} />
      {habit && <Beginning {...{ table, habit, drawn, set, canEdit }} />}
    </>
  )
}

function Beginning({ table, habit, drawn, set, canEdit }: PartProps & { table: Sheets; drawn: boolean }) {
  const ladder = drawn && habit.frame === 'ladder'
  const blocks = [{ id: '', name: 'of the project' }, ...table.blocks]
  const disabled = !canEdit
  return (
    <>
      <PanelPick
        label="Begin in size"
        value={habit.size}
        options={plain(table.sizes)}
        onPick={(size) => set({ size })}
        disabled={disabled}
      />
      {drawn && (
        <PanelPick
          label="Begin with"
          value={habit.frame}
          options={FRAMES}
          onPick={(frame) => set({ frame })}
          disabled={disabled}
        />
      )}
      {ladder ? <LadderHabit {...{ habit, set, canEdit }} /> : <ZonesHabit {...{ habit, set, canEdit }} />}
      <PanelPick
        label="Title block"
        value={habit.title_block_id}
        options={blocks}
        onPick={(id) => set({ title_block_id: id })}
        disabled={disabled}
      />
    </>
  )
}

function ZonesHabit({ habit, set, canEdit }: PartProps) {
  return (['columns', 'rows'] as const).map((key) => (
    <Field
      key={key}
      label={key === 'columns' ? 'Zones across' : 'Zones down'}
      value={String(habit[key])}
      disabled={!canEdit}
      onSave={(v) => set({ [key]: Number(v) })}
    />
  ))
}

function LadderHabit({ habit, set, canEdit }: PartProps) {
  const outline = useOutline(usePick('projectId').projectId)
  const types = outline.data?.wire_types ?? []
  const rails = [{ id: '', name: '' }, ...types.map((t) => ({ id: t.id, name: t.name }))]
  return (
    <>
      <PanelPick
        label="Ladders beside each other"
        value={String(habit.ladders)}
        options={LADDERS}
        onPick={(v) => set({ ladders: Number(v) })}
        disabled={!canEdit}
      />
      {(['line_count', 'line_spacing'] as const).map((key) => (
        <Field
          key={key}
          label={key === 'line_count' ? 'Lines a ladder' : 'From line to line, steps of 2.5 mm'}
          value={String(habit[key])}
          disabled={!canEdit}
          onSave={(v) => set({ [key]: Number(v) })}
        />
      ))}
      {(['left', 'right'] as const).map((side) => (
        <PanelPick
          key={side}
          label={side === 'left' ? 'Left rail' : 'Right rail'}
          value={habit[`${side}_rail_type_id`]}
          options={rails}
          onPick={(id) => set({ [`${side}_rail_type_id`]: id })}
          disabled={!canEdit}
        />
      ))}
    </>
  )
}
