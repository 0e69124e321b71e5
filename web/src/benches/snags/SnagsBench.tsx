/** The Snags bench: what the checks found in the whole project, what was muted and why, and what nobody would notice. */
import { useCommands } from '../../project/commands'
import { snagCommands, type Which } from './commands'
import { UnseenFaults } from './UnseenFaults'
import { SnagTable, type Row } from './SnagTable'
import type { BenchProps } from '../../project/bench'
import Box from '@mui/material/Box'
import Tab from '@mui/material/Tab'
import Tabs from '@mui/material/Tabs'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { useParams } from 'react-router'
import { client, got } from '../../api/client'
import { useBench } from '../../project/useBench'
import { MuteLine } from '../../project/MuteLine'

export function SnagsBench({ canEdit }: BenchProps) {
  const { projectId = '' } = useParams()
  const [tab, setTab] = useState<Which>('open')
  const [muting, setMuting] = useState<Row | null>(null)
  const found = useBench('snags', () =>
    got(client.GET('/api/projects/{project_id}/snags', { params: { path: { project_id: projectId } } })),
  )
  useCommands('Snags', snagCommands(setTab))
  return (
    <Box component="main" sx={{ flex: 1, p: 2.5, display: 'flex', flexDirection: 'column', minWidth: 0 }}>
      <Typography component="h1" variant="h6">
        Snags of the project
      </Typography>
      <WhichTabs
        tab={tab}
        setTab={setTab}
        open={found.data?.open.filter((s) => !s.cause).length}
        muted={found.data?.muted.length}
      />
      {muting && <MuteLine key={muting.key} snag={muting} close={() => setMuting(null)} />}
      {tab === 'unseen' ? (
        <UnseenFaults projectId={projectId} />
      ) : (
        <SnagTable
          tab={tab}
          snags={found.data}
          loading={found.isPending}
          canEdit={canEdit}
          mute={setMuting}
        />
      )}
    </Box>
  )
}

interface WhichProps {
  tab: Which
  setTab: (tab: Which) => void
  open: number | undefined
  muted: number | undefined
}

function WhichTabs({ tab, setTab, open, muted }: WhichProps) {
  return (
    <Tabs value={tab} onChange={(_, value: Which) => setTab(value)} sx={{ minHeight: 38, mb: 1 }}>
      <Tab value="open" label={`Open ${open ?? ''}`} sx={{ minHeight: 38, textTransform: 'none' }} />
      <Tab value="muted" label={`Muted ${muted ?? ''}`} sx={{ minHeight: 38, textTransform: 'none' }} />
      <Tab value="unseen" label="Would anybody notice?" sx={{ minHeight: 38, textTransform: 'none' }} />
    </Tabs>
  )
}
