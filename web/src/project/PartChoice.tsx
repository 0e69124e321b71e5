/** Choosing a library part of a class from a short list; what is typed narrows it. */
import Autocomplete from '@mui/material/Autocomplete'
import Box from '@mui/material/Box'
import TextField from '@mui/material/TextField'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { client, got, type PartOut } from '../api/client'
import { MONO } from '../theme/theme'

/** The facts by which a part is chosen. */
export type ShortPart = Pick<PartOut, 'id' | 'number' | 'text'>

interface Props {
  label: string
  partClass: string
  value?: string
  /** The part of that value where it is known: it is shown though it is not among the first of its class. */
  now?: ShortPart | null | undefined
  /** Conditions on its facts, as the library search takes them: "terminal_kind=earth". */
  filters?: string
  onChoose: (part: ShortPart) => void
}

export function PartChoice({ label, partClass, value, now, filters = '', onChoose }: Props) {
  const [words, setWords] = useState('')
  const found = useQuery({
    queryKey: ['parts-of', partClass, words, filters],
    queryFn: () =>
      got(
        client.GET('/api/library/parts', {
          params: { query: { q: words, part_class_key: partClass, filters, limit: 40 } },
        }),
      ),
    placeholderData: (before) => before,
  })
  const first: ShortPart[] = found.data ?? []
  const options = now && !words && !first.some((p) => p.id === now.id) ? [now, ...first] : first
  const chosen = options.find((p) => p.id === value || p.number === value) ?? (now?.id === value ? now : null)
  return (
    <Autocomplete
      size="small"
      options={options}
      value={chosen ?? null}
      getOptionLabel={(p) => p.number}
      isOptionEqualToValue={(a, b) => a.id === b.id}
      filterOptions={(all) => all}
      onInputChange={(_, typed, why) => setWords(why === 'input' ? typed : '')}
      onChange={(_, part) => part && onChoose(part)}
      renderInput={(params) => <TextField {...params} label={label} margin="dense" />}
      renderOption={(props, part) => (
        <Box component="li" {...props} key={part.id} sx={{ display: 'block !important', fontSize: 12.5 }}>
          <b style={{ fontFamily: MONO }}>{part.number}</b>
          <div>{part.text}</div>
        </Box>
      )}
    />
  )
}
