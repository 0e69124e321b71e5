/** Routes: the sign-in when nobody is, the project list, a project's benches. */
import CircularProgress from '@mui/material/CircularProgress'
import { useQuery } from '@tanstack/react-query'
import { Navigate, Route, Routes } from 'react-router'
import { client, got } from '../api/client'
import { lazy, Suspense } from 'react'

const Account = lazy(async () => ({ default: (await import('./Account')).Account }))
const ProjectList = lazy(async () => ({ default: (await import('./ProjectList')).ProjectList }))
const ProjectShell = lazy(async () => ({ default: (await import('./ProjectShell')).ProjectShell }))
const SignIn = lazy(async () => ({ default: (await import('./SignIn')).SignIn }))

export function App() {
  const me = useQuery({ queryKey: ['me'], queryFn: () => got(client.GET('/api/me')) })
  if (me.isPending) return <CircularProgress aria-label="Loading" sx={{ m: 4 }} />
  const loading = <CircularProgress aria-label="Loading" sx={{ m: 4 }} />
  if (!me.data?.name)
    return (
      <Suspense fallback={loading}>
        <SignIn demo={me.data?.demo ?? false} />
      </Suspense>
    )
  return (
    <Suspense fallback={loading}>
      <Routes>
        <Route path="/" element={<ProjectList me={me.data} />} />
        <Route path="/account" element={<Account me={me.data} />} />
        <Route path="/p/:projectId/*" element={<ProjectShell me={me.data} />} />
        <Route path="*" element={<Navigate to="/" replace />} />
      </Routes>
    </Suspense>
  )
}
