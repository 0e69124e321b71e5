/** The tag of an object, the same wherever it is named. */
import { INK, MONO } from '../theme/theme'

interface Props {
  tag: string
  onClick?: () => void
}

export function TagChip({ tag, onClick }: Props) {
  const style = {
    font: `600 13px ${MONO}`,
    background: INK,
    color: '#fff',
    border: 0,
    borderRadius: 5,
    padding: '3px 8px',
    display: 'inline-block',
    marginBottom: 4,
    cursor: onClick ? 'pointer' : 'default',
  }
  return onClick ? (
    <button type="button" style={style} onClick={onClick}>
      {tag}
    </button>
  ) : (
    <span style={style}>{tag}</span>
  )
}
