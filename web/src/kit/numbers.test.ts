import { expect, test } from 'vitest'
import { numberIn } from './numbers'

test.each([
  ['12', 12],
  [' 0,75 ', 0.75],
  ['-3.5', -3.5],
  ['+2', 2],
  ['.5', 0.5],
  ['1e3', 1000],
])('%s is a number', (typed, value) => expect(numberIn(typed)).toBe(value))

test.each([
  '',
  '  ',
  'twelve',
  '1,234.5',
  '1.2.3',
  '--1',
  '0x10',
  'Infinity',
  '-Infinity',
  'NaN',
  '1e999',
  '5 mm',
])('%s is none', (typed) => expect(numberIn(typed)).toBeNull())
