/** Accepting a snag: the reason is asked for beside it. */
import Box from '@mui/material/Box'
import InputBase from '@mui/material/InputBase'
import { useState } from 'react'
import { LINE } from '../theme/theme'
import { Act } from '../kit/Act'
import { usePick } from './store'

interface Props {
  snag: { key: string; message: string }
  close: () => void
}

export function MuteLine({ snag, close }: Props) {
  const { send } = usePick('send')
  const [reason, setReason] = useState('')
  const mute = () => {
    if (reason.trim()) void send({ kind: 'mute-snag', key: snag.key, reason }).then((a) => a && close())
  }
  return (
    <Box
      component="form"
      aria-label="Mute the snag"
      onSubmit={(e: React.FormEvent) => {
        e.preventDefault()
        mute()
      }}
      sx={{
        display: 'flex',
        gap: 1,
        alignItems: 'center',
        px: 1.5,
        py: 0.5,
        bgcolor: '#FBF3EA',
        fontSize: 12.5,
      }}
    >
      <span style={{ maxWidth: 330, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
        {snag.message}
      </span>
      <InputBase
        autoFocus
        placeholder="Why this is all right"
        value={reason}
        inputProps={{ 'aria-label': 'Reason' }}
        onChange={(e) => setReason(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Escape') close()
        }}
        sx={{ flex: 1, fontSize: 12.5, bgcolor: '#fff', border: `1px solid ${LINE}`, borderRadius: 1, px: 1 }}
      />
      <Act disabled={!reason.trim()} onClick={mute}>
        Mute
      </Act>
      <Act onClick={close}>Cancel</Act>
    </Box>
  )
}
