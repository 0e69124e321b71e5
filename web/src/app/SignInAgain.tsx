/** Signing in over the page when the session has ended: what is typed and what waits stays, and goes on. */
import Dialog from '@mui/material/Dialog'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import type { Me } from '../api/client'
import { known, useLine } from '../api/line'
import { QUIET } from '../theme/theme'
import { SignInForm } from './SignIn'

export function SignInAgain({ me }: { me: Me }) {
  const { state, waiting } = useLine()
  // Who comes in as somebody else begins anew: what waits is not theirs.
  const entered = (now: Me) => (now.name === me.name ? known() : window.location.reload())
  return (
    <Dialog open={state === 'signed out'} aria-labelledby="sign-in-again">
      <DialogTitle id="sign-in-again">Please sign in again</DialogTitle>
      <DialogContent sx={{ width: 380 }}>
        <p style={{ margin: '0 0 16px', color: QUIET }}>
          Your session has ended. The page stays as it is
          {waiting
            ? `, and ${waiting === 1 ? 'one edit that waits is' : `${waiting} edits that wait are`} sent then`
            : ''}
          .
        </p>
        <SignInForm demo={me.demo} onEntered={entered} />
      </DialogContent>
    </Dialog>
  )
}
