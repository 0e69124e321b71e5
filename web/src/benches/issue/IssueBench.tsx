/** The Issue bench: each document to look at and to take out, and the project file. */
import { paging, useCommands } from '../../project/commands'
import type { BenchProps } from '../../project/bench'
import FolderZipOutlinedIcon from '@mui/icons-material/FolderZipOutlined'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import Typography from '@mui/material/Typography'
import { DataGrid } from '@mui/x-data-grid'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useParams } from 'react-router'
import { client, got } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { useProject } from '../../project/store'
import { COPPER, LINE, MONO } from '../../theme/theme'
import { WhatChanged } from './WhatChanged'

const FORMATS = ['csv', 'xlsx', 'pdf'] as const

export function IssueBench({ outline }: BenchProps) {
  const { projectId = '' } = useParams()
  const revision = useProject((s) => s.revision)
  const [kind, setKind] = useState('wires')
  const path = { project_id: projectId }
  const base = `/api/projects/${projectId}`
  const list = useQuery({
    queryKey: ['reports', projectId],
    queryFn: () => got(client.GET('/api/projects/{project_id}/reports', { params: { path } })),
  })
  const table = useQuery({
    queryKey: ['rows', projectId, kind, revision],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/reports/{kind}/rows', { params: { path: { ...path, kind } } }),
      ),
    staleTime: 0,
    enabled: kind !== CHANGES,
  })
  const kinds = (list.data ?? []).map((r) => r.key)
  useCommands('Issue', paging('document', kinds, kind, setKind))
  return (
    <Box component="main" sx={{ flex: 1, display: 'flex', minWidth: 0 }}>
      <Side {...{ base, outline, kind, setKind }} reports={list.data ?? []} />
      <Box sx={{ flex: 1, minWidth: 0, p: 2.5, display: 'flex', flexDirection: 'column' }}>
        {kind === CHANGES ? (
          <WhatChanged projectId={projectId} />
        ) : (
          <Report {...{ base, kind }} data={table.data} waiting={table.isPending} />
        )}
      </Box>
    </Box>
  )
}

/** What is shown beside the reports that there are. */
const CHANGES = 'what changed'

/** A report to look at and to take out. */
function Report({ base, ...shown }: RowTableProps & { base: string }) {
  const { kind, data } = shown
  return (
    <>
      <Stack direction="row" spacing={1} sx={{ mb: 1.5, alignItems: 'center' }}>
        <Typography component="h1" variant="h6" sx={{ flex: 1 }}>
          {data?.title ?? 'Report'}
        </Typography>
        {FORMATS.map((f) => (
          <Button key={f} variant="outlined" href={`${base}/reports/${kind}/${f}`}>
            {f.toUpperCase()}
          </Button>
        ))}
      </Stack>
      <RowTable {...shown} />
      {(data?.foot ?? []).map((words) => (
        <Box key={words} role="note" sx={{ fontSize: 12.5, color: COPPER, mt: 0.5 }}>
          {words}
        </Box>
      ))}
    </>
  )
}

function Heading({ children }: { children: string }) {
  return (
    <Box
      sx={{
        fontSize: 11,
        fontWeight: 600,
        letterSpacing: 0.6,
        color: 'text.secondary',
        mt: 1.5,
        mb: 0.5,
        px: 1,
      }}
    >
      {children.toUpperCase()}
    </Box>
  )
}

interface SideProps {
  base: string
  outline: BenchProps['outline']
  reports: Schemas['ReportLine'][]
  kind: string
  setKind: (kind: string) => void
}

function Side({ base, outline, reports, kind, setKind }: SideProps) {
  const { sheets, pages } = outline
  return (
    <Box sx={{ width: 230, borderRight: `1px solid ${LINE}`, bgcolor: '#FBF8F1', p: 1.5, overflow: 'auto' }}>
      <Button
        variant="contained"
        href={`${base}/pack.zip`}
        fullWidth
        startIcon={<FolderZipOutlinedIcon />}
        title="Drawings, lists, plans, layouts, form boards, cut list and labels, with a page of contents"
      >
        Issue everything, ZIP
      </Button>
      <Heading>Revisions</Heading>
      <Reports
        reports={[
          { key: CHANGES, title: 'What changed', help: 'Since a project file that was taken out earlier' },
        ]}
        {...{ kind, setKind }}
      />
      <Heading>Reports</Heading>
      <Reports {...{ reports, kind, setKind }} />
      <Heading>Drawing</Heading>
      <Stack spacing={0.5} sx={{ alignItems: 'flex-start' }}>
        <Button href={`${base}/drawing.pdf`}>All sheets, PDF</Button>
        {sheets.map((s) => (
          <Button key={s.id} href={`${base}/drawing.pdf?sheet_id=${s.id}`} color="inherit">
            <span style={{ fontFamily: MONO, marginRight: 8 }}>{s.number}</span> {s.title}
          </Button>
        ))}
      </Stack>
      {pages.length > 0 && <Heading>Made from the model</Heading>}
      <Stack spacing={0.5} sx={{ alignItems: 'flex-start' }}>
        {pages.map((p) => (
          <Button key={p.id} href={`${base}/drawing.pdf?sheet_id=${p.id}`} color="inherit">
            <span style={{ fontFamily: MONO, marginRight: 8 }}>{p.number}</span> {p.title}
          </Button>
        ))}
      </Stack>
      <Heading>Project file</Heading>
      <Button href={`${base}/file`}>Take out .spool.json</Button>
    </Box>
  )
}

interface ReportsProps {
  reports: SideProps['reports']
  kind: string
  setKind: (kind: string) => void
}

function Reports({ reports, kind, setKind }: ReportsProps) {
  return (
    <>
      {reports.map((r) => (
        <Box
          key={r.key}
          component="button"
          onClick={() => setKind(r.key)}
          title={r.help}
          sx={{
            display: 'block',
            width: '100%',
            textAlign: 'left',
            font: 'inherit',
            border: 0,
            borderLeft: '3px solid',
            borderColor: r.key === kind ? COPPER : 'transparent',
            bgcolor: r.key === kind ? '#F3E3D6' : 'transparent',
            py: 0.6,
            px: 1,
            cursor: 'pointer',
          }}
        >
          {r.title}
        </Box>
      ))}
    </>
  )
}

interface RowTableProps {
  kind: string
  data: Schemas['ReportRows'] | undefined
  waiting: boolean
}

function RowTable({ kind, data, waiting }: RowTableProps) {
  const columns = data?.columns ?? []
  const rows = data?.rows ?? []
  return (
    <Box sx={{ flex: 1, minHeight: 0 }}>
      <DataGrid
        key={kind}
        rows={rows.map((cells, id) => ({
          id,
          ...Object.fromEntries(columns.map((c, i) => [c.key, cells[i]])),
        }))}
        columns={columns.map((c) => ({
          field: c.key,
          headerName: c.heading,
          flex: c.width,
          minWidth: 50,
        }))}
        loading={waiting}
        density="compact"
        hideFooter
        localeText={{ noRowsLabel: 'Nothing to list yet. Draw something first.' }}
        sx={{ bgcolor: '#fff', fontSize: 12.5 }}
      />
    </Box>
  )
}
