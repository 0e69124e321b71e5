/** The point of the walk in hand: set it in the field, see it at the card, tick it or say what is wrong; and signing. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { Act, Acts } from '../../kit/Act'
import { FormDialog } from '../../kit/FormDialog'
import { Section } from '../../kit/Section'
import { TagChip } from '../../kit/TagChip'
import type { Command } from '../../project/commands'
import { COPPER, MONO, QUIET, SNAG, TEAL } from '../../theme/theme'
import { resultOf, type Checking, type CheckRow } from './useCheck'

export function checkCommands(check: Checking, canEdit: boolean): Command[] {
  const change = () => canEdit && check.row !== undefined
  const { row } = check
  return [
    { id: 'next-point', label: 'Next point', shortcut: 'ArrowDown', run: () => check.go(1), reads: true },
    { id: 'last-point', label: 'Point before', shortcut: 'ArrowUp', run: () => check.go(-1), reads: true },
    {
      id: 'set',
      label: 'Set or reset it in the field',
      shortcut: 'T',
      run: () => check.set(row?.value ? 0 : 1),
      enabled: change,
    },
    { id: 'good', label: 'It is good', shortcut: 'Enter', run: () => check.see('good'), enabled: change },
    { id: 'give', label: 'Give the PLC the list', shortcut: 'P', run: check.give, enabled: change },
  ]
}

export function CheckPanel({ check, canEdit }: { check: Checking; canEdit: boolean }) {
  const { row } = check
  return (
    <>
      {row && <InHand {...{ check, row, canEdit }} />}
      {check.view && <Signed {...{ check, canEdit }} />}
    </>
  )
}

function InHand({ check, row, canEdit }: { check: Checking; row: CheckRow; canEdit: boolean }) {
  const result = resultOf(row)
  return (
    <>
      <Box>
        <TagChip tag={row.tag} /> <b style={{ fontFamily: MONO, color: TEAL }}>{row.address}</b>
        <Box sx={{ fontSize: 12.5, mt: 0.5 }}>{row.text}</Box>
        <Box sx={{ fontSize: 12.5, color: QUIET }}>
          {row.card} pin {row.pins}
        </Box>
      </Box>
      <Field {...{ check, row, canEdit }} />
      <Section title="What was seen">
        {result && (
          <Box sx={{ fontSize: 12.5, mb: 0.5 }}>
            <b style={{ color: result === 'good' ? TEAL : result === 'fault' ? SNAG : COPPER }}>{result}</b>{' '}
            {row.remark} <span style={{ color: QUIET }}>{[row.by, row.on].filter(Boolean).join(', ')}</span>
          </Box>
        )}
        {canEdit && (
          <>
            <TextField
              {...{ label: 'Remark', fullWidth: true, margin: 'dense', value: check.remark }}
              onChange={(e) => check.setRemark(e.target.value)}
            />
            <Acts>
              <Act hint="Enter" onClick={() => check.see('good')}>
                Good, next
              </Act>
              <Act disabled={!check.remark.trim()} onClick={() => check.see('fault')}>
                Fault, next
              </Act>
              {row.result && <Act onClick={() => check.see('')}>Take back</Act>}
            </Acts>
          </>
        )}
      </Section>
    </>
  )
}

/** Setting the point where it is wired, and what the PLC shows at its address. */
function Field({ check, row, canEdit }: { check: Checking; row: CheckRow; canEdit: boolean }) {
  const [typed, setTyped] = useState('')
  const analog = row.io_type === 'AI' || row.io_type === 'AO'
  const output = row.io_type === 'DO' || row.io_type === 'AO'
  const other = row.seen !== '' && row.seen !== row.tag
  return (
    <Section title={output ? 'Set at the card, seen in the field' : 'Set in the field, seen at the card'}>
      {canEdit && (
        <Acts>
          {analog ? (
            <>
              <TextField
                {...{ label: 'Raw value', value: typed, margin: 'dense' }}
                sx={{ width: 110 }}
                onChange={(e) => setTyped(e.target.value)}
              />
              <Act
                disabled={!/^-?\d+$/.test(typed.trim())}
                onClick={() => check.set(Number.parseInt(typed, 10))}
              >
                Set
              </Act>
            </>
          ) : (
            <>
              <Act hint="T" onClick={() => check.set(1)}>
                On
              </Act>
              <Act hint="T" onClick={() => check.set(0)}>
                Off
              </Act>
            </>
          )}
        </Acts>
      )}
      <Box aria-label="Seen" sx={{ fontSize: 12.5, fontFamily: MONO, color: other ? SNAG : undefined }}>
        {row.value === null ? 'The PLC has no such channel.' : `${row.address} ${row.seen} = ${row.value}`}
      </Box>
      {other && (
        <Box sx={{ fontSize: 12.5, color: SNAG }}>
          It is {row.tag} in the project. Give the PLC the list as it is now.
        </Box>
      )}
    </Section>
  )
}

function Signed({ check, canEdit }: { check: Checking; canEdit: boolean }) {
  const [form, open] = useState(false)
  return (
    <Section title="Signed">
      {check.view!.signatures.map((s) => (
        <Box key={s.id} sx={{ fontSize: 12.5, mb: 0.5 }}>
          <b>{s.by}</b> {s.on} {s.remark}{' '}
          <span style={{ color: s.current ? TEAL : COPPER }}>
            {s.current ? 'as it stands' : 'changed since'}
          </span>{' '}
          {canEdit && <Act onClick={() => check.unsign(s.id)}>Take back</Act>}
        </Box>
      ))}
      {!check.view!.signatures.length && (
        <Box sx={{ fontSize: 12.5, color: QUIET }}>Nobody has signed this check yet.</Box>
      )}
      {canEdit && (
        <Button
          variant="outlined"
          disabled={!check.rows.some((r) => r.result && !r.anew)}
          onClick={() => open(true)}
        >
          Sign…
        </Button>
      )}
      {form && <SignForm check={check} close={() => open(false)} />}
    </Section>
  )
}

function SignForm({ check, close }: { check: Checking; close: () => void }) {
  const [by, setBy] = useState(check.name)
  const [words, setWords] = useState('')
  const waiting = check.rows.filter((r) => !resultOf(r) || r.anew).length
  const faults = check.rows.filter((r) => resultOf(r) === 'fault').length
  return (
    <FormDialog
      title="Sign the wiring check"
      act="Sign"
      enabled={by.trim() !== ''}
      close={close}
      onAct={() => void check.sign(by, words).then((answer) => answer && close())}
    >
      <TextField
        {...{ label: 'Who signs', fullWidth: true, margin: 'dense', value: by }}
        onChange={(e) => setBy(e.target.value)}
      />
      <TextField
        {...{ label: 'Remark', fullWidth: true, margin: 'dense', value: words }}
        onChange={(e) => setWords(e.target.value)}
      />
      <p style={{ fontSize: 12.5 }}>
        {check.rows.length - waiting - faults} of {check.rows.length} points are good
        {faults ? `, ${faults} have a fault` : ''}
        {waiting ? `, ${waiting} were not looked at` : ''}. What changes later is told beside the signature.
      </p>
    </FormDialog>
  )
}
