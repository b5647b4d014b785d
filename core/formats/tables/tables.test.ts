import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { apply } from '../../piece/operation.ts'
import { readPiece } from '../../piece/migrate.ts'
import { emptyPiece } from '../../piece/schema.ts'
import { numbersText } from '../export/numbers-text.ts'
import { fair } from '../../testing/fair.ts'
import { rational } from '../../time/rational.ts'
import { cueOf, curveOf, type AsCurve } from './import-table.ts'
import { tableOf, type Table } from './table.ts'

const table = (text: string, name = 'a.csv'): Table => {
  const read = tableOf(text, name)
  if ('says' in read) throw new Error(read.says)
  return read
}
const names = (t: Table) => t.columns.map(c => c.name)
const piece = emptyPiece('Tables', 1)
const as = (given: Partial<AsCurve> = {}): AsCurve => ({
  name: 'gust',
  time: 'time',
  timeUnit: 's',
  channels: ['height'],
  unit: 'px',
  within: 0,
  ...given,
})

describe('a table', () => {
  it('is read from CSV as the world writes it', () => {
    expect(names(table('time,height\r\n0,1\r\n0.5,2.5\r\n'))).toEqual(['time', 'height'])
    expect(table('time;"height, in px"\n0;1,5\n0,5;−2').columns).toEqual([
      { name: 'time', values: [0, 0.5] },
      { name: 'height, in px', values: [1.5, -2] },
    ])
    expect(table('\uFEFFt\tv\n1\t1e3\n').columns[1]!.values).toEqual([1000])
    // Without a head, and with a column of words that is left.
    expect(names(table('0,1\n1,2\n'))).toEqual(['column 1', 'column 2'])
    expect(names(table('time,mood\n0,calm\n1,wild\n'))).toEqual(['time'])
    expect(table('a\n"1"\n\n2\n').columns[0]!.values).toEqual([1, 2])
  })
  it('is read from JSON in every shape that rows have, and from what Open Tide gives out', () => {
    const two = {
      columns: [
        { name: 'a', values: [1, 2] },
        { name: 'b', values: [3, 4] },
      ],
      rows: 2,
    }
    expect(tableOf('[{"a":1,"b":3},{"a":2,"b":4}]', 'x.json')).toEqual(two)
    expect(tableOf('{"a":[1,2],"b":[3,4]}', 'x.json')).toEqual(two)
    expect(names(table('[[1,3],[2,4]]', 'x.json'))).toEqual(['column 1', 'column 2'])
    expect(names(table('[1, 2.5]', 'x.json'))).toEqual(['time'])
    const { program } = fair('time * 45deg/s')
    for (const kind of ['csv', 'json'] as const) {
      const back = table(numbersText(program, kind, rational(0), rational(30), 10), `a.${kind}`)
      expect(back.columns.find(c => c.name === 'Carousel.rotation')!.values[9]).toBe(13.5)
    }
  })
  it('that is none is refused with the line, what stands there, and no more', () => {
    const says = (text: string, name?: string) => (tableOf(text, name ?? 'a.csv') as { says: string }).says
    expect(says('')).toMatch(/empty/)
    expect(says('mood\ncalm\n')).toBe('Line 2 of mood has "calm", which isn’t a number.')
    expect(says('a,b\n1,"2\n3,4')).toMatch(/quoted/)
    expect(says('{"a":', 'x.json')).toMatch(/valid JSON/)
    expect(says('{}', 'x.json')).toMatch(/no rows/)
    expect(says('null', 'x.json')).toMatch(/no rows/)
    expect(says('"x"', 'x.json')).toMatch(/no rows/)
  })
  it('never throws, whatever the text is', () => {
    fc.assert(
      fc.property(
        fc.oneof(fc.string(), fc.json(), fc.string({ unit: fc.constantFrom(...'0,;"\n\t.-e[]{}:a') })),
        fc.boolean(),
        (text, isJson) => {
          const read = tableOf(text, isJson ? 'a.json' : 'a.csv')
          if ('says' in read) {
            expect(read.says.length).toBeGreaterThan(10)
            return
          }
          for (const c of read.columns) expect(c.values.every(Number.isFinite)).toBe(true)
        },
      ),
      { numRuns: 3000 },
    )
  })
})

