import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { toNumber } from '../time/rational.ts'
import { parse } from './parse.ts'
import type { Node } from './tree.ts'

/** A tree as brackets, to compare shapes by. */
function shape(n: Node): string {
  switch (n.type) {
    case 'number':
      return `${toNumber(n.value)}${n.unit}`
    case 'name':
      return n.name
    case 'member':
      return `${shape(n.of)}.${n.name}`
    case 'index':
      return `${shape(n.of)}[${shape(n.at)}]`
    case 'call':
      return `${n.name}(${n.args.map(a => (a.label ? `${a.label}:` : '') + shape(a.value)).join()})`
    case 'unary':
      return `(${n.op} ${shape(n.of)})`
    case 'binary':
      return `(${shape(n.left)} ${n.op} ${shape(n.right)})`
    case 'if':
      return `(if ${shape(n.test)} ${shape(n.yes)} ${shape(n.no)})`
    case 'on':
      return `(${shape(n.of)} on ${n.clock})`
  }
}
const read = (text: string): string => {
  const { formula, problems } = parse(text)
  return formula
    ? [...formula.lets.map(l => `${l.name}=${shape(l.value)};`), shape(formula.body)].join(' ')
    : `! ${problems[0]!.message}`
}

describe('the grammar', () => {
  it.each([
    ['1 + 2 * 3', '(1 + (2 * 3))'],
    ['1 - 2 - 3', '((1 - 2) - 3)'],
    ['2 / 3 / 4', '((2 / 3) / 4)'],
    ['-2 ^ 2', '(- (2 ^ 2))'],
    ['2 ^ -3 ^ 2', '(2 ^ (- (3 ^ 2)))'],
    ['(1 + 2) * 3', '((1 + 2) * 3)'],
    ['not a < b and c or d', '(((not (a < b)) and c) or d)'],
    ['if a then 1 else if b then 2 else 3', '(if a 1 (if b 2 3))'],
    ['time * 45deg/s on slow', '((time * 45deg/s) on slow)'],
    ['(time on slow) + time', '((time on slow) + time)'],
    ['let a = 2; let b = a * 3; a + b', 'a=2; b=(a * 3); (a + b)'],
    ['sine(freq: 0.5Hz, amp: 24px)', 'sine(freq:0.5Hz,amp:24px)'],
    ['mount[index - 1].y', 'mount[(index - 1)].y'],
    ['`Ticket arch`.rotation', 'Ticket arch.rotation'],
    ['1 + 2 // the rest is a note', '(1 + 2)'],
    ['IF TIME < 3S THEN 1 ELSE 0', '(if (TIME < 3S) 1 0)'],
    ['größe + 作り', '(größe + 作り)'],
    ['f()', 'f()'],
  ])('%s', (text, tree) => expect(read(text)).toBe(tree))

  it.each([
    ['45deg/s', '45deg/s'],
    ['90deg/speed', '(90deg / speed)'],
    ['90deg/s.x', '(90deg / s.x)'],
    ['3/lap', '(3 / 1lap)'],
    ['waves/lap', '(waves / 1lap)'],
    ['12/s', '(12 / 1s)'],
    ['time / lap', '(time / lap)'],
    ['time/lap', '(time / 1lap)'],
    ['1e3px', '1000px'],
    ['2e', '2e'],
    ['.5s', '0.5s'],
    ['50%', '50%'],
    ['30%/s', '30%/s'],
  ])('numbers and units: %s', (text, tree) => expect(read(text).startsWith(tree)).toBe(true))

  it('keeps the place of every number and name', () => {
    const text = 'base + sine(every: 2s, amp: -24px)'
    const { formula } = parse(text)
    const sum = formula!.body as Extract<Node, { type: 'binary' }>
    const call = sum.right as Extract<Node, { type: 'call' }>
    expect(text.slice(call.args[0]!.value.from, call.args[0]!.value.to)).toBe('2s')
    expect(text.slice(call.args[1]!.labelAt!.from, call.args[1]!.labelAt!.to)).toBe('amp')
    expect(text.slice(call.from, call.to)).toBe('sine(every: 2s, amp: -24px)')
  })
})

describe('what cannot be read', () => {
  it.each([
    ['', /no formula yet/],
    ['   // only a note', /no formula yet/],
    ['1 +', /missing after \+/],
    ['sine(every: 2s', /never closed/],
    ['1 + 2)', /closes nothing/],
    ['sine(every: 2s]', /expected, not \]/],
    ['a < b < c', /two sides/],
    ['a = 3', /compare, write ==/],
    ['2 time', /no operator between 2 and time/],
    ['3 * * 4', /missing/],
    ['`Ticket arch.rotation', /closing backquote/],
    ['if a then 2', /breaks off|missing/],
    ['a § b', /§/],
    ['1e999', /too large/],
  ])('%s', (text, says) => {
    const { formula, problems } = parse(text)
    expect(formula).toBeNull()
    expect(problems[0]!.message).toMatch(says)
    expect(problems[0]!.from).toBeGreaterThanOrEqual(0)
    expect(problems[0]!.to).toBeLessThanOrEqual(text.length)
  })

  it('names its limits', () => {
    expect(parse('1+'.repeat(1001)).problems[0]!.code).toBe('limit')
    expect(parse(`${'('.repeat(80)}1${')'.repeat(80)}`).problems[0]!.message).toMatch(/64 deep/)
  })

  it('never breaks on any text', () => {
    const piece = fc.constantFrom(
      ...'time sine( noise ) + - * / ^ 45deg/s 3/lap , : ; = [ ] . ` if then else and not on let // 1e 0.5 % § \n index'.split(
        ' ',
      ),
    )
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string({ maxLength: 200 }),
          fc.array(piece, { maxLength: 60 }).map(a => a.join(' ')),
        ),
        text => {
          const { formula, problems } = parse(text)
          if (!formula) {
            const p = problems[0]!
            expect(p.message.length).toBeGreaterThan(5)
            expect(p.from).toBeLessThanOrEqual(p.to)
          }
        },
      ),
      { numRuns: 3000 },
    )
  })
})
