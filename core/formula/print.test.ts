import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { FUNCTIONS } from '../functions/index.ts'
import { parse } from './parse.ts'
import { print, printFormula, sameTree } from './print.ts'

const back = (text: string) => {
  const { formula } = parse(text)
  return formula && printFormula(formula)
}

const node: fc.Arbitrary<string> = fc.letrec(tie => ({
  n: fc.oneof(
    { depthSize: 'small', withCrossShrink: true },
    fc.constantFrom(
      '1',
      '.5',
      '45deg',
      '0.125turn',
      '3px/f',
      '12%',
      '2.50s',
      'time',
      'carousel.rotation',
      '`Ticket arch`.x',
      'mount[index - 1].y',
      'basin.height(own.x, z: 3px)',
      '3/lap',
      'time/s',
      '1e-3',
    ),
    fc
      .tuple(tie('n'), fc.constantFrom('+', '-', '*', '/', '^', '<', '==', 'and', 'or'), tie('n'))
      .map(([a, op, b]) => `(${a}) ${op} (${b})`),
    fc.tuple(tie('n'), fc.constantFrom('+', '-', '*', '/'), tie('n')).map(([a, op, b]) => `${a} ${op} ${b}`),
    tie('n').map(a => `-(${a})`),
    tie('n').map(a => `not (${a})`),
    fc.tuple(tie('n'), tie('n'), tie('n')).map(([a, b, c]) => `(if ${a} then ${b} else ${c})`),
    fc.tuple(tie('n'), tie('n')).map(([a, b]) => `clamp(${a}, low: ${b}, 3)`),
    tie('n').map(a => `(${a} on slow)`),
  ),
})).n as fc.Arbitrary<string>

describe('a tree as text', () => {
  it('reads back as the same tree', () => {
    fc.assert(
      fc.property(node, text => {
        const { formula } = parse(text)
        if (!formula) return
        const again = parse(print(formula.body)).formula
        expect(again && sameTree(formula.body, again.body), `${text} → ${print(formula.body)}`).toBe(true)
      }),
      { numRuns: 3000 },
    )
  })
  it('writes brackets only where they are needed', () => {
    expect(back('((1 + (2 * 3)))')).toBe('1 + 2 * 3')
    expect(back('(1 + 2) * 3 - (4 - 5)')).toBe('(1 + 2) * 3 - (4 - 5)')
    expect(back('let a=2 ; a^-(1+1)')).toBe('let a = 2;\na ^ -(1 + 1)')
    expect(back('waves / lap')).toBe('waves / lap')
    expect(back('3/lap')).toBe('3/lap')
  })
  it('keeps every example of the table', () => {
    for (const f of FUNCTIONS) {
      const { formula } = parse(f.example.text)
      expect(sameTree(parse(print(formula!.body)).formula!.body, formula!.body), f.name).toBe(true)
    }
  })
})
