/** A number among the project's settings, changed where it matters. */
import { makeEdit } from '../api/client'
import { usePick } from './store'
import { Field } from '../kit/Field'
import { LengthField } from './LengthField'
import { useOutline } from './useOutline'

type Name =
  | 'end_allowance_mm'
  | 'door_allowance_mm'
  | 'free_run_mm'
  | 'harness_allowance_mm'
  | 'length_step_mm'
  | 'spool_m'
  | 'spare_share_percent'
  | 'cable_allowance_m'
  | 'drop_warn_percent'
  | 'drop_limit_percent'
  | 'ambient_c'
  | 'comment_limit'
  | 'fill_warn_percent'
  | 'eyelet_reach_mm'

interface Props {
  name: Name
  /** Without the unit where it is a length. */
  label: string
  canEdit: boolean
}

export function Setting({ name, label, canEdit }: Props) {
  const { projectId, send, say } = usePick('projectId', 'send', 'say')
  const outline = useOutline(projectId)
  const value = outline.data?.settings[name] as number | undefined
  const set = (number: number) => send(makeEdit('change-settings', { [name]: number }))
  if (/_mm?$/.test(name)) {
    return <LengthField {...{ label, value, long: name.endsWith('_m'), disabled: !canEdit }} onSave={set} />
  }
  const save = (typed: string) => {
    const number = Number(typed.replace(',', '.'))
    if (typed.trim() === '' || Number.isNaN(number)) say(`“${typed}” is no number.`, 'error')
    else set(number)
  }
  return (
    <Field label={label} value={value === undefined ? '' : String(value)} disabled={!canEdit} onSave={save} />
  )
}
