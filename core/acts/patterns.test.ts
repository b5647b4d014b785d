import { describe, expect, it } from 'vitest'
import { Program } from '../engine/program.ts'
import { readPiece } from '../piece/migrate.ts'
import { momentOfSeconds } from '../time/moment.ts'
import { fromNumber } from '../time/rational.ts'
import { Builder } from './build.ts'
import { belonging, missing, patternOf, putOnAll, putPattern, rolesOf } from './patterns.ts'
import { SHIPPED, shipped } from './shipped.ts'

const value = (b: Builder, key: string, seconds: number, copy = 0) => {
  const p = new Program(b.piece)
  return p.queue.settle(() =>
    p.slots.get(key)!.readers[copy]!.at(momentOfSeconds(fromNumber(seconds), p.measures.frameRate)),
  )
}
const sound = (b: Builder) => {
  expect(readPiece(JSON.parse(JSON.stringify(b.piece))).problem).toBeNull()
  for (const slot of new Program(b.piece).slots.values())
    expect(slot.problems.filter(p => p.level === 'error')).toEqual([])
}

describe('the patterns that ship', () => {
  it('are a dozen', () => expect(SHIPPED).toHaveLength(12))
  it.each(SHIPPED)('%s is a sound piece that moves', name => {
    const piece = shipped(name)
    expect(readPiece(JSON.parse(JSON.stringify(piece))).problem).toBeNull()
    const program = new Program(piece)
    expect([...program.slots.values()].flatMap(s => s.problems)).toEqual([])
    const at = (s: number) => [
      ...program.moment(momentOfSeconds(fromNumber(s), program.measures.frameRate), new Float64Array(program.size)),
    ]
    expect([0.3, 0.9, 1.31, 1.7].some(s => at(s).join() !== at(0).join())).toBe(true)
  })
  it.each(SHIPPED)('%s is put on parts of another piece and drives them as it did its own', name => {
    const pattern = shipped(name)
    const b = new Builder('Elsewhere', 3)
    b.piece = { ...b.piece, lap: pattern.lap }
    const places = new Map(
      Object.entries(pattern.parts).map(([id, part]) => [
        id,
        b.part(`My ${part.name}`, part.shape, { copies: part.copies, span: null }, {}),
      ]),
    )
    b.do(putPattern(b.piece, pattern, places))
    sound(b)
    expect(Object.keys(b.piece.drives)).toHaveLength(Object.keys(pattern.drives).length)
    for (const key of Object.keys(pattern.drives))
      expect(b.piece.drives[key.replace(/^[^.]+/, id => places.get(id)!)]!.text).not.toContain('rolewithoutname')
  })
})

describe('what belonged to a span or a lap', () => {
  it('follows those of where it is put', () => {
    const span = { from: 2, to: 5 }
    expect(belonging('ramp(start: 2s, length: 1s, to: 4px) + ramp(start: 5s, length: 3s)', span, 8)).toBe(
      'ramp(start: spanStart, length: 1s, to: 4px) + ramp(start: spanEnd, length: (spanEnd - spanStart))',
    )
    expect(belonging('sine(every: 8s) + sine(every: 8000ms) + sine(every: 4s)', null, 8)).toBe(
      'sine(every: 1lap) + sine(every: 1lap) + sine(every: 4s)',
    )
    expect(belonging('ramp(start: 5s - 2s, length: 2s) + (time - 2s) * 3px/s', span, 8)).toBe(
      'ramp(start: spanEnd - 2s, length: 2s) + (time - spanStart) * 3px/s',
    )
    expect(belonging('8px + 8deg', null, 8)).toBe('8px + 8deg')
    expect(belonging('sine(', null, 8)).toBe('sine(')
  })
})

