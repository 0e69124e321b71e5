/** A length that is saved when its field is left: shown in the project's unit, typed in that or in one that is named. */
import { Field } from '../kit/Field'
import { lengthIn, lengthOf, noLength } from '../kit/lengths'
import { usePick } from './store'
import { useLengths } from './useLengths'

interface Props {
  /** The unit is put behind it. */
  label: string
  /** What stands behind the unit. */
  hint?: string
  /** In millimetres, or in metres where it is long. */
  value: number | undefined
  /** Whether it is counted in metres. */
  long?: boolean
  /** Whether nothing is the same as no length: an empty field. */
  mayLack?: boolean
  disabled?: boolean
  placeholder?: string
  onSave: (value: number) => void
}

export function LengthField({
  label,
  hint = '',
  value,
  long,
  mayLack,
  disabled,
  placeholder,
  onSave,
}: Props) {
  const { say } = usePick('say')
  const lengths = useLengths()
  const unit = long ? lengths.long : lengths.short
  const per = long ? 1000 : 1
  const lacks = value === undefined || (mayLack && !value)
  const save = (typed: string) => {
    const mm = mayLack && typed.trim() === '' ? 0 : lengthIn(typed, unit)
    if (mm === null) say(noLength(typed, unit), 'error')
    else onSave(mm / per)
  }
  return (
    <Field
      label={`${label}, ${unit}${hint}`}
      value={lacks ? '' : lengthOf(value * per, unit)}
      disabled={disabled ?? false}
      placeholder={placeholder ?? ''}
      onSave={save}
    />
  )
}
