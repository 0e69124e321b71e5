/** Routes: the sign-in when nobody is, the project list, a project's benches. */
import CircularProgress from '@mui/material/CircularProgress'
import { useQuery } from '@tanstack/react-query'
import { Navigate, Route, Routes } from 'react-router'
import { client, got } from '../api/client'
import { Account } from './Account'
import { ProjectList } from './ProjectList'
import { ProjectShell } from './ProjectShell'
import { SignIn } from './SignIn'

export function App() {
  const me = useQuery({ queryKey: ['me'], queryFn: () => got(client.GET('/api/me')) })
  if (me.isPending) return <CircularProgress aria-label="Loading" sx={{ m: 4 }} />
  if (!me.data?.name) return <SignIn demo={me.data?.demo ?? false} />
  return (
    <Routes>
      <Route path="/" element={<ProjectList me={me.data} />} />
      <Route path="/account" element={<Account me={me.data} />} />
      <Route path="/p/:projectId/*" element={<ProjectShell me={me.data} />} />
      <Route path="*" element={<Navigate to="/" replace />} />
    </Routes>
  )
}
