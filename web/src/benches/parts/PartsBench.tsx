/** The Parts bench: the library, looked up by class, maker, rating and words. */
import Box from '@mui/material/Box'
import MenuItem from '@mui/material/MenuItem'
import Stack from '@mui/material/Stack'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { DataGrid, type GridColDef } from '@mui/x-data-grid'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { client, got, type PartOut } from '../../api/client'

const COLUMNS: GridColDef<PartOut>[] = [
  { field: 'number', headerName: 'Number', width: 160 },
  { field: 'maker', headerName: 'Maker', width: 130 },
  { field: 'class_name', headerName: 'Class', width: 150 },
  { field: 'text', headerName: 'Description', flex: 1, minWidth: 240 },
  {
    field: 'units',
    headerName: 'Units',
    width: 170,
    valueGetter: (_, row) =>
      Object.entries(row.units)
        .map(([kind, n]) => `${n} ${kind.length === 2 ? kind.toUpperCase() : kind}`)
        .join(', '),
  },
  {
    field: 'why',
    headerName: 'Matched by',
    width: 150,
    valueGetter: (_, row) => Object.keys(row.why).join(', ').replaceAll('_', ' '),
  },
]

export function PartsBench() {
  const [words, setWords] = useState('')
  const [cls, setCls] = useState('')
  const [maker, setMaker] = useState('')
  const [rating, setRating] = useState('')
  const classes = useQuery({ queryKey: ['classes'], queryFn: () => got(client.GET('/api/library/classes')) })
  const query = { q: words, part_class_key: cls, maker, rating, limit: 100 }
  const found = useQuery({
    queryKey: ['library', query],
    queryFn: () => got(client.GET('/api/library/parts', { params: { query } })),
    placeholderData: (before) => before,
  })
  const makers = [...new Set(found.data?.map((p) => p.maker) ?? []), ...(maker ? [maker] : [])]
  return (
    <Box component="main" sx={{ flex: 1, p: 2.5, display: 'flex', flexDirection: 'column', minWidth: 0 }}>
      <Typography component="h1" variant="h6" sx={{ mb: 1.5 }}>
        Library
      </Typography>
      <Stack direction="row" spacing={1} sx={{ mb: 1.5 }}>
        <TextField
          label="Words or part of a number"
          value={words}
          onChange={(e) => setWords(e.target.value)}
          sx={{ flex: 1 }}
        />
        <TextField
          select
          label="Class"
          value={cls}
          onChange={(e) => setCls(e.target.value)}
          sx={{ width: 200 }}
        >
          <MenuItem value="">all classes</MenuItem>
          {(classes.data as { key: string; name: string }[] | undefined)?.map((c) => (
            <MenuItem key={c.key} value={c.key}>
              {c.name}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Maker"
          value={maker}
          onChange={(e) => setMaker(e.target.value)}
          sx={{ width: 160 }}
        >
          <MenuItem value="">all makers</MenuItem>
          {[...new Set(makers)].sort().map((m) => (
            <MenuItem key={m} value={m}>
              {m}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          label="Rating"
          value={rating}
          onChange={(e) => setRating(e.target.value)}
          sx={{ width: 110 }}
        />
      </Stack>
      <Box sx={{ flex: 1, minHeight: 0 }}>
        <DataGrid
          rows={found.data ?? []}
          columns={COLUMNS}
          density="compact"
          hideFooter
          localeText={{ noRowsLabel: 'No part has all of this. Take a word away.' }}
          sx={{ bgcolor: '#fff', fontSize: 12.5 }}
        />
      </Box>
    </Box>
  )
}
