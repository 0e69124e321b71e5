import { describe, expect, test } from 'vitest'
import { leaders, LINE, SIZE, widthOf, type Box, type Label, type Led } from './labelPlaces'

const label = (id: string, box: Box, product = 'FC1', aspects = ''): Label => ({
  ...{ id, aspects, product, box },
  written: [(box[0] + box[2]) / 2, (box[1] + box[3]) / 2],
})

/** The room a label takes on the screen, by what is painted: told again here, and not taken from what is tried. */
function room({ lines, how, at: [x, y] }: Led): Box {
  const long = Math.max(...lines.map(widthOf))
  const tall = lines.length * LINE
  if (how === 'led') return [x - SIZE / 2, y - long, x + SIZE / 2, y]
  const [w, h] = how === 'level' ? [long / 2, tall / 2] : [SIZE / 2, long / 2]
  return [x - w, y - h, x + w, y + h]
}
const apart = (a: Box, b: Box) => a[2] <= b[0] || b[2] <= a[0] || a[3] <= b[1] || b[3] <= a[1]
const noneOnAnother = (found: Led[]) =>
  found.every((a, n) => found.slice(n + 1).every((b) => apart(room(a), room(b))))

describe('a label', () => {
  test('stands level on a device that is wide enough, whole in one line', () => {
    const [led] = leaders([label('a', [0, 0, 100, 40], 'FC1', '=K2+P1-')], [])
    expect(led).toMatchObject({ how: 'level', lines: ['=K2+P1-FC1'] })
  })

  test('is broken into two lines where one is too long and two are not too tall', () => {
    const box: Box = [0, 0, widthOf('=K2+P1-') + 4, 40]
    expect(leaders([label('a', box, 'FC1', '=K2+P1-')], [])[0]).toMatchObject({
      how: 'level',
      lines: ['=K2+P1-', 'FC1'],
    })
  })

  test('stands upright on a narrow and tall one', () => {
    expect(leaders([label('a', [0, 0, SIZE, 60])], [])[0]).toMatchObject({
      how: 'upright',
      at: [SIZE / 2, 30],
    })
  })

  test('that is not wide enough by a pixel does not stand level', () => {
    const wide = widthOf('FC1') + 3
    expect(leaders([label('a', [0, 0, wide, 60])], [])[0]!.how).toBe('level')
    expect(leaders([label('a', [0, 0, wide - 0.5, 60])], [])[0]!.how).toBe('upright')
  })

  test('stays over the small tag as far as the device reaches', () => {
    const high = { ...label('a', [0, 0, 100, 40]), written: [50, 2] as [number, number] }
    expect(leaders([high], [])[0]!.at).toEqual([50, LINE / 2])
    const low = { ...high, written: [50, 39] as [number, number] }
    expect(leaders([low], [])[0]!.at).toEqual([50, 40 - LINE / 2])
  })

  test('stands below a small device where nothing is, and is led above where something is', () => {
    const small: Box = [50, 50, 56, 56]
    expect(leaders([label('a', small)], [small])[0]).toMatchObject({ how: 'level', lines: ['FC1'] })
    const under: Box = [40, 58, 70, 80]
    expect(leaders([label('a', small)], [small, under])[0]).toMatchObject({ how: 'led', at: [53, 42] })
  })
})

describe('labels of a row', () => {
  const row = (count: number, pitch: number, width = 6): Box[] =>
    Array.from({ length: count }, (_, n) => [n * pitch, 50, n * pitch + width, 56])
  const floor = (boxes: Box[]): Box[] => [...boxes, [-1000, 57, 5000, 80]]

  test.each([
    [2, 4],
    [12, 7],
    [40, 8],
  ])('%d at %d px: none lies on another, and all are there from left to right', (count, pitch) => {
    const boxes = row(count, pitch)
    const found = leaders(
      boxes.map((b, n) => label(String(n), b)),
      floor(boxes),
    )
    expect(found.map((l) => l.label.id)).toEqual(boxes.map((_, n) => String(n)))
    expect(noneOnAnother(found)).toBe(true)
    const xs = found.map((l) => l.at[0])
    expect(xs).toEqual([...xs].sort((a, b) => a - b))
  })

  test('that were pushed apart are centred over their devices', () => {
    const boxes = row(9, 5)
    const found = leaders(
      boxes.map((b, n) => label(String(n), b)),
      floor(boxes),
    )
    const mean = (values: number[]) => values.reduce((a, b) => a + b, 0) / values.length
    expect(mean(found.map((l) => l.at[0]))).toBeCloseTo(mean(boxes.map((b) => (b[0] + b[2]) / 2)), 1)
  })

  test('that have room stand over their devices', () => {
    const boxes = row(3, 60)
    const found = leaders(
      boxes.map((b, n) => label(String(n), b)),
      floor(boxes),
    )
    expect(found.map((l) => l.at[0])).toEqual([3, 63, 123])
  })

  test('are left out rather than laid on a label of another device', () => {
    const large = label('large', [0, 20, 60, 48], 'T1')
    const small = label('small', [27, 50, 33, 56])
    const found = leaders([large, small], floor([large.box, small.box]))
    expect(noneOnAnother(found)).toBe(true)
  })

  test('of any devices lie on no other', () => {
    let seed = 7
    const chance = (most: number) => (seed = (seed * 16807) % 2147483647) % most
    for (let n = 0; n < 60; n++) {
      const labels = Array.from({ length: 1 + chance(40) }, (_, k) => {
        const [x, y] = [chance(900), 40 * chance(12)]
        const box: Box = [x, y, x + 3 + chance(60), y + 4 + chance(40)]
        return label(String(k), box, `FC${k}`, chance(2) ? '=K2+P1-' : '')
      })
      const led = leaders(labels, []).filter((l) => l.how === 'led')
      expect(noneOnAnother(led)).toBe(true)
    }
  })

  test('of nothing are none', () => expect(leaders([], [])).toEqual([]))
})
