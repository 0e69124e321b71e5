/** How wires and devices are named: numbering rules in order, numbers fixed and let run, tags, letters of classes. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useState, type ReactNode } from 'react'
import { makeEdit, type AnyEdit } from '../../api/client'
import { MONO, QUIET } from '../../theme/theme'
import { Act } from '../../kit/Act'
import { Bench } from '../../kit/Bench'
import { Field } from '../../kit/Field'
import { Rows } from '../../kit/Rows'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'
import { ChangeTable } from './ChangeTable'
import { piecesLine, RuleForm } from './RuleForm'
import { TagRuleForm } from './TagRuleForm'
import { usePlaces } from '../../project/PlaceChoice'
import type { NumberRuleRecord, TagRuleRecord, WiringHabits } from './shapes'
import { useWiring } from './useWiring'

type Panel = {
  name: '' | 'rule' | 'tags' | 'fix' | 'run' | 'naming'
  rule: NumberRuleRecord | null
  naming?: TagRuleRecord
}
const NEW_RULE: TagRuleRecord = {
  id: 'new',
  part_class: 'contactor',
  function_id: '',
  location_id: '',
  letters: '',
  start: 0,
}
const withoutRule = (rule: TagRuleRecord): AnyEdit => ({
  kind: 'put-tag-rule',
  part_class: rule.part_class,
  function_id: rule.function_id,
  location_id: rule.location_id,
  letters: '',
  start: 0,
})
const NONE: Panel = { name: '', rule: null }
const ACTS: Record<string, { title: string; words: string; edit: AnyEdit }> = {
  tags: {
    title: 'Number tags again',
    words: 'In reading order, class by class in each function and location. Fixed tags stay.',
    edit: makeEdit('number-tags', { device_ids: [], sheet_ids: [], start: 1, free_fixed: false }),
  },
  fix: {
    title: 'Fix all wire numbers',
    words: 'Every number stays as it is now, whatever is drawn later: for what is on the shop floor.',
    edit: makeEdit('fix-numbers', { ids: [], sheet_ids: [], fixed: true }),
  },
  run: {
    title: 'Let all wire numbers run',
    words: 'Numbers fixed by hand are given up; the rules name every net again.',
    edit: makeEdit('fix-numbers', { ids: [], sheet_ids: [], fixed: false }),
  },
}

/** What a rule holds for, in words. */
function condition(rule: NumberRuleRecord, data: WiringHabits): string {
  const type = data.types.find((t) => t.id === rule.type_id)
  const words = [
    rule.category && `category ${rule.category}`,
    type && `type ${type.name}`,
    rule.at_channel && 'at a PLC channel',
    rule.potential && `potential ${rule.potential}`,
    rule.function_id && 'one function',
    rule.location_id && 'one location',
  ].filter(Boolean)
  return words.join(', ') || 'every net'
}

interface SectionProps {
  data: WiringHabits
  canEdit: boolean
  show: (panel: Panel) => void
}

export function NumbersSection({ list, canEdit }: { list: ReactNode; canEdit: boolean }) {
  const data = useWiring().data
  const [panel, setPanel] = useState<Panel>(NONE)
  if (!data)
    return (
      <Bench name="Brief" list={list}>
        {null}
      </Bench>
    )
  const section = { data, canEdit, show: setPanel }
  return (
    <Bench
      name="Brief"
      list={list}
      inspector={<Inspector data={data} panel={panel} close={() => setPanel(NONE)} />}
    >
      <Box sx={{ p: 2, overflow: 'auto' }}>
        <WireHead {...section} />
        <WireRules {...section} />
        <Box sx={{ fontSize: 12, color: QUIET, mt: 0.5 }}>
          {data.fixed_numbers
            ? `${data.fixed_numbers} numbers are fixed by hand.`
            : 'No number is fixed by hand.'}{' '}
          How a number is shown is said by its wire type.
        </Box>
        <TagHead {...section} />
        {/* Letters of a class everywhere stand in the fields below; what is left are first numbers and places. */}
        {data.tag_rules.length > 0 && <TagRules {...section} />}
        <Letters {...section} />
      </Box>
    </Bench>
  )
}

interface InspectorProps {
  data: WiringHabits
  panel: Panel
  close: () => void
}

function Inspector({ data, panel, close }: InspectorProps) {
  const { send } = usePick('send')
  const act = ACTS[panel.name]
  if (panel.naming) return <TagRuleForm key={panel.naming.id} data={data} rule={panel.naming} close={close} />
  if (panel.name === 'rule')
    return <RuleForm key={panel.rule?.id ?? 'new'} data={data} rule={panel.rule} close={close} />
  if (!act)
    return (
      <Box sx={{ fontSize: 12.5, color: QUIET }}>
        The first rule that holds names a net. A rule is put together of pieces; what would change is listed
        before it is saved. Numbers that run without a sheet or line run over the whole project.
      </Box>
    )
  return (
    <>
      <Box sx={{ fontWeight: 600 }}>{act.title}</Box>
      <Box sx={{ fontSize: 12.5, color: QUIET }}>{act.words}</Box>
      <ChangeTable edit={act.edit} />
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button variant="contained" onClick={() => void send(act.edit).then((answer) => answer && close())}>
          Do it
        </Button>
        <Button onClick={close}>Cancel</Button>
      </Box>
    </>
  )
}

