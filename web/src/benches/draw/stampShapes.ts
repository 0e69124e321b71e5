/** Stamps as the server lists them. */
import type { Schemas } from '../../api/shapes'

export type Question = Schemas['QuestionValue']
export type StampLine = Schemas['StampLine']

export const QUESTION_KINDS: { id: string; name: string; on: string[] }[] = [
  { id: 'text', name: 'text', on: ['device', 'note', 'continuation'] },
  { id: 'tag', name: 'tag', on: ['device'] },
  { id: 'part', name: 'part number', on: ['device'] },
  { id: 'wire-type', name: 'wire type', on: ['wire-type'] },
  { id: 'motor-kw', name: 'motor power, kW or hp', on: ['device'] },
  { id: 'function', name: 'function of all', on: [] },
  { id: 'location', name: 'location of all', on: [] },
]
