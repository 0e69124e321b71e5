/** A text that is saved when it is left or Enter is pressed; Escape puts the old one back. */
import TextField from '@mui/material/TextField'
import { useEffect, useLayoutEffect, useRef, useState } from 'react'
import { allSent, useLine } from '../api/line'
import { shownNow, typedAt } from '../api/typed'
import { Act, Acts } from './Act'
import { draftOf, keepDraft, useDraftKey } from './drafts'

interface Props {
  label: string
  value: string
  disabled?: boolean
  placeholder?: string
  mono?: boolean
  /** It may have several lines; it is saved when it is left, or with Ctrl and Enter. */
  lines?: boolean
  /** Where an edit is refused while it saves, what was typed stays as a draft. */
  onSave: (value: string) => unknown
}

/** Stored, being typed, sent and not answered yet, or typed and not saved: refused, or found after a reload. */
type State = 'stored' | 'typing' | 'sent' | 'draft'

function isMarked(input: HTMLInputElement | null): boolean {
  if (!input || input !== document.activeElement) return false
  return input.value !== '' && input.selectionStart === 0 && input.selectionEnd === input.value.length
}

/** A text as it is typed: whatever is stored meanwhile does not replace it, and what was refused is not lost. */
function useDraft({ value, onSave }: Props, key: string) {
  const found = draftOf(key)
  const [text, setText] = useState(found?.text ?? value)
  const [state, setState] = useState<State>(found && found.text !== value ? 'draft' : 'stored')
  const now = useRef(state)
  const latest = useRef(value)
  // What was stored when one began to type.
  const base = useRef(found?.base ?? value)
  const begun = useRef(shownNow())
  const become = (next: State) => {
    now.current = next
    setState(next)
  }
  const isOpen = () => now.current === 'typing' || now.current === 'draft'
  useEffect(() => {
    latest.current = value
    if (isOpen()) return
    base.current = value
    setText(value)
  }, [value])
  useEffect(() => {
    keepDraft(key, isOpen() && text !== value ? { base: base.current, text } : null)
  }, [key, state, text, value])

  const type = (typed: string) => {
    if (!isOpen()) {
      base.current = value
      begun.current = shownNow()
    }
    become('typing')
    setText(typed)
  }
  const put = () => {
    become('stored')
    setText(value)
  }
  const theirs = isOpen() && value !== base.current && text !== value
  const save = () => {
    if (text === value) return put()
    const { refused } = useLine.getState()
    // Who has both texts before them has seen what is stored.
    const saved = typedAt(theirs ? shownNow() : begun.current, () => onSave(text))
    become('sent')
    void Promise.allSettled([saved, allSent()]).then(() => {
      if (now.current !== 'sent') return
      base.current = latest.current
      become(useLine.getState().refused > refused ? 'draft' : 'stored')
    })
  }
  const enter = () => {
    if (isOpen()) save()
  }
  // What is left while somebody else saved another text waits until one has chosen between both.
  const leave = () => {
    if (now.current !== 'typing') return
    if (theirs) become('draft')
    else save()
  }
  return { text, state, theirs, type, put, save, enter, leave }
}

/** Where something else is chosen the field is another one: no draft goes from thing to thing. */
export function Field(props: Props) {
  const key = useDraftKey(props.label)
  return <Typed key={key} {...props} draftKey={key} />
}

function Typed({ draftKey, ...props }: Props & { draftKey: string }) {
  const { label, value, disabled, placeholder, mono, lines } = props
  const { text, state, theirs, type, put, save, enter, leave } = useDraft(props, draftKey)
  const away = useLine((line) => line.state !== 'in step')
  const input = useRef<HTMLInputElement>(null)
  // Whether all of it was marked, to be typed over, when another text came: then all of that is marked.
  const marked = useRef(false)
  useEffect(() => {
    marked.current = input.current?.value !== value && isMarked(input.current)
  }, [value])
  useLayoutEffect(() => {
    if (marked.current) input.current?.select()
    marked.current = false
  }, [text])
  const draft = state === 'draft'
  return (
    <>
      <TextField
        fullWidth
        multiline={lines ?? false}
        inputRef={input}
        label={label}
        value={text}
        disabled={disabled ?? false}
        placeholder={placeholder ?? ''}
        margin="dense"
        error={draft}
        helperText={theirs || draft || away ? helpFor(state, theirs, value) : undefined}
        onChange={(e) => type(e.target.value)}
        onBlur={leave}
        onKeyDown={(e) => {
          if (e.key === 'Enter' && (!lines || e.ctrlKey)) {
            enter()
            ;(e.target as HTMLElement).blur()
          }
          if (e.key === 'Escape') put()
        }}
        slotProps={{
          inputLabel: placeholder ? { shrink: true } : {},
          htmlInput: { style: mono ? { fontFamily: '"IBM Plex Mono"' } : undefined },
        }}
      />
      {draft && (
        <Acts>
          <Act onClick={save}>{theirs ? 'Save mine' : 'Save'}</Act>
          <Act onClick={put}>{theirs ? 'Take theirs' : 'Put back'}</Act>
        </Acts>
      )}
    </>
  )
}

function helpFor(state: State, theirs: boolean, value: string): string {
  if (theirs) return `Meanwhile somebody saved “${value}”.`
  return state === 'draft' ? 'Not saved.' : state === 'sent' ? 'Waiting to be saved.' : ''
}