function WireHead({ data, canEdit, show }: SectionProps) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mb: 1 }}>
      <Box component="h2" sx={{ fontSize: 15, m: 0, flex: 1 }}>
        Wire numbers
      </Box>
      {canEdit && (
        <>
          <Button variant="outlined" onClick={() => show({ name: 'rule', rule: null })}>
            Add a rule
          </Button>
          <Button variant="outlined" onClick={() => show({ name: 'fix', rule: null })}>
            Fix all
          </Button>
          <Button
            variant="outlined"
            disabled={!data.fixed_numbers}
            onClick={() => show({ name: 'run', rule: null })}
          >
            Let all run
          </Button>
        </>
      )}
    </Box>
  )
}

function WireRules({ data, canEdit, show }: SectionProps) {
  const { send } = usePick('send')
  const move = (n: number) => {
    const ids = data.rules.map((r) => r.id)
    ids.splice(n - 1, 0, ...ids.splice(n, 1))
    void send({ kind: 'order-number-rules', ids })
  }
  return (
    <Rows label="Numbering rules" columns={['', 'Rule', 'Holds for', 'Number', 'One for', '']}>
      {data.rules.map((rule, n) => (
        <tr key={rule.id}>
          <td>{n + 1}</td>
          <td>{rule.name}</td>
          <td>{condition(rule, data)}</td>
          <td style={{ fontFamily: MONO }}>{piecesLine(rule.pieces)}</td>
          <td>{rule.scope}</td>
          <td style={{ whiteSpace: 'nowrap' }}>
            {canEdit && (
              <>
                <Act onClick={() => show({ name: 'rule', rule })}>Change</Act>{' '}
                <Act hint="Ask it earlier" disabled={n === 0} onClick={() => move(n)}>
                  ↑
                </Act>{' '}
                <Act onClick={() => void send({ kind: 'remove-number-rule', rule_id: rule.id })}>Remove</Act>
              </>
            )}
          </td>
        </tr>
      ))}
      <tr>
        <td>{data.rules.length + 1}</td>
        <td>
          <i>the project’s own pattern</i>
        </td>
        <td>all others</td>
        <td style={{ fontFamily: MONO }}>
          {data.own_pattern === 'line'
            ? 'line · 1…; sheet · “-” · 1… on sheets with zones'
            : 'sheet · “-” · 1…'}
        </td>
        <td>potential</td>
        <td />
      </tr>
    </Rows>
  )
}

function TagHead({ canEdit, show }: SectionProps) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mt: 3, mb: 1 }}>
      <Box component="h2" sx={{ fontSize: 15, m: 0, flex: 1 }}>
        Tags
      </Box>
      {canEdit && (
        <Button variant="outlined" onClick={() => show({ name: 'naming', rule: null, naming: NEW_RULE })}>
          Add a tag rule
        </Button>
      )}
      {canEdit && (
        <Button variant="outlined" onClick={() => show({ name: 'tags', rule: null })}>
          Number again
        </Button>
      )}
    </Box>
  )
}

function TagRules({ data, canEdit, show }: SectionProps) {
  const { send } = usePick('send')
  const places = usePlaces().data
  const codeOf = (table: 'functions' | 'locations', id: string) =>
    places?.[table].find((p) => p.id === id)?.name ?? ''
  return (
    <Rows label="Tag rules" columns={['Class', 'At', 'Letters', 'From', '']}>
      {data.tag_rules.map((rule) => (
        <tr key={rule.id}>
          <td>{data.letters.find((c) => c.id === rule.part_class)?.name ?? 'all'}</td>
          <td style={{ fontFamily: MONO }}>
            {[codeOf('functions', rule.function_id), codeOf('locations', rule.location_id)]
              .join(' ')
              .trim() || 'everywhere'}
          </td>
          <td style={{ fontFamily: MONO }}>{rule.letters || 'usual'}</td>
          <td>{rule.start || 1}</td>
          <td style={{ whiteSpace: 'nowrap' }}>
            {canEdit && (
              <>
                <Act onClick={() => show({ name: 'naming', rule: null, naming: rule })}>Change</Act>{' '}
                <Act onClick={() => void send(withoutRule(rule))}>Remove</Act>
              </>
            )}
          </td>
        </tr>
      ))}
    </Rows>
  )
}

function Letters({ data, canEdit }: SectionProps) {
  const { send } = usePick('send')
  const rename = (c: WiringHabits['letters'][number], letters: string) =>
    send({
      kind: 'put-tag-rule',
      part_class: c.id,
      function_id: '',
      location_id: '',
      letters: letters === c.usual ? '' : letters,
      start: c.start,
    })
  return (
    <Section title="Letters of the part classes">
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(150px, 1fr))', gap: 0.75 }}>
        {data.letters.map((c) => (
          <Field
            key={c.id}
            label={`${c.name}${c.own ? `, usually ${c.usual}` : ''}`}
            mono
            value={c.letters}
            disabled={!canEdit}
            onSave={(letters) => rename(c, letters)}
          />
        ))}
      </Box>
    </Section>
  )
}
