/** A layout proposed: what it would change, in figures; looked at, taken or left. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useQuery } from '@tanstack/react-query'
import { client, got } from '../../api/client'
import { Section } from '../../kit/Section'
import { useProject, usePick } from '../../project/store'
import { MONO, QUIET, SNAG } from '../../theme/theme'
import type { EnclosureValue } from './shapes'
import type { State } from './useCabinet'

/** What is proposed for an enclosure, asked while somebody wants to see it. */
export function useProposal(enclosure: EnclosureValue | null | undefined, state: State) {
  const { projectId, revision } = usePick('projectId', 'revision')
  const { rail, duct } = state.parts
  const id = enclosure?.id ?? ''
  return useQuery({
    queryKey: ['proposal', projectId, revision, id, rail, duct],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/cabinet/{enclosure_id}/proposal', {
          params: { path: { project_id: projectId, enclosure_id: id }, query: { rail, duct } },
        }),
      ),
    enabled: state.proposing && id !== '',
  })
}

export type Proposed = ReturnType<typeof useProposal>

interface Props {
  enclosure: EnclosureValue
  state: State
  proposed: Proposed
}

export function ProposalPanel({ enclosure, state, proposed }: Props) {
  const { data, isPending } = proposed
  const leave = () => {
    state.setProposing(false)
    state.setLooking(false)
  }
  const take = async () => {
    const { rail, duct } = state.parts
    const edit = { enclosure_id: enclosure.id, rail_part_id: rail, duct_part_id: duct }
    if (await useProject.getState().send({ kind: 'lay-out', ...edit })) leave()
  }
  return (
    <Section title="Proposal">
      <Box sx={{ border: '1px solid #F0CBA8', bgcolor: '#FFF6EA', borderRadius: 1, p: 1 }}>
        {isPending && <Box sx={{ color: QUIET }}>Working it out…</Box>}
        {data?.problem && <Box sx={{ color: SNAG, fontSize: 12.5 }}>{data.problem}</Box>}
        {data && !data.problem && (
          <Box component="table" aria-label="Proposal" sx={{ width: '100%', fontSize: 12.5 }}>
            <tbody>
              {data.rows.map((r) => (
                <tr key={r.name}>
                  <td>{r.name}</td>
                  <td style={{ fontFamily: MONO, textAlign: 'right', whiteSpace: 'nowrap', fontSize: 11.5 }}>
                    {r.before} → <b>{r.after}</b>
                  </td>
                </tr>
              ))}
            </tbody>
          </Box>
        )}
        {data?.remarks.map((words) => (
          <Box key={words} sx={{ fontSize: 12, color: SNAG }}>
            {words}
          </Box>
        ))}
        {data && !data.problem && (
          <>
            <Button
              onClick={() => {
                state.setLook('plate')
                state.setLooking(!state.looking)
              }}
            >
              {state.looking ? 'As it is' : 'Look'}
            </Button>
            <Button onClick={() => void take()}>Take</Button>
          </>
        )}
        <Button color="inherit" onClick={leave}>
          Leave
        </Button>
      </Box>
      <Box sx={{ fontSize: 12, color: QUIET, mt: 0.5 }}>
        Rows by kind and circuit, devices moved about to shorten the wires. One Undo takes it back.
      </Box>
    </Section>
  )
}
