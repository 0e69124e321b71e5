/** The rule behind a computed figure, one click away. */
import { QUIET } from '../theme/theme'

export function Why({ text }: { text: string }) {
  return (
    <details style={{ fontSize: 12, color: QUIET }}>
      <summary style={{ cursor: 'pointer' }}>Why?</summary>
      {text}
    </details>
  )
}
