/** A small button that asks for a file; the same file, written anew, may be chosen again. */
import { useRef } from 'react'
import { Act } from './Act'

interface Props {
  children: React.ReactNode
  /** What the file is, for those who do not see the button. */
  name: string
  accept: string
  hint?: string
  take: (file: File) => void
}

export function FileAct({ children, name, accept, hint, take }: Props) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <input
        ref={input}
        type="file"
        hidden
        aria-label={name}
        accept={accept}
        onChange={(e) => {
          const file = e.target.files?.[0]
          if (file) take(file)
          e.target.value = ''
        }}
      />
      <Act onClick={() => input.current?.click()} {...(hint ? { hint } : {})}>
        {children}
      </Act>
    </>
  )
}
