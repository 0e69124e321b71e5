/** The trace of what is chosen: from the source to the load, each thing a click away, what is missing in red. */
import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { client, got, wordsOf } from '../../api/client'
import type { Trace } from '../../api/shapes'
import { Act, Acts } from '../../kit/Act'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'
import { useRevision } from '../../project/useRevision'
import { COPPER, LINE, MONO, QUIET } from '../../theme/theme'
import { useTools } from './store'

type Go = (id: string, sheet?: string) => void

const WRONG = '#B3261E'

export function TracePanel({ onGo }: { onGo: Go }) {
  const { projectId, sheetId, selection, set } = {
    ...usePick('projectId', 'sheetId', 'selection'),
    ...useTools('set'),
  }
  // What is lit is chosen then; the trace stays that of what was chosen first.
  const [of] = useState(() => [...selection][0] ?? '')
  const revision = useRevision()
  const found = useQuery({
    queryKey: ['trace', projectId, of, revision],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/trace', {
          params: { path: { project_id: projectId }, query: { id: of } },
        }),
      ),
    enabled: of !== '',
    placeholderData: (before) => before,
    retry: false,
  })
  const lit = found.data?.lit.find((sheet) => sheet.sheet_id === sheetId)
  useEffect(() => {
    if (lit) set({ selection: new Set(lit.ids), subject: '' })
  }, [lit, set])
  const end = <Act onClick={() => set({ panel: '', selection: new Set(of ? [of] : []) })}>End the trace</Act>
  if (!of)
    return (
      <Section title="Trace">
        Choose a load, a wire or a terminal first.<Acts>{end}</Acts>
      </Section>
    )
  if (found.error)
    return (
      <Section title="Trace">
        {wordsOf(found.error)}
        <Acts>{end}</Acts>
      </Section>
    )
  if (!found.data) return <Section title="Trace">Following the wires…</Section>
  const paper = `/api/projects/${projectId}/trace.pdf?inline=true&id=${encodeURIComponent(of)}`
  const acts = (
    <>
      <Act onClick={() => window.open(paper)}>On paper</Act>
      {end}
    </>
  )
  return <Found trace={found.data} sheetId={sheetId} onGo={onGo} end={acts} />
}

interface FoundProps {
  trace: Trace
  sheetId: string
  onGo: Go
  end: React.ReactNode
}

function Found({ trace, sheetId, onGo, end }: FoundProps) {
  return (
    <>
      <Section title={`Trace of ${trace.name}`}>
        <Box sx={{ fontSize: 12, color: QUIET, mb: 1 }}>
          {trace.facts ? `${trace.facts}. ` : ''}From the source to the load; a click goes there.
        </Box>
        <Box component="ol" aria-label="From the source to the load" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {trace.members.map((m, n) => (
            <Member key={n} {...{ m, onGo }} />
          ))}
        </Box>
      </Section>
      {trace.back.length > 0 && (
        <Section title="Back by">
          <Box component="ol" aria-label="From the load to the return" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {trace.back.map((m, n) => (
              <Member key={n} {...{ m, onGo }} />
            ))}
          </Box>
        </Section>
      )}
      {trace.earth && (
        <Section title="Protective conductor">
          <Box sx={{ fontFamily: MONO, fontSize: 12.5, overflowWrap: 'anywhere' }}>{trace.earth}</Box>
          <Box sx={{ fontSize: 12, fontWeight: 600, color: trace.earthed ? 'success.main' : WRONG }}>
            {trace.earthed ? 'comes to the earth' : 'comes to no earth'}
          </Box>
        </Section>
      )}
      {trace.closed.length > 0 && (
        <Section title="Carries when">
          <Box sx={{ fontFamily: MONO, fontSize: 12.5 }}>
            {trace.closed.map((words) => (
              <div key={words}>{words}</div>
            ))}
          </Box>
        </Section>
      )}
      <Sheets trace={trace} sheetId={sheetId} onGo={onGo} />
      <Acts>{end}</Acts>
    </>
  )
}

/** The sheets on which something is lit, but for the one that is shown. */
function Sheets({ trace, sheetId, onGo }: Omit<FoundProps, 'end'>) {
  const others = trace.lit.filter((sheet) => sheet.sheet_id !== sheetId)
  if (!others.length) return null
  return (
    <Section title="Lit on other sheets">
      <Acts>
        {others.map((sheet) => (
          <Act key={sheet.sheet_id} onClick={() => onGo(sheet.ids[0]!, sheet.sheet_id)}>
            {sheet.number}
          </Act>
        ))}
      </Acts>
    </Section>
  )
}

/** The wires that lead to a member from the one before it, between both as on the way. */
function Led({ by }: { by: string }) {
  return (
    <Box
      sx={{ display: 'flex', alignItems: 'center', gap: 1, pl: 1.5, pb: 0.5, fontSize: 11.5, color: QUIET }}
    >
      <Box sx={{ width: 2, height: 14, bgcolor: COPPER }} />
      {by}
    </Box>
  )
}

function Member({ m, onGo }: { m: Trace['members'][number]; onGo: Go }) {
  return (
    <Box component="li" sx={{ mb: 0.5 }}>
      {m.by && <Led by={m.by} />}
      <ButtonBase
        disabled={!m.symbol_id}
        onClick={() => onGo(m.symbol_id, m.sheet_id)}
        sx={{
          ...{ display: 'block', width: '100%', textAlign: 'left', px: 1, py: 0.5, borderRadius: 1 },
          ...{
            border: `1px solid ${m.missing ? WRONG : LINE}`,
            bgcolor: m.missing ? '#FCE9E7' : 'background.paper',
          },
        }}
      >
        <Box sx={{ display: 'flex', gap: 1, fontSize: 11.5, color: m.missing ? WRONG : QUIET }}>
          <Box sx={{ flex: 1 }}>{m.role}</Box>
          <Box sx={{ fontFamily: MONO, color: COPPER }}>{m.place}</Box>
        </Box>
        <Box
          sx={{
            fontFamily: MONO,
            fontSize: 12.5,
            fontWeight: 600,
            color: m.missing ? WRONG : 'text.primary',
            overflowWrap: 'anywhere',
          }}
        >
          {m.name}
        </Box>
        {m.facts && <Box sx={{ fontSize: 11.5, color: m.missing ? WRONG : QUIET }}>{m.facts}</Box>}
        {m.so_far && <Box sx={{ fontSize: 11.5, color: QUIET }}>{m.so_far} drop so far</Box>}
      </ButtonBase>
    </Box>
  )
}
