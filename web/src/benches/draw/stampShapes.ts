/** Stamps as the server lists them. */
export interface Question {
  name: string
  kind: string
  targets: string[]
  suggestion: string
}

export interface StampLine {
  id: string
  name: string
  text: string
  origin: 'project' | 'library' | 'application'
  /** From one copy to the next when nothing else is asked for, grid steps. */
  pitch: number
  anchor: [number, number]
  questions: Question[]
  things: { id: string; kind: string; name: string; text: string }[]
}

export const QUESTION_KINDS: { id: string; name: string; on: string[] }[] = [
  { id: 'text', name: 'text', on: ['device', 'note', 'continuation'] },
  { id: 'tag', name: 'tag', on: ['device'] },
  { id: 'part', name: 'part number', on: ['device'] },
  { id: 'wire-type', name: 'wire type', on: ['wire-type'] },
  { id: 'motor-kw', name: 'motor power in kW', on: ['device'] },
  { id: 'function', name: 'function of all', on: [] },
  { id: 'location', name: 'location of all', on: [] },
]
