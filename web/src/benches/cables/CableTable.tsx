/** All cables as a table; the cores of those chosen, of all without a choice, are filled anew. */
import Box from '@mui/material/Box'
import { useMemo, useState } from 'react'
import { Grid } from '../../kit/Grid'
import type { Column } from '../../kit/gridData'
import { type Lengths } from '../../kit/lengths'
import { TableBar } from '../../kit/TableBar'
import { useLengths } from '../../project/useLengths'
import { QUIET, SNAG } from '../../theme/theme'
import { FillActs } from './FillActs'
import type { Cable } from './shapes'

const figure = (value: number, unit: string, digits = 1) => (value ? `${value.toFixed(digits)} ${unit}` : '')

const columnsOf = ({ saidLong }: Lengths): Column<Cable>[] => [
  { key: 'tag', name: 'Cable', width: 130, mono: true, text: (c) => c.tag },
  { key: 'text', name: 'Text', width: 150, text: (c) => c.text },
  { key: 'part', name: 'Part', width: 120, mono: true, text: (c) => c.part?.number ?? '' },
  { key: 'used', name: 'Used', width: 50, text: (c) => String(c.used) },
  { key: 'spare', name: 'Spare', width: 54, text: (c) => String(c.spare) },
  { key: 'source', name: 'From', width: 90, mono: true, text: (c) => c.source },
  { key: 'destination', name: 'To', width: 90, mono: true, text: (c) => c.destination },
  { key: 'length', name: 'Length', width: 70, text: (c) => (c.length ? saidLong(c.length) : '') },
  { key: 'drop', name: 'Drop', width: 64, text: (c) => figure(c.drop?.percent ?? 0, '%', 2) },
  {
    key: 'capacity',
    name: 'Carries',
    width: 70,
    text: (c) => figure(c.capacity?.carried_a ?? 0, 'A'),
    ink: (c) => (c.capacity?.enough === false ? SNAG : undefined),
  },
  { key: 'snags', name: 'Snags', width: 220, text: (c) => c.snags.join(' '), ink: () => SNAG },
]

interface Props {
  cables: Cable[]
  canEdit: boolean
  go: (id: string) => void
}

export function CableTable({ cables, canEdit, go }: Props) {
  const [picked, pick] = useState<Set<string>>(new Set())
  const acted = useMemo(() => cables.filter((c) => !picked.size || picked.has(c.id)), [cables, picked])
  const lengths = useLengths()
  const columns = useMemo(() => columnsOf(lengths), [lengths])
  const byHand = acted.some((c) => c.cores.some((core) => core.chosen))
  return (
    <>
      <TableBar>
        <span style={{ color: QUIET, fontSize: 12.5, whiteSpace: 'nowrap' }}>
          {picked.size ? `${picked.size} of ${cables.length} cables` : `All ${cables.length} cables`}
        </span>
        {canEdit && (
          <Box component="section" aria-label="Cores of these cables">
            <FillActs ids={acted.map((c) => c.id)} back={byHand ? 'All back in order' : ''} />
          </Box>
        )}
      </TableBar>
      <Grid
        name="All cables"
        rows={cables}
        columns={columns}
        selected={picked}
        onSelect={(ids) => pick(new Set(ids))}
        onOpen={(c) => go(c.id)}
      />
    </>
  )
}
