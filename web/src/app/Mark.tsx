/** The mark: a spool with copper wire leaving it. */
import { PAPER } from '../theme/theme'

export function Mark({ size = 26 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" role="img" aria-label="Jolly Spool">
      <rect width="24" height="24" rx="5" fill="#14213D" />
      <g strokeLinecap="round" fill="none">
        <path d="M6 5h12M6 19h12" stroke={PAPER} strokeWidth="2.6" />
        <path d="M8 9h8M8 12h8M8 15h8l3 3" stroke="#D98A4E" strokeWidth="1.9" />
      </g>
    </svg>
  )
}
