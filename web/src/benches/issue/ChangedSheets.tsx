/** The drawings that changed: as a list, or one of them in both states over or beside each other. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useState } from 'react'
import { Link } from 'react-router'
import { Rows } from '../../kit/Rows'
import { useProject } from '../../project/store'
import { MONO, QUIET } from '../../theme/theme'
import { TwoStates, type View } from './TwoStates'
import type { Differences } from './shapes'

interface Props {
  sheets: Differences['sheets']
  since: string
  until: string
}

export function ChangedSheets({ sheets, since, until }: Props) {
  const [view, setView] = useState<View | 'list'>(since ? 'over' : 'list')
  const [chosen, setChosen] = useState('')
  const sheet = sheets.find((s) => s.sheet_id === chosen) ?? sheets[0]
  if (!sheets.length) return <Box sx={{ p: 3, color: QUIET }}>No drawing has changed.</Box>
  return (
    <>
      {since && (
        <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'center', p: 1, flexWrap: 'wrap' }}>
          <ToggleButtonGroup
            exclusive
            size="small"
            aria-label="How both states are shown"
            value={view}
            onChange={(_, v: View | 'list' | null) => v && setView(v)}
          >
            <ToggleButton value="over">Over each other</ToggleButton>
            <ToggleButton value="beside">Beside</ToggleButton>
            <ToggleButton value="list">List</ToggleButton>
          </ToggleButtonGroup>
          {view !== 'list' &&
            sheets.map((s) => (
              <Button
                key={s.sheet_id}
                size="small"
                variant={s === sheet ? 'contained' : 'outlined'}
                onClick={() => setChosen(s.sheet_id)}
              >
                Sheet {s.number} · {s.added + s.gone + s.other}
              </Button>
            ))}
        </Box>
      )}
      {view === 'list' || !sheet ? (
        <SheetList sheets={sheets} />
      ) : (
        <TwoStates sheetId={sheet.sheet_id} {...{ since, until, view }} />
      )}
    </>
  )
}

function SheetList({ sheets }: { sheets: Differences['sheets'] }) {
  const projectId = useProject((s) => s.projectId)
  return (
    <Rows label="Drawings" columns={['Sheet', 'New', 'Gone', 'Otherwise', '']}>
      {sheets.map((s) => (
        <tr key={s.sheet_id}>
          <td style={{ fontFamily: MONO }}>{s.number}</td>
          <td>{s.added}</td>
          <td>{s.gone}</td>
          <td>{s.other}</td>
          <td>{s.there && <Link to={`/p/${projectId}/draw/${s.sheet_id}`}>Look at it</Link>}</td>
        </tr>
      ))}
    </Rows>
  )
}