describe('a curve from a table', () => {
  const rows = Array.from({ length: 400 }, (_, k) => `${k / 100},${(10 * Math.sin(k / 30)).toFixed(6)},${k % 7}`)
  const t = table(`time,height,mood\n${rows.join('\n')}`)
  it('keeps every point where nothing may be off, else few within the tolerance', () => {
    const all = curveOf(piece, t, as())
    const points = Object.values(apply(piece, all.op!).curves)[0]!.channels.height!
    expect(points).toHaveLength(400)
    expect(points[7]).toEqual({ time: 0.07, value: 2.312218, shape: 'straight' })
    const few = Object.values(apply(piece, curveOf(piece, t, as({ within: 0.05 })).op!).curves)[0]!.channels.height!
    expect(few.length).toBeLessThan(80)
    for (const { time, value } of points) {
      const k = few.findIndex(p => p.time >= time)
      const [a, b] = [few[Math.max(0, k - 1)]!, few[k]!]
      const share = b.time === a.time ? 0 : (time - a.time) / (b.time - a.time)
      expect(Math.abs(a.value + (b.value - a.value) * share - value)).toBeLessThanOrEqual(0.05 + 1e-9)
    }
  })
  it('reads milliseconds, frames, and one row a frame; several columns are its channels; the piece stays sound', () => {
    const times = (over: Partial<AsCurve>) => {
      const next = apply(piece, curveOf(piece, table('time,height,b\n0,1,2\n30,2,3\n60,4,5'), as(over)).op!)
      expect(readPiece(JSON.parse(JSON.stringify(next))).problem).toBeNull()
      return Object.values(next.curves)[0]!
    }
    expect(times({ timeUnit: 'ms' }).channels.height!.map(p => p.time)).toEqual([0, 0.03, 0.06])
    expect(times({ timeUnit: 'frames' }).channels.height!.map(p => p.time)).toEqual([0, 1, 2])
    expect(times({ time: null }).channels.height!.map(p => p.time)).toEqual([0, 0.033333333, 0.066666667])
    expect(Object.keys(times({ channels: ['height', 'b'] }).channels)).toEqual(['height', 'b'])
  })
  it('of more points than a curve holds loses the least; times that go back are told with their row', () => {
    const many = table(`time,height\n${Array.from({ length: 9000 }, (_, k) => `${k},${Math.sin(k / 9)}`).join('\n')}`)
    const made = Object.values(apply(piece, curveOf(piece, many, as()).op!).curves)[0]!.channels.height!
    expect(made.length).toBeLessThanOrEqual(2000)
    expect(made.length).toBeGreaterThan(500)
    expect(curveOf(piece, table('time,height\n0,1\n2,2\n1,3'), as())).toEqual({
      says: 'Times must increase from row to row; in row 3 they don’t. Choose another column for the times.',
    })
    expect(curveOf(piece, table('time,height\n0,1\n2,2e12'), as()).op).toBeUndefined()
    expect(curveOf(piece, t, as({ channels: [] })).op).toBeUndefined()
  })
})

it('marks of a cue are put in order, each once', () => {
  const made = cueOf(piece, table('beat\n2.5\n1\n1\n4'), { name: 'beats', time: 'beat', timeUnit: 's' })
  expect(Object.values(apply(piece, made.op!).cues)[0]).toMatchObject({
    name: 'beats',
    marks: [1, 2.5, 4],
    every: null,
  })
  expect(cueOf(piece, t(), { name: 'x', time: null, timeUnit: 's' }).op).toBeUndefined()
  function t() {
    return table('beat\n1\n')
  }
})
