import { describe, expect, it } from 'vitest'
import { fair, type Place } from '../testing/fair.ts'
import { Builder } from '../acts/build.ts'
import { setPart } from '../acts/parts.ts'
import { setEye } from '../acts/settings.ts'
import { Program } from '../engine/program.ts'
import { change } from '../formula/problem.ts'
import { rational, toNumber } from '../time/rational.ts'
import { closingSpokes } from './proposals.ts'
import { reportOf } from './report.ts'
import { overlappingCopies } from './overlaps.ts'

const lapOf =
  (n: number): Place['change'] =>
  b =>
    void (b.piece = { ...b.piece, lap: { length: { n, d: 1 }, start: 0 } })

describe('cases worked out', () => {
  it('a hue that goes round once per lap closes at any lap', () => {
    for (const lap of [1, 7, 8, 60]) {
      const f = fair('40deg + time * 1turn/lap', { property: 'fillHue', change: lapOf(lap) })
      expect(reportOf(f.program, f.slot)).toMatchObject({
        closes: 'loops',
        period: `every ${lap} s`,
      })
      expect(f.value(lap) - f.value(0)).toBe(1)
    }
  })
  it('gusty noise never falls below 15px/s, and the bound proves it', () => {
    const f = fair('accumulate(40px/s + noise(freq: 0.5Hz, amp: 25px/s, octaves: 4))', { property: 'x' })
    const speed = fair('(40px/s + noise(freq: 0.5Hz, amp: 25px/s, octaves: 4)) * 1s', { property: 'x' })
    expect(speed.slot.forms[0]!.facts().bounds.low).toBeGreaterThan(15 - 1e-9)
    for (let t = 0; t < 300; t += 0.25) expect(f.value(t + 0.25)).toBeGreaterThan(f.value(t) + 0.25 * 15 - 1e-9)
  })
  it('spoke counts that close: 48 teeth at three a second, in laps of 8 s and of 6 s', () => {
    expect(closingSpokes(48, rational(24, 48))).toEqual(Array.from({ length: 30 }, (_, k) => 2 * k + 2))
    expect(closingSpokes(48, rational(18, 48))).toEqual([8, 16, 24, 32, 40, 48, 56])
  })
  it('time multiplied by a wobbling pace is warned of, and adding it up is the fix', () => {
    const f = fair('12deg + time * 45deg/s * (1 + noise(1Hz, 0.3))')
    expect(f.slot.running).toBe('text')
    const [warning] = f.slot.problems
    expect(warning).toMatchObject({ level: 'warning', code: 'varying' })
    expect(change(f.piece.drives[f.key]!.text, warning!.fixes[0]!.changes)).toBe(
      '12deg + accumulate(45deg/s * (1 + noise(1Hz, 0.3)))',
    )
    expect(fair('time * 45deg/s * fairPace').slot.problems).toEqual([])
    expect(fair('sine(every: 2s, amp: 3deg) * smoothstep(1s, 4s, time)').slot.problems).toEqual([])
  })
})

describe('copies that touch', () => {
  const apart =
    (dx: number): Place['change'] =>
    b =>
      void b.do(setPart(b.piece, 'p3', { copies: { layout: 'row', count: 4, dx, dy: 0 } }))
  it('are found with the moment at which they do', () => {
    const swing = 'sine(every: 8s, amp: 20px) * (if index == 1 then 1 else 0)'
    const f = fair(swing, { on: 'Flag', property: 'x', change: apart(130) })
    const found = overlappingCopies(f.program, 'p3')
    expect(found.map(t => [t.a, t.b])).toEqual([
      [1, 2],
      [0, 1],
    ])
    // 120 px wide and 130 apart: they meet when the second has moved by 10 px, an eighth of a cycle of 20 px on.
    expect(toNumber(found[0]!.at)).toBeCloseTo(8 * (Math.asin(0.5) / (2 * Math.PI)), 1)
    expect(overlappingCopies(fair(swing, { on: 'Flag', property: 'x', change: apart(160) }).program, 'p3')).toEqual([])
    expect(overlappingCopies(f.program, 'p1')).toEqual([])
  })
  it('letters touch by their own outlines, layer by layer; one behind the other they do not', () => {
    const text = { type: 'text', words: 'AV', shows: 'letters', decimals: 0, prefix: '', suffix: '' } as const
    const made = (dx: number, deep: boolean, z = '0px') => {
      const b = new Builder('Letters', 1)
      b.do(setEye(b.piece, 1000))
      const depth = b.part('Depth', { type: 'group' }, deep ? { copies: { layout: 'layers', count: 3, dz: 8 } } : {})
      const copies = { layout: 'row', count: 2, dx, dy: 0 } as const
      const id = b.part('Letters', { ...text, align: 'middle' }, { parent: depth, copies }, { size: 100 })
      b.drive(id, 'z', z)
      return overlappingCopies(new Program(b.piece), id).map(t => [t.a, t.b])
    }
    // Boxes of 62 px overlap at 50; the slanted outlines do not.
    expect(made(56, false)).toEqual([])
    expect(made(30, false)).toEqual([[0, 1]])
    expect(made(30, true)).toEqual([
      [0, 1],
      [2, 3],
      [4, 5],
    ])
    expect(made(30, false, 'index * 40px')).toEqual([])
  })
})
