/** The benches in the order of the job; each is fetched when it is opened first. To add a bench, name it here. */
import AccountTreeOutlinedIcon from '@mui/icons-material/AccountTreeOutlined'
import AssignmentOutlinedIcon from '@mui/icons-material/AssignmentOutlined'
import CableOutlinedIcon from '@mui/icons-material/CableOutlined'
import ContentCutOutlinedIcon from '@mui/icons-material/ContentCutOutlined'
import DoorFrontOutlinedIcon from '@mui/icons-material/DoorFrontOutlined'
import DownloadOutlinedIcon from '@mui/icons-material/DownloadOutlined'
import GestureOutlinedIcon from '@mui/icons-material/GestureOutlined'
import InputOutlinedIcon from '@mui/icons-material/InputOutlined'
import Inventory2OutlinedIcon from '@mui/icons-material/Inventory2Outlined'
import ReportProblemOutlinedIcon from '@mui/icons-material/ReportProblemOutlined'
import ViewWeekOutlinedIcon from '@mui/icons-material/ViewWeekOutlined'
import Box from '@mui/material/Box'
import type { ComponentType, ReactNode } from 'react'
import { fetched, type Fetched } from '../kit/fetched'
import type { BenchProps } from '../project/bench'

export interface Bench {
  path: string
  label: string
  icon: ReactNode
  Page: Fetched<BenchProps>
}

const bench = (load: () => Promise<ComponentType<BenchProps>>) =>
  fetched(load, <Box sx={{ flex: 1 }} aria-busy />)

export const BENCHES: Bench[] = [
  {
    path: 'brief',
    label: 'Brief',
    icon: <AssignmentOutlinedIcon />,
    Page: bench(() => import('../benches/brief/BriefBench').then((m) => m.BriefBench)),
  },
  {
    path: 'draw',
    label: 'Draw',
    icon: <GestureOutlinedIcon />,
    Page: bench(() => import('../benches/draw/DrawBench').then((m) => m.DrawBench)),
  },
  {
    path: 'parts',
    label: 'Parts',
    icon: <Inventory2OutlinedIcon />,
    Page: bench(() => import('../benches/parts/PartsBench').then((m) => m.PartsBench)),
  },
  {
    path: 'terminals',
    label: 'Terminals',
    icon: <ViewWeekOutlinedIcon />,
    Page: bench(() => import('../benches/terminals/TerminalsBench').then((m) => m.TerminalsBench)),
  },
  {
    path: 'cables',
    label: 'Cables',
    icon: <CableOutlinedIcon />,
    Page: bench(() => import('../benches/cables/CablesBench').then((m) => m.CablesBench)),
  },
  {
    path: 'io',
    label: 'I/O',
    icon: <InputOutlinedIcon />,
    Page: bench(() => import('../benches/io/IoBench').then((m) => m.IoBench)),
  },
  {
    path: 'cabinet',
    label: 'Cabinet',
    icon: <DoorFrontOutlinedIcon />,
    Page: bench(() => import('../benches/cabinet/CabinetBench').then((m) => m.CabinetBench)),
  },
  {
    path: 'harness',
    label: 'Harness',
    icon: <AccountTreeOutlinedIcon />,
    Page: bench(() => import('../benches/harness/HarnessBench').then((m) => m.HarnessBench)),
  },
  {
    path: 'snags',
    label: 'Snags',
    icon: <ReportProblemOutlinedIcon />,
    Page: bench(() => import('../benches/snags/SnagsBench').then((m) => m.SnagsBench)),
  },
  {
    path: 'issue',
    label: 'Issue',
    icon: <DownloadOutlinedIcon />,
    Page: bench(() => import('../benches/issue/IssueBench').then((m) => m.IssueBench)),
  },
  {
    path: 'make',
    label: 'Make',
    icon: <ContentCutOutlinedIcon />,
    Page: bench(() => import('../benches/make/MakeBench').then((m) => m.MakeBench)),
  },
]
