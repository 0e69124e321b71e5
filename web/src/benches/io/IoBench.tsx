/** The I/O bench: the list of points, their channels, the address map, and what is needed. */
import DownloadIcon from '@mui/icons-material/Download'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import Tooltip from '@mui/material/Tooltip'
import { useState } from 'react'
import { Bench, Empty } from '../../kit/Bench'
import { TableBar } from '../../kit/TableBar'
import type { BenchProps } from '../../project/bench'
import { useCommands } from '../../project/commands'
import { usePick } from '../../project/store'
import { AddressMap } from './AddressMap'
import { Allocate } from './Allocate'
import { goingCommands, ioCommands } from './commands'
import { DemandList } from './DemandList'
import { Forms } from './Forms'
import { IoPanel } from './IoPanel'
import { PointFile } from './PointFile'
import { PointTable } from './PointTable'
import { checkCommands, CheckPanel } from './CheckPanel'
import { useCheck } from './useCheck'
import { WiringCheck } from './WiringCheck'
import { useAllocating } from './useAllocating'
import { useIo, useMap, type Io, type Page } from './useIo'

export function IoBench({ canEdit }: BenchProps) {
  const io = useIo()
  const doing = useAllocating(io)
  const [filter, setFilter] = useState('')
  const check = useCheck(io.page === 'check')
  useCommands(
    'I/O',
    io.page === 'check'
      ? [...goingCommands(io, canEdit), ...checkCommands(check, canEdit)]
      : ioCommands(io, doing, canEdit),
  )
  const { view, page } = io
  if (!view) return <Empty>Reading the points…</Empty>
  const panel = <IoPanel {...{ io, view, canEdit, doing }} />
  const inspector =
    page === 'check' ? <CheckPanel {...{ check, canEdit }} /> : page === 'bring' ? null : panel
  return (
    <Bench name="I/O" list={<DemandList {...{ io, view, canEdit }} />} inspector={inspector}>
      <TopBar {...{ io, filter, setFilter, canEdit }} />
      {page === 'bring' && <PointFile done={() => io.go('list')} />}
      {page === 'allocate' && <Allocate {...{ io, view, filter, canEdit, doing }} />}
      {page === 'map' && <Map io={io} />}
      {page === 'check' && <WiringCheck check={check} canEdit={canEdit} />}
      {page === 'list' &&
        (view.points.length ? (
          <PointTable {...{ view, filter, canEdit }} chosen={io.chosen} choose={io.choose} />
        ) : (
          <Empty>
            No point yet. Bring in a list from a spreadsheet with <kbd>L</kbd>, or add a point with{' '}
            <kbd>Insert</kbd>.
          </Empty>
        ))}
      <Forms io={io} view={view} />
    </Bench>
  )
}

function Map({ io }: { io: Io }) {
  const spaces = useMap()
  return <AddressMap spaces={spaces} chosen={io.chosen} onPick={(id) => io.choose(new Set([id]))} />
}

interface BarProps {
  io: Io
  filter: string
  setFilter: (words: string) => void
  canEdit: boolean
}

const plain = { whiteSpace: 'nowrap', minWidth: 0, px: 1 } as const

function TopBar({ io, filter, setFilter, canEdit }: BarProps) {
  return (
    <TableBar>
      <ToggleButtonGroup
        exclusive
        size="small"
        aria-label="What is shown"
        value={io.page}
        onChange={(_, page: Page | null) => page && io.go(page)}
      >
        <ToggleButton value="list">List</ToggleButton>
        <ToggleButton value="allocate">Allocate</ToggleButton>
        <ToggleButton value="map">Map</ToggleButton>
        <ToggleButton value="check">Check</ToggleButton>
      </ToggleButtonGroup>
      {(io.page === 'list' || io.page === 'allocate') && (
        <TextField
          placeholder="DI +KF2 hatch"
          slotProps={{ htmlInput: { 'aria-label': 'Filter' } }}
          value={filter}
          onChange={(e) => setFilter(e.target.value)}
          sx={{ width: 150, minWidth: 100, flexShrink: 1 }}
        />
      )}
      <span style={{ flex: 1 }} />
      {canEdit && <Changing io={io} />}
      <Tooltip title="Send the list out as a spreadsheet">
        <IconButton
          size="small"
          component="a"
          href={`/api/projects/${io.projectId}/points.xlsx`}
          download
          aria-label="Send out"
        >
          <DownloadIcon fontSize="small" />
        </IconButton>
      </Tooltip>
    </TableBar>
  )
}

/** What changes the list and the cards. */
function Changing({ io }: { io: Io }) {
  const { send } = usePick('send')
  const behind = io.view?.cards.some((c) => c.changes > 0)
  return (
    <>
      {Boolean(io.view?.drawn.length) && (
        <Button sx={plain} onClick={() => void send({ kind: 'collect-points', symbol_ids: [] })}>
          Take in {io.view?.drawn.length} drawn
        </Button>
      )}
      {io.page === 'list' && (
        <Button sx={plain} onClick={() => io.open('point')}>
          Add a point
        </Button>
      )}
      {io.page !== 'bring' && io.page !== 'check' && (
        <>
          {/* Beside the list there is room for one of them: drawing again draws what is new, too. */}
          {!(behind && io.page === 'list') && (
            <>
              <Button sx={plain} onClick={() => io.open('address')}>
                Address cards…
              </Button>
              <Button sx={plain} onClick={() => io.open('draw')}>
                Draw…
              </Button>
            </>
          )}
          {behind && (
            <Button sx={plain} onClick={() => io.open('again')}>
              Draw again…
            </Button>
          )}
          <Button sx={plain} variant="outlined" onClick={() => io.go('bring')}>
            Bring in…
          </Button>
        </>
      )}
    </>
  )
}
