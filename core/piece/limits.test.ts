import { describe, expect, it } from 'vitest'
import { heavy } from '../../demo/heavy.ts'
import { lanternPier } from '../../demo/lantern-pier.ts'
import { readPiece } from './migrate.ts'
import { LONGEST_FORMULA } from './values.ts'

// eslint-disable-next-line @typescript-eslint/no-explicit-any
type Loose = any

/** What is said of the demo with a change. */
function said(change: (d: Loose) => void): string | null {
  const d = JSON.parse(JSON.stringify(lanternPier()))
  change(d)
  return readPiece(d).problem
}

describe('what a document may hold', () => {
  it.each([
    ['a number that is too large', (d: Loose) => (d.lap.start = 1e21), /At lap\.start: This must be between/],
    ['a field that is none', (d: Loose) => (d.parts.p1.colour = 1), /At parts\.p1\.colour: Unknown field/],
    ['a field that is missing', (d: Loose) => delete d.parts.p1.name, /At parts\.p1\.name: This is missing/],
    ['a reserved for an id', (d: Loose) => (d.parts.constructor = d.parts.p1), /reserved/],
    ['its own kind of it', (d: Loose) => (d.dials = JSON.parse('{"__proto__": {}}')), /reserved/],
    ['half a character', (d: Loose) => (d.parts.p1.name = 'a\ud800'), /invalid character/],
    ['a character that is none', (d: Loose) => (d.title = 'a\0b'), /invalid character/],
    ['a list for entries', (d: Loose) => (d.cues = []), /must be cues by their ids/],
    [
      'a clock on a word',
      (d: Loose) =>
        (d.clocks.k1 = { name: 'slow', order: 0, on: 'toString', way: { type: 'restart', every: 2 }, hold: null }),
      /reserved/,
    ],
    ['a version that is none', (d: Loose) => (d.version = 1.5), /has no version/],
  ])('%s is refused with its place', (_, change, says) => {
    expect(said(change)).toMatch(says)
  })
  it('parts in parts hang at most 200 deep, and a chain of 2,000 is told at once', () => {
    const deep = (count: number) => (d: Loose) => {
      let parent: string | null = null
      for (let i = 0; i < count; i++) {
        d.parts[`q${i}`] = { ...d.parts.p1, name: `q${i}`, parent, copies: null }
        parent = `q${i}`
      }
    }
    expect(said(deep(150))).toBeNull()
    expect(said(deep(1900))).toMatch(/more than 200 levels deep/)
  })
  it('10,000 parts, each with a formula, are a piece, and one more is too many', () => {
    const piece: Loose = heavy(10_000)
    expect(readPiece(piece).problem).toBeNull()
    const more = { ...piece, parts: { ...piece.parts, more: { ...piece.parts.p1, name: 'more' } } }
    expect(readPiece(more).problem).toMatch(/10,000 parts/)
  })
  it('all parts with their copies have a limit of their own', () => {
    const many = (d: Loose) => {
      for (let i = 0; i < 30; i++)
        d.parts[`q${i}`] = {
          ...d.parts.p1,
          name: `q${i}`,
          parent: null,
          copies: { layout: 'row', count: 4900, dx: 1, dy: 1 },
        }
    }
    expect(said(many)).toMatch(/all their copies add up to more than 120000/)
  })
  it('a long formula is kept, though it does not run', () => {
    const long = (length: number) => (d: Loose) =>
      ((Object.values(d.drives)[0] as Loose).text = '1 + '.repeat(length / 4))
    expect(said(long(8000))).toBeNull()
    expect(said(long(LONGEST_FORMULA + 4))).toMatch(/At most 20,000 characters/)
  })
  it('what is taken is taken again as it is', () => {
    const once = readPiece(JSON.parse(JSON.stringify(lanternPier()))).piece!
    expect(readPiece(once).piece).toEqual(once)
    expect(once).toEqual(lanternPier())
  })
})
