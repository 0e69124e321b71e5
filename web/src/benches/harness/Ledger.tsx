/** The tables under the picture: wires, segments, connectors, coverings. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Tab from '@mui/material/Tab'
import Tabs from '@mui/material/Tabs'
import { useState } from 'react'
import { makeEdit } from '../../api/client'
import { LongRows } from '../../kit/LongRows'
import { Rows } from '../../kit/Rows'
import { usePick } from '../../project/store'
import { useLengths } from '../../project/useLengths'
import { LINE, MONO, QUIET, SNAG } from '../../theme/theme'
import type { HarnessValue } from './shapes'
import { WireEntry } from './WireEntry'
import { WireGrid } from './WireGrid'

interface Props {
  harness: HarnessValue
  selected: string
  canEdit: boolean
  onSelect: (id: string) => void
  /** The wires chosen, by their keys. */
  chosen: Set<string>
  onChoose: (keys: Set<string>) => void
}

type Table = 'wires' | 'segments' | 'connectors' | 'coverings'
const CODE = { fontFamily: MONO } as const

export function Ledger({ harness, selected, canEdit, onSelect, chosen, onChoose }: Props) {
  const [table, show] = useState<Table>('wires')
  const [pasted, setPasted] = useState<string | null>(null)
  return (
    <Box
      component="section"
      aria-label="Ledger"
      sx={{
        height: 230,
        borderTop: `1px solid ${LINE}`,
        bgcolor: '#fff',
        display: 'flex',
        flexDirection: 'column',
      }}
    >
      <Tabs
        value={table}
        onChange={(_, v: Table) => show(v)}
        sx={{ minHeight: 34, '& .MuiTab-root': { minHeight: 34, py: 0 } }}
      >
        <Tab value="wires" label={`Wires ${harness.wires.length}`} />
        <Tab value="segments" label={`Segments ${harness.segments.length}`} />
        <Tab value="connectors" label={`Connectors ${harness.connectors.length}`} />
        <Tab value="coverings" label={`Coverings ${harness.coverings.length}`} />
      </Tabs>
      {table === 'wires' && (
        <>
          <WireGrid {...{ harness, canEdit, chosen, onChoose }} />
          {canEdit && <PasteHere onPaste={setPasted} />}
        </>
      )}
      {pasted !== null && (
        <WireEntry harnessId={harness.id} code={harness.code} first={pasted} close={() => setPasted(null)} />
      )}
      {table === 'segments' && <SegmentRows {...{ harness, selected, onSelect }} />}
      {table === 'connectors' && <ConnectorRows {...{ harness, canEdit }} />}
      {table === 'coverings' && <CoveringRows {...{ harness, selected, onSelect }} />}
    </Box>
  )
}

/** Where rows of a spreadsheet are pasted, or the form for them is opened. */
function PasteHere({ onPaste }: { onPaste: (text: string) => void }) {
  return (
    <Box
      component="button"
      type="button"
      onClick={() => onPaste('')}
      onPaste={(e) => {
        e.preventDefault()
        onPaste(e.clipboardData.getData('text/plain'))
      }}
      sx={{
        font: 'inherit',
        fontSize: 12.5,
        textAlign: 'left',
        border: 0,
        borderTop: `1px solid ${LINE}`,
        bgcolor: '#fff',
        color: QUIET,
        px: 1,
        py: 0.75,
        cursor: 'pointer',
        '&:focus': { outline: `2px solid ${LINE}` },
      }}
    >
      Paste rows here, or type them: signal, colour, mm², from, to, twisted, shield
    </Box>
  )
}

const nodeName = (harness: HarnessValue, id: string) => harness.nodes.find((n) => n.id === id)?.name

const chosenStyle = (chosen: boolean) => ({
  cursor: 'pointer',
  background: chosen ? '#F5E2D3' : undefined,
})

type RowsProps = Pick<Props, 'harness' | 'selected' | 'onSelect'>

function SegmentRows({ harness, selected, onSelect }: RowsProps) {
  const { said, short } = useLengths()
  return (
    <LongRows
      label="Segments"
      columns={['From', 'To', 'Length', 'Path', 'Tightest bend', 'Wires', 'Bundle']}
      rows={harness.segments}
    >
      {(s) => (
        <tr
          key={s.id}
          onClick={() => onSelect(s.id)}
          aria-selected={s.id === selected}
          style={chosenStyle(s.id === selected)}
        >
          <td style={CODE}>{nodeName(harness, s.a)}</td>
          <td style={CODE}>{nodeName(harness, s.b)}</td>
          <td style={{ color: s.missing ? SNAG : undefined }} title={s.missing}>
            {s.words} {short}
          </td>
          <td>{s.form}</td>
          <td style={{ color: s.too_tight ? SNAG : undefined }}>
            {s.bend_mm === null ? '' : said(s.bend_mm)}
          </td>
          <td>{s.wires}</td>
          <td title={s.packed ? 'Found by packing its wires' : '1.2 × the root of the sum of squares'}>
            ⌀ {said(s.diameter_mm)}
          </td>
        </tr>
      )}
    </LongRows>
  )
}

function ConnectorRows({ harness, canEdit }: Pick<Props, 'harness' | 'canEdit'>) {
  const { said } = useLengths()
  const { send } = usePick('send')
  const rows = harness.connectors.flatMap((c) => c.cavities.map((v) => ({ ...v, id: c.id, tag: c.tag })))
  return (
    <LongRows
      label="Connectors"
      columns={['Connector', 'Cavity', 'Wire', 'To', 'Contact', 'Strip', 'Seal', '']}
      rows={rows}
    >
      {(v) => (
        <tr key={v.id + v.cavity}>
          <td style={CODE}>{v.tag}</td>
          <td style={CODE}>{v.cavity}</td>
          <td style={CODE}>{v.wires.join(', ')}</td>
          <td style={{ ...CODE, color: v.to.length ? undefined : QUIET }}>{v.to.join(', ') || 'empty'}</td>
          <td style={CODE}>{v.to.length ? v.contact : ''}</td>
          <td>{v.to.length ? said(v.strip_mm) : ''}</td>
          <td style={CODE}>{v.seal}</td>
          <td>
            {v.crowded && canEdit && (
              <Button
                sx={{ py: 0 }}
                onClick={() => void send(makeEdit('splice-cavity', { device_id: v.id, cavity: v.cavity }))}
              >
                Join them in a splice
              </Button>
            )}
          </td>
        </tr>
      )}
    </LongRows>
  )
}

function CoveringRows({ harness, selected, onSelect }: RowsProps) {
  const { said } = useLengths()
  return (
    <Box sx={{ flex: 1, overflow: 'auto' }}>
      <Rows label="Coverings" columns={['Part', 'Description', 'Over', 'From', 'To', 'Length', 'Takes']}>
        {harness.coverings.map((c) => {
          const segment = harness.segments.find((s) => s.id === c.segment_id)
          const id = `covering:${c.id}`
          return (
            <tr
              key={c.id}
              onClick={() => onSelect(id)}
              aria-selected={id === selected}
              style={chosenStyle(id === selected)}
            >
              <td style={CODE}>{c.part || 'no part yet'}</td>
              <td>{c.text}</td>
              <td style={CODE}>
                {segment && `${nodeName(harness, segment.a)} to ${nodeName(harness, segment.b)}`}
              </td>
              {[c.from_mm, c.to_mm, c.length_mm, c.used_mm].map((mm, n) => (
                <td key={n}>{said(mm)}</td>
              ))}
            </tr>
          )
        })}
      </Rows>
    </Box>
  )
}
