/** A small button in a panel that does one thing. */
import Button from '@mui/material/Button'

interface Props {
  children: React.ReactNode
  hint?: string
  /** What it is called where its sign does not say it. */
  name?: string
  disabled?: boolean
  onClick: () => void
}

export function Act({ children, hint, name, disabled, onClick }: Props) {
  return (
    <Button
      variant="outlined"
      title={hint ?? name ?? ''}
      {...(name ? { 'aria-label': name } : {})}
      disabled={disabled ?? false}
      onClick={onClick}
      sx={{ py: 0.1, px: 0.75, minWidth: 0, fontSize: 12.5 }}
    >
      {children}
    </Button>
  )
}

/** Acts beside each other, going on in the next line where there is no room. */
export function Acts({ children }: { children: React.ReactNode }) {
  return <div style={{ display: 'flex', flexWrap: 'wrap', gap: 5, margin: '4px 0' }}>{children}</div>
}
