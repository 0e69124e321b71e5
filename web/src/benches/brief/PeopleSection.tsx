/** Who works in the project: roles, invitations, who is here now and on which sheet. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import TextField from '@mui/material/TextField'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { client, got, wordsOf } from '../../api/client'
import { QUIET, TEAL } from '../../theme/theme'
import { Bench } from '../../kit/Bench'
import { Rows } from '../../kit/Rows'
import { SheetLink } from '../../project/SheetLink'
import { useSheetTable } from '../../project/useSheetTable'
import { usePick } from '../../project/store'

type Role = 'owner' | 'editor' | 'viewer'
const ROLES: [Role, string][] = [
  ['owner', 'owner: also people, archive and bin'],
  ['editor', 'editor: may change everything drawn'],
  ['viewer', 'viewer: reads and takes files out'],
]

export function PeopleSection({ list, owner }: { list: ReactNode; owner: boolean }) {
  const { projectId, people, say } = usePick('projectId', 'people', 'say')
  const queries = useQueryClient()
  const table = useSheetTable()
  const key = ['members', projectId]
  const path = { path: { project_id: projectId } }
  const members = useQuery({
    queryKey: key,
    queryFn: () => got(client.GET('/api/projects/{project_id}/members', { params: path })),
    enabled: projectId !== '',
  })
  const [name, setName] = useState('')
  const [role, setRole] = useState<Role>('editor')
  const take = async (act: () => Promise<unknown>) => {
    try {
      queries.setQueryData(key, await act())
      return true
    } catch (error) {
      say(wordsOf(error), 'error')
      return false
    }
  }
  const invite = () =>
    take(() =>
      got(client.POST('/api/projects/{project_id}/invitations', { params: path, body: { name, role } })),
    ).then((done) => done && setName(''))
  const sheetOf = (id: string) => table.data?.sheets.find((s) => s.id === id)
  return (
    <Bench name="Brief" list={list}>
      <Box sx={{ p: 2.5, maxWidth: 860, overflow: 'auto' }}>
        <Box component="h1" sx={{ fontSize: 17, m: 0, mb: 1 }}>
          People
        </Box>
        <Rows label="People" columns={['Name', 'Account', 'Role', 'Here now', '']}>
          {(members.data ?? []).map((m) => {
            const here = people.find((p) => p.name === m.full_name)
            const sheet = here ? sheetOf(here.sheet_id) : undefined
            return (
              <tr key={m.name}>
                <td>
                  {m.full_name}
                  {m.me && <span style={{ color: QUIET }}> (you)</span>}
                </td>
                <td>{m.name}</td>
                <td>
                  {owner && !m.waiting ? (
                    <Select
                      variant="standard"
                      disableUnderline
                      value={m.role}
                      inputProps={{ 'aria-label': `Role of ${m.full_name}` }}
                      sx={{ fontSize: 12.5 }}
                      onChange={(e) =>
                        void take(() =>
                          got(
                            client.POST('/api/projects/{project_id}/roles', {
                              params: path,
                              body: { name: m.name, role: e.target.value as Role },
                            }),
                          ),
                        )
                      }
                    >
                      {ROLES.map(([value]) => (
                        <MenuItem key={value} value={value}>
                          {value}
                        </MenuItem>
                      ))}
                    </Select>
                  ) : (
                    `${m.role}${m.waiting ? ', invited' : ''}`
                  )}
                </td>
                <td>
                  {sheet ? (
                    <SheetLink sheetId={sheet.id}>{`sheet ${sheet.number}`}</SheetLink>
                  ) : here || m.me ? (
                    <span style={{ color: TEAL }}>in the project</span>
                  ) : (
                    <span style={{ color: QUIET }}>{m.waiting ? 'has not answered yet' : 'no'}</span>
                  )}
                </td>
                <td style={{ textAlign: 'right' }}>
                  {(owner || m.me) && (
                    <Button
                      color="inherit"
                      aria-label={m.me ? 'Leave the project' : `Take out ${m.full_name}`}
                      onClick={() =>
                        void take(() =>
                          got(
                            client.POST('/api/projects/{project_id}/leave', {
                              params: path,
                              body: { name: m.name },
                            }),
                          ),
                        )
                      }
                    >
                      {m.me ? 'Leave' : m.waiting ? 'Withdraw' : 'Take out'}
                    </Button>
                  )}
                </td>
              </tr>
            )
          })}
        </Rows>
        {owner ? (
          <Box
            component="form"
            aria-label="Invite"
            sx={{ display: 'flex', gap: 1, mt: 2, alignItems: 'center' }}
            onSubmit={(e: React.FormEvent) => {
              e.preventDefault()
              void invite()
            }}
          >
            <TextField label="Account name" value={name} onChange={(e) => setName(e.target.value)} />
            <TextField
              select
              label="As"
              value={role}
              onChange={(e) => setRole(e.target.value as Role)}
              sx={{ width: 280 }}
            >
              {ROLES.map(([value, words]) => (
                <MenuItem key={value} value={value}>
                  {words}
                </MenuItem>
              ))}
            </TextField>
            <Button type="submit" variant="contained" disabled={!name.trim()}>
              Invite
            </Button>
          </Box>
        ) : (
          <Box sx={{ color: QUIET, mt: 1.5 }}>Only an owner invites others and changes roles.</Box>
        )}
        <Box sx={{ color: QUIET, fontSize: 12, mt: 1.5 }}>
          An invitation waits in the person’s list of projects. Accounts are made by an administrator.
        </Box>
      </Box>
    </Bench>
  )
}
