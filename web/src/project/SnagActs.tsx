/** What can be done about a snag where it is listed: the edit that puts it right, and one more act, such as muting. */
import type { AnyEdit } from '../api/client'
import type { SnagAct } from '../api/shapes'

interface Props {
  act: SnagAct | null | undefined
  /** Puts the snag right; left out for people who may only look. */
  mend?: (edit: AnyEdit) => void
  other?: { label: string; hint?: string; run: () => void }
}

export function SnagActs({ act, mend, other }: Props) {
  return (
    <span style={{ display: 'flex', gap: 10, justifyContent: 'flex-end' }}>
      {act && mend && <Word label={act.label} run={() => mend(act.edit)} />}
      {other && <Word label={other.label} hint={other.hint ?? ''} run={other.run} />}
    </span>
  )
}

export function Word({ label, hint = '', run }: { label: string; hint?: string; run: () => void }) {
  return (
    <button
      type="button"
      title={hint}
      style={{
        font: 'inherit',
        color: 'inherit',
        background: 'none',
        border: 0,
        padding: 0,
        textDecoration: 'underline',
        cursor: 'pointer',
      }}
      onClick={(e) => {
        e.stopPropagation()
        run()
      }}
    >
      {label}
    </button>
  )
}
