/** Who works in the project: roles, invitations, who is here now and on which sheet. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import TextField from '@mui/material/TextField'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { client, got, wordsOf } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { QUIET, TEAL } from '../../theme/theme'
import { Bench } from '../../kit/Bench'
import { Pick } from '../../kit/Pick'
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

type Members = Schemas['Member'][]
type Member = Members[number]
/** Does something with the people, who are then as the answer says; whether it was done. */
type Take = (act: () => Promise<Members>) => Promise<boolean>

function useMembers() {
  const { projectId, say } = usePick('projectId', 'say')
  const queries = useQueryClient()
  const key = ['members', projectId]
  const path = { path: { project_id: projectId } }
  const members = useQuery({
    queryKey: key,
    queryFn: () => got(client.GET('/api/projects/{project_id}/members', { params: path })),
    enabled: projectId !== '',
  })
  const take: Take = async (act) => {
    try {
      queries.setQueryData(key, await act())
      return true
    } catch (error) {
      say(wordsOf(error), 'error')
      return false
    }
  }
  return { members: members.data ?? [], take }
}

export function PeopleSection({ list, owner }: { list: ReactNode; owner: boolean }) {
  const { members, take } = useMembers()
  return (
    <Bench name="Brief" list={list}>
      <Box sx={{ p: 2.5, maxWidth: 860, overflow: 'auto' }}>
        <Box component="h1" sx={{ fontSize: 17, m: 0, mb: 1 }}>
          People
        </Box>
        <Rows label="People" columns={['Name', 'Account', 'Role', 'Here now', '']}>
          {members.map((m) => (
            <MemberRow key={m.name} member={m} owner={owner} take={take} />
          ))}
        </Rows>
        {owner ? (
          <Invite take={take} />
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

interface MemberProps {
  member: Member
  owner: boolean
  take: Take
}

function MemberRow({ member: m, owner, take }: MemberProps) {
  const params = { path: { project_id: usePick('projectId').projectId } }
  const leave = () =>
    take(() => got(client.POST('/api/projects/{project_id}/leave', { params, body: { name: m.name } })))
  return (
    <tr>
      <td>
        {m.full_name}
        {m.me && <span style={{ color: QUIET }}> (you)</span>}
      </td>
      <td>{m.name}</td>
      <td>
        {owner && !m.waiting ? <RoleOf member={m} take={take} /> : `${m.role}${m.waiting ? ', invited' : ''}`}
      </td>
      <td>
        <Here member={m} />
      </td>
      <td style={{ textAlign: 'right' }}>
        {(owner || m.me) && (
          <Button
            color="inherit"
            aria-label={m.me ? 'Leave the project' : `Take out ${m.full_name}`}
            onClick={() => void leave()}
          >
            {m.me ? 'Leave' : m.waiting ? 'Withdraw' : 'Take out'}
          </Button>
        )}
      </td>
    </tr>
  )
}

function RoleOf({ member: m, take }: { member: Member; take: Take }) {
  const params = { path: { project_id: usePick('projectId').projectId } }
  const change = (role: Role) =>
    take(() => got(client.POST('/api/projects/{project_id}/roles', { params, body: { name: m.name, role } })))
  return (
    <Select
      variant="standard"
      disableUnderline
      value={m.role}
      inputProps={{ 'aria-label': `Role of ${m.full_name}` }}
      sx={{ fontSize: 12.5 }}
      onChange={(e) => void change(e.target.value as Role)}
    >
      {ROLES.map(([value]) => (
        <MenuItem key={value} value={value}>
          {value}
        </MenuItem>
      ))}
    </Select>
  )
}

/** Whether somebody is here, and on which sheet. */
function Here({ member: m }: { member: Member }) {
  const here = usePick('people').people.find((p) => p.name === m.full_name)
  const sheet = useSheetTable().data?.sheets.find((s) => s.id === here?.sheet_id)
  if (sheet) return <SheetLink sheetId={sheet.id}>{`sheet ${sheet.number}`}</SheetLink>
  if (here || m.me) return <span style={{ color: TEAL }}>in the project</span>
  return <span style={{ color: QUIET }}>{m.waiting ? 'has not answered yet' : 'no'}</span>
}

function Invite({ take }: { take: Take }) {
  const params = { path: { project_id: usePick('projectId').projectId } }
  const [name, setName] = useState('')
  const [role, setRole] = useState<Role>('editor')
  const invite = async () => {
    const body = { name, role }
    const done = await take(() =>
      got(client.POST('/api/projects/{project_id}/invitations', { params, body })),
    )
    if (done) setName('')
  }
  return (
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
      <Pick
        label="As"
        value={role}
        options={ROLES.map(([id, words]) => ({ id, name: words }))}
        onPick={(id) => setRole(id as Role)}
        sx={{ width: 280 }}
      />
      <Button type="submit" variant="contained" disabled={!name.trim()}>
        Invite
      </Button>
    </Box>
  )
}
