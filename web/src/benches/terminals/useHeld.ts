/** What the bench of terminals holds beside what the server says. */
import { useState } from 'react'
import { remember, remembered } from '../../kit/remember'

export type FaceTool = 'choose' | 'bridge'
export type Form = '' | 'make' | 'put-in' | 'number' | 'sort' | 'move' | 'merge' | 'layout' | 'gather'

/** What the bench holds: how the strip lies, the tool in hand, what is chosen, the form that is open. */
export function useHeld() {
  const [upright, lay] = useState<boolean>(() => remembered('strip-upright', false))
  const [tool, setTool] = useState<FaceTool>('choose')
  const [chosen, choose] = useState<Set<string>>(new Set())
  const [form, open] = useState<Form>('')
  const [percent, setPercent] = useState(10)
  const setUpright = (value: boolean) => {
    lay(value)
    remember('strip-upright', value)
  }
  return { upright, setUpright, tool, setTool, chosen, choose, form, open, percent, setPercent }
}

export type Held = ReturnType<typeof useHeld>
