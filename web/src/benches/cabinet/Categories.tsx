/** Categories of wires to choose among. */
import Chip from '@mui/material/Chip'
import Stack from '@mui/material/Stack'

export const CATEGORIES = ['power', 'control-ac', 'control-dc', 'signal', 'pe', 'external'] as const
export type Category = (typeof CATEGORIES)[number]

interface Props {
  chosen: Category[]
  canEdit: boolean
  onChange: (chosen: Category[]) => void
}

export function Categories({ chosen, canEdit, onChange }: Props) {
  const toggle = (c: Category) =>
    onChange(chosen.includes(c) ? chosen.filter((one) => one !== c) : [...chosen, c])
  return (
    <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 0.5, my: 0.5 }}>
      {CATEGORIES.map((c) => (
        <Chip
          key={c}
          size="small"
          label={c}
          disabled={!canEdit}
          aria-pressed={chosen.includes(c)}
          color={chosen.includes(c) ? 'primary' : 'default'}
          variant={chosen.includes(c) ? 'filled' : 'outlined'}
          onClick={() => toggle(c)}
        />
      ))}
    </Stack>
  )
}
