/** The project's own facts: what title blocks, covers and reports show, the person's own fields, allowances. */
import { PanelPick } from '../../kit/Pick'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState, type ReactNode } from 'react'
import { makeEdit } from '../../api/client'
import { QUIET } from '../../theme/theme'
import { Bench } from '../../kit/Bench'
import { Field } from '../../kit/Field'
import { Section } from '../../kit/Section'
import { Setting } from '../../project/Setting'
import { useProject } from '../../project/store'
import { useOutline } from '../../project/useOutline'

const GROUPS = [
  [
    'Project',
    [
      ['number', 'Number'],
      ['name', 'Name'],
      ['customer', 'Customer'],
      ['site', 'Site'],
      ['revision', 'Revision'],
      ['issued_on', 'Date of issue'],
      ['drawn_by', 'Drawn by'],
      ['drawn_on', 'Drawn on'],
      ['checked_by', 'Approved by'],
      ['checked_on', 'Approved on'],
    ],
  ],
  [
    'Technical data',
    [
      ['supply', 'Supply voltage'],
      ['supply_system', 'System of the supply'],
      ['control_voltages', 'Control voltages'],
      ['protection', 'Degree of protection'],
      ['standards', 'Standards'],
    ],
  ],
] as const

const HABITS = [
  ['standard', 'Symbols and letters', { iec: 'IEC', na: 'North American' }],
  ['tag_habit', 'Tags', { iec: '=F+L-XX1, running', line: 'letters and ladder line' }],
  ['wire_pattern', 'Wire numbers', { line: 'ladder line and digit', sheet: 'sheet and running number' }],
  ['length_unit', 'Lengths in', { mm: 'millimetres', in: 'inches' }],
  [
    'conductor_order',
    'Conductors of a net',
    { drawing: 'in the order drawn', layout: 'shortest, where all is placed' },
  ],
] as const

interface Props {
  list: ReactNode
  canEdit: boolean
}

/** The settings of the project that is open, fresh after every edit. */
export function useSettings() {
  const projectId = useProject((s) => s.projectId)
  const outline = useOutline(projectId)
  return (outline.data?.settings ?? {}) as Record<string, string> & { own_fields?: Record<string, string> }
}

export function FactsSection({ list, canEdit }: Props) {
  const send = useProject((s) => s.send)
  const settings = useSettings()
  return (
    <Bench
      name="Brief"
      list={list}
      inspector={
        <>
          <Habits settings={settings} canEdit={canEdit} />
        </>
      }
    >
      <Box sx={{ flex: 1, overflow: 'auto', p: 2.5, maxWidth: 900 }}>
        {GROUPS.map(([title, fields]) => (
          <Box component="section" aria-label={title} key={title} sx={{ mb: 2 }}>
            <Box component="h1" sx={{ fontSize: 17, m: 0, mb: 0.5 }}>
              {title}
            </Box>
            <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', columnGap: 1.5 }}>
              {fields.map(([name, label]) => (
                <Field
                  key={name}
                  label={label}
                  value={settings[name] ?? ''}
                  disabled={!canEdit}
                  onSave={(value) => send({ kind: 'change-settings', [name]: value })}
                />
              ))}
            </Box>
          </Box>
        ))}
        <OwnFields fields={settings.own_fields ?? {}} canEdit={canEdit} />
      </Box>
    </Bench>
  )
}

function OwnFields({ fields, canEdit }: { fields: Record<string, string>; canEdit: boolean }) {
  const send = useProject((s) => s.send)
  return (
    <Box component="section" aria-label="Own fields">
      <Box component="h1" sx={{ fontSize: 17, m: 0 }}>
        Own fields
      </Box>
      <Box sx={{ color: QUIET, fontSize: 12, mb: 0.5 }}>
        Whatever else your house writes on its sheets. A title block shows one as {'{its name}'}; covers,
        technical data and the project report list them all.
      </Box>
      <Box
        sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', columnGap: 1.5, alignItems: 'center' }}
      >
        {Object.entries(fields).map(([key, text]) => (
          <Box key={key} sx={{ display: 'flex', alignItems: 'center', gap: 0.5 }}>
            <Field
              label={key}
              value={text}
              disabled={!canEdit}
              onSave={(value) => send({ kind: 'set-own-field', name: key, text: value })}
            />
            {canEdit && (
              <Button
                color="inherit"
                aria-label={`Remove field ${key}`}
                onClick={() => void send({ kind: 'remove-own-field', name: key })}
                sx={{ minWidth: 0 }}
              >
                ×
              </Button>
            )}
          </Box>
        ))}
        {canEdit && <NewField />}
      </Box>
    </Box>
  )
}

type Settings = ReturnType<typeof useSettings>

interface HabitsProps {
  settings: Settings
  canEdit: boolean
}

function Habits({ settings, canEdit }: HabitsProps) {
  const send = useProject((s) => s.send)
  return (
    <>
      <Section title="Habits">
        {HABITS.map(([name, label, words]) => (
          <PanelPick
            key={name}
            label={label}
            value={settings[name] ?? ''}
            options={Object.entries(words).map(([id, shown]) => ({ id, name: shown }))}
            disabled={!canEdit}
            onPick={(value) => void send(makeEdit('change-settings', { [name]: value }))}
          />
        ))}
      </Section>
      <Section title="Lengths and shares">
        <Setting name="end_allowance_mm" label="Panel wire, at each end" canEdit={canEdit} />
        <Setting name="door_allowance_mm" label="Loop to the door" canEdit={canEdit} />
        <Setting name="free_run_mm" label="Outside ducts at most" canEdit={canEdit} />
        <Setting name="harness_allowance_mm" label="Harness wire, at each end" canEdit={canEdit} />
        <Setting name="length_step_mm" label="Lengths rounded up to" canEdit={canEdit} />
        <Setting name="spool_m" label="Wire on a spool" canEdit={canEdit} />
        <Setting name="spare_share_percent" label="PLC channels to keep spare, %" canEdit={canEdit} />
      </Section>
      <Section title="Texts of parts">
        <Field
          label="Language in lists, as parts name it"
          placeholder="their own"
          value={settings.part_language ?? ''}
          disabled={!canEdit}
          onSave={(value) => send({ kind: 'change-settings', part_language: value.trim() })}
        />
      </Section>
    </>
  )
}

function NewField() {
  const send = useProject((s) => s.send)
  const [name, setName] = useState('')
  const add = async () => {
    if (await send({ kind: 'set-own-field', name: name.trim(), text: '' })) setName('')
  }
  return (
    <Box
      component="form"
      sx={{ display: 'flex', gap: 0.5, alignItems: 'center', pt: 0.5 }}
      onSubmit={(e: React.FormEvent) => {
        e.preventDefault()
        void add()
      }}
    >
      <TextField
        label="New field"
        value={name}
        onChange={(e) => setName(e.target.value)}
        placeholder="Order number"
        fullWidth
      />
      <Button type="submit" disabled={!name.trim()}>
        Add
      </Button>
    </Box>
  )
}