describe('a pattern from an arrow', () => {
  const fair = () => {
    const b = new Builder('Fair', 1)
    const span = { from: 1, to: 4 }
    const arrow = b.part('Exit arrow', { type: 'line' }, { span }, { width: 300 })
    b.dial('glow', { low: 0, high: 1, value: 0.5, initial: 0.5 })
    b.signal('pulse', 'sine(every: 2s, amp: glow)')
    b.drive(arrow, 'lineEnd', 'ramp(start: 1s, length: 1s, from: 0%, to: 100%)')
    b.drive(arrow, 'opacity', '100% - pulse * 20%')
    return { b, arrow, pattern: patternOf(b.piece, [arrow], 'In and out') }
  }
  it('holds what its formulas need, and nothing else', () => {
    const { pattern } = fair()
    expect(Object.values(pattern.signals).map(s => s.name)).toEqual(['pulse'])
    expect(Object.values(pattern.dials).map(d => d.name)).toEqual(['glow'])
    expect(Object.values(pattern.drives)[0]!.text).toBe('ramp(start: spanStart, length: 1s, from: 0%, to: 100%)')
    expect(rolesOf(pattern).map(r => [r.name, r.driven])).toEqual([['Exit arrow', ['lineEnd', 'opacity']]])
    expect(readPiece(JSON.parse(JSON.stringify(pattern))).problem).toBeNull()
  })
  it('on three others with longer spans begins with each of them', () => {
    const { pattern } = fair()
    const b = new Builder('Other', 2)
    const to = [10, 20, 30].map((from, k) =>
      b.part(`Line ${k}`, { type: 'line' }, { span: { from, to: from + 8 } }, {}),
    )
    b.do(putOnAll(b.piece, pattern, to))
    sound(b)
    to.forEach((id, k) => {
      expect(value(b, `${id}.lineEnd`, 10 + 10 * k)).toBeCloseTo(0, 9)
      expect(value(b, `${id}.lineEnd`, 10.5 + 10 * k)).toBeCloseTo(0.5, 9)
    })
    // What they share came once.
    expect(Object.keys(b.piece.signals)).toHaveLength(1)
    expect(Object.keys(b.piece.dials)).toHaveLength(1)
  })
  it('renames what clashes, and reads what is just the same', () => {
    const { b, pattern } = fair()
    const line = b.part('Line', { type: 'line' }, {}, {})
    b.do(putPattern(b.piece, pattern, new Map([[Object.keys(pattern.parts)[0]!, line]])))
    expect(Object.keys(b.piece.signals)).toHaveLength(1)
    const other = new Builder('Other', 2)
    other.dial('glow', { low: 0, high: 9, value: 9, initial: 9 })
    const its = other.part('Pulse', { type: 'line' }, {}, {})
    other.do(putPattern(other.piece, pattern, new Map([[Object.keys(pattern.parts)[0]!, its]])))
    sound(other)
    expect(Object.values(other.piece.dials).map(d => d.name)).toEqual(['glow', 'glow2'])
    expect(Object.values(other.piece.signals)[0]).toMatchObject({ name: 'pulse2', text: 'sine(every: 2s, amp: glow2)' })
    expect(other.piece.drives[`${its}.opacity`]!.text).toBe('100% - pulse2 * 20%')
  })
  it('with roles that change names with one another keeps who reads whom', () => {
    const b = new Builder('Two', 1)
    const a = b.part('A', { type: 'ellipse' }, {}, {})
    const c = b.part('B', { type: 'ellipse' }, {}, {})
    b.drive(a, 'x', 'time * 10px/s')
    b.drive(c, 'x', 'A.x * 2')
    const pattern = patternOf(b.piece, [a, c], 'Pair')
    const ids = Object.keys(pattern.parts)
    b.do(
      putPattern(
        b.piece,
        pattern,
        new Map([
          [ids[0]!, c],
          [ids[1]!, a],
        ]),
      ),
    )
    expect(b.piece.drives[`${a}.x`]!.text).toBe('B.x * 2')
    expect(value(b, `${a}.x`, 3)).toBeCloseTo(60, 9)
  })
  it('on a part without copies runs as on the first of one', () => {
    for (const name of SHIPPED) {
      const pattern = shipped(name)
      if (rolesOf(pattern).length > 1) continue
      const b = new Builder('Alone', 3)
      const shape = Object.values(pattern.parts)[0]!.shape
      const part = b.part('Alone', shape)
      b.do(putOnAll(b.piece, pattern, [part]))
      sound(b)
    }
    const b = new Builder('Alone', 3)
    const reed = b.part('Reed', { type: 'rectangle' })
    const group = b.part('Row', { type: 'group' }, { copies: { layout: 'row', count: 3, dx: 40, dy: 0 } })
    const child = b.part('Child', { type: 'rectangle' }, { parent: group })
    b.do(putOnAll(b.piece, shipped('Sway in the wind'), [reed, child]))
    expect(b.piece.drives[`${reed}.rotation`]!.text).toContain('phase: 0 * 70deg')
    expect(b.piece.drives[`${child}.rotation`]!.text).toContain('phase: index * 70deg')
    sound(b)
  })
  it('says what a part cannot be given, and leaves it', () => {
    const { pattern } = fair()
    const b = new Builder('Words', 2)
    const group = b.part('Group', { type: 'group' }, {}, {})
    const [role] = rolesOf(pattern)
    expect(missing(b.piece.parts[group]!, role!)).toEqual(['lineEnd'])
    b.do(putPattern(b.piece, pattern, new Map([[role!.id, group]])))
    expect(Object.keys(b.piece.drives)).toEqual([`${group}.opacity`])
  })
  it('of what is only read takes a part along as a role without drives', () => {
    const b = new Builder('Follow', 1)
    const lead = b.part('Lead', { type: 'ellipse' }, {}, {})
    const tail = b.part('Tail', { type: 'ellipse' }, {}, {})
    b.drive(lead, 'x', 'sine(every: 2s, amp: 9px)')
    b.drive(tail, 'x', 'delay(Lead.x, 0.2s)')
    const pattern = patternOf(b.piece, [tail], 'Tail after')
    expect(rolesOf(pattern).map(r => [r.name, r.driven.length])).toEqual([
      ['Tail', 1],
      ['Lead', 0],
    ])
  })
})
