/** Choosing a library part of a class from a short list; what is typed narrows it. */
import Autocomplete from '@mui/material/Autocomplete'
import Box from '@mui/material/Box'
import TextField from '@mui/material/TextField'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { client, got, type PartOut } from '../api/client'
import { MONO } from '../theme/theme'

interface Props {
  label: string
  partClass: string
  value?: string
  /** Conditions on its facts, as the library search takes them: "terminal_kind=earth". */
  filters?: string
  onChoose: (part: PartOut) => void
}

export function PartChoice({ label, partClass, value, filters = '', onChoose }: Props) {
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
  const options = found.data ?? []
  return (
    <Autocomplete
      size="small"
      options={options}
      value={options.find((p) => p.id === value || p.number === value) ?? null}
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
