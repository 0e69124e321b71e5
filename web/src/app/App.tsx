/** Routes: the sign-in when nobody is, the project list, a project's benches. */
import CircularProgress from '@mui/material/CircularProgress'
import { queryOptions, useQuery, type QueryClient } from '@tanstack/react-query'
import { useRef } from 'react'
import { Navigate, Route, Routes } from 'react-router'
import { client, got, type Me } from '../api/client'
import { useLine } from '../api/line'
import { fetched } from '../kit/fetched'
import { fetchAhead } from '../project/ahead'
import { asked as outlineAsked, firstOf } from '../project/useOutline'
import { BENCHES } from './benches'

const loading = <CircularProgress aria-label="Loading" sx={{ m: 4 }} />
const Account = fetched(() => import('./Account').then((m) => m.Account), loading)
const ProjectList = fetched(() => import('./ProjectList').then((m) => m.ProjectList), loading)
const ProjectShell = fetched(() => import('./ProjectShell').then((m) => m.ProjectShell), loading)
const SignInAgain = fetched(() => import('./SignInAgain').then((m) => m.SignInAgain))
const SignIn = fetched(() => import('./SignIn').then((m) => m.SignIn), loading)

const asked = queryOptions({
  queryKey: ['me'],
  queryFn: () => got(client.GET('/api/me')),
  staleTime: Infinity,
})

/** Fetch what an address shows at once, and not when what leads there has been painted. */
export function bringFor(address: string, queries: QueryClient) {
  const [first, projectId = '', path, section] = address.split('/').slice(1)
  const bench = BENCHES.find((b) => b.path === (path || 'draw'))
  const parts = first === 'p' ? [ProjectShell, bench?.Page] : [ProjectList]
  const data = async () => {
    if (first !== 'p' || !(await queries.fetchQuery(asked)).name) return
    const outline = await queries.fetchQuery(outlineAsked(projectId))
    if (bench?.path === 'draw') fetchAhead(projectId, section || (firstOf(outline)?.id ?? ''))
  }
  // Who shows it asks again, and is told then.
  for (const coming of [data(), ...parts.map((part) => part?.bring())]) coming?.catch(() => undefined)
}

export function App() {
  const me = useQuery(asked)
  const last = useRef<Me | null>(null)
  const out = useLine((line) => line.state === 'signed out')
  if (me.isPending) return loading
  if (me.data?.name || !out) last.current = me.data?.name ? me.data : null
  // Whose session has ended stays on the page; who has signed out, or never came in, does not.
  const who = me.data?.name ? me.data : out ? last.current : null
  if (!who) return <SignIn demo={me.data?.demo ?? false} />
  return (
    <>
      <Routes>
        <Route path="/" element={<ProjectList me={who} />} />
        <Route path="/account" element={<Account me={who} />} />
        <Route path="/p/:projectId/*" element={<ProjectShell me={who} />} />
        <Route path="*" element={<Navigate to="/" replace />} />
      </Routes>
      {out && <SignInAgain me={who} />}
    </>
  )
}
