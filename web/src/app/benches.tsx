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
import { lazy, type ComponentType, type ReactNode } from 'react'
import type { BenchProps } from '../project/bench'

export interface Bench {
  path: string
  label: string
  icon: ReactNode
  Page: ComponentType<BenchProps>
}

type Loaded<N extends string> = Record<N, ComponentType<BenchProps>>
const fetched = <N extends string>(name: N, load: () => Promise<Loaded<N>>) =>
  lazy(async () => ({ default: (await load())[name] }))

export const BENCHES: Bench[] = [
  {
    path: 'brief',
    label: 'Brief',
    icon: <AssignmentOutlinedIcon />,
    Page: fetched('BriefBench', () => import('../benches/brief/BriefBench')),
  },
  {
    path: 'draw',
    label: 'Draw',
    icon: <GestureOutlinedIcon />,
    Page: fetched('DrawBench', () => import('../benches/draw/DrawBench')),
  },
  {
    path: 'parts',
    label: 'Parts',
    icon: <Inventory2OutlinedIcon />,
    Page: fetched('PartsBench', () => import('../benches/parts/PartsBench')),
  },
  {
    path: 'terminals',
    label: 'Terminals',
    icon: <ViewWeekOutlinedIcon />,
    Page: fetched('TerminalsBench', () => import('../benches/terminals/TerminalsBench')),
  },
  {
    path: 'cables',
    label: 'Cables',
    icon: <CableOutlinedIcon />,
    Page: fetched('CablesBench', () => import('../benches/cables/CablesBench')),
  },
  {
    path: 'io',
    label: 'I/O',
    icon: <InputOutlinedIcon />,
    Page: fetched('IoBench', () => import('../benches/io/IoBench')),
  },
  {
    path: 'cabinet',
    label: 'Cabinet',
    icon: <DoorFrontOutlinedIcon />,
    Page: fetched('CabinetBench', () => import('../benches/cabinet/CabinetBench')),
  },
  {
    path: 'harness',
    label: 'Harness',
    icon: <AccountTreeOutlinedIcon />,
    Page: fetched('HarnessBench', () => import('../benches/harness/HarnessBench')),
  },
  {
    path: 'snags',
    label: 'Snags',
    icon: <ReportProblemOutlinedIcon />,
    Page: fetched('SnagsBench', () => import('../benches/snags/SnagsBench')),
  },
  {
    path: 'issue',
    label: 'Issue',
    icon: <DownloadOutlinedIcon />,
    Page: fetched('IssueBench', () => import('../benches/issue/IssueBench')),
  },
  {
    path: 'make',
    label: 'Make',
    icon: <ContentCutOutlinedIcon />,
    Page: fetched('MakeBench', () => import('../benches/make/MakeBench')),
  },
]
