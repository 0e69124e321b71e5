import { describe, expect, test } from 'vitest'
import type { Waiting } from './shapes'
import { grouped, type By } from './trayGroups'

const one = (tag: string, order: number, said: Partial<Waiting> = {}) =>
  ({ tag, order, text: '', kind: 'fuse', function: '=K2', sheet: '10', part: null, ...said }) as Waiting
const LIST = [
  one('FC2', 3, { function: '=K2+P1', sheet: '11' }),
  one('FC1', 1),
  one('QA1', 2, { kind: 'contactor', text: 'Pump', part: { number: 'BW-9' } as Waiting['part'] }),
  one('PF1', 4, { kind: '', function: '', sheet: '' }),
]
const said = (by: By, search = '') =>
  grouped(LIST, by, search).map((g) => [g.name, g.waiting.map((w) => w.tag)])

describe('the tray', () => {
  test('by circuit is in the order in which devices are drawn', () => {
    expect(said('circuit')).toEqual([
      ['=K2', ['FC1', 'QA1']],
      ['=K2+P1', ['FC2']],
      ['no function', ['PF1']],
    ])
  })

  test('by function keeps the order in which it came', () => {
    expect(said('function')[0]).toEqual(['=K2+P1', ['FC2']])
  })

  test('by sheet and by class names what has none', () => {
    expect(said('sheet').map(([name]) => name)).toEqual(['Sheet 10', 'Sheet 11', 'not drawn yet'])
    expect(said('class').map(([name]) => name)).toEqual(['fuse', 'contactor', 'no class'])
  })

  test('has what has all the words, of tag, text, class, part or function', () => {
    expect(said('class', 'PUMP bw-9')).toEqual([['contactor', ['QA1']]])
    expect(said('class', '  ')).toHaveLength(3)
    expect(said('class', 'lamp')).toEqual([])
  })

  test('is not put in order in place', () => {
    grouped(LIST, 'circuit', '')
    expect(LIST.map((w) => w.tag)).toEqual(['FC2', 'FC1', 'QA1', 'PF1'])
  })
})
