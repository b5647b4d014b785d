/**
 * Every function, and every function on every other, while something that they read is still being worked out: what
 * is read within a limit ends, and once the work is done it is what it would have been without one.
 */
import { describe, expect, it } from 'vitest'
import { Program } from '../engine/program.ts'
import { parse } from '../formula/parse.ts'
import type { Span } from '../formula/problem.ts'
import { everyNode, type CallNode } from '../formula/tree.ts'
import { exampleFair } from '../manual/example-fair.ts'
import { at } from '../testing/fair.ts'
import type { Entry } from './entry.ts'
import { FUNCTIONS } from './index.ts'

const SOURCE = 'accumulate(noise(64Hz) ^ 2 * 0.1px/s)'
/** Far enough for more cells than are added up at once. */
const FAR = at(12)
const SOON = at(3.3)
const UNITS = ['', 'px', 'deg', 's', 'Hz', 'px/s', 'deg/s']

/** A fair whose source is pending, with `inner` as a signal where it is given, and `text` where `entry` has its example. */
function program(entry: Entry, text: string, inner?: string): { program: Program; key: string } {
  const { b, ids } = exampleFair()
  b.drive(b.part('Source', { type: 'ellipse' }), 'x', SOURCE)
  if (inner !== undefined) b.signal('inner', inner)
  const key = `${ids[entry.example.part] ?? ids.Carousel}.${entry.example.property}`
  b.drive((ids[entry.example.part] ?? ids.Carousel)!, entry.example.property, text)
  return { program: new Program(b.piece), key }
}

/** The example of an entry with § let into each of its arguments: all that run with a plain value there. */
function templatesOf(entry: Entry): string[] {
  const { text } = entry.example
  const call = everyNode(parse(text).formula!).find(
    (n): n is CallNode => n.type === 'call' && n.name.toLowerCase() === entry.name.toLowerCase(),
  )!
  const into = ({ from, to }: Span): string[] => {
    const runs = UNITS.map(
      unit => `${text.slice(0, from)}(${text.slice(from, to)} + (§) * 0.1${unit})${text.slice(to)}`,
    ).find(made => {
      const { program: p, key } = program(entry, made.replace('§', 'Source.x / 1px'))
      return p.slots.get(key)!.running === 'text'
    })
    return runs === undefined ? [] : [runs]
  }
  const all = call.args.flatMap(a => into(a.value))
  // What takes only names and what is steady stands beside it.
  return all.length > 0 ? all : into({ from: 0, to: text.length })
}

/** Value and bounds at a moment, as they come out within a limit once all work is done, and at once without. */
function bothWays(entry: Entry, text: string, inner?: string, when = FAR): void {
  const limitedly = program(entry, text, inner)
  const reader = limitedly.program.slots.get(limitedly.key)!.readers.at(-1)!
  const { queue } = limitedly.program
  const read = () => queue.withinBudget(() => [reader.at(when), reader.facts().bounds.low, reader.at(when)])
  read()
  for (let turns = 0; !queue.advance(1); turns++) expect(turns, text).toBeLessThan(100_000)
  let seen = read()
  for (let turns = 0; !queue.advance(1) && turns < 100; turns++) {
    while (!queue.advance(1));
    seen = read()
  }
  const plain = program(entry, text, inner)
  const other = plain.program.slots.get(plain.key)!.readers.at(-1)!
  const meant = plain.program.queue.settle(() => [other.at(when), other.facts().bounds.low, other.at(when)])
  expect(seen, text).toEqual(meant)
}

const UNIT_OF: Readonly<Record<string, string>> = { rotation: 'deg', x: 'px', y: 'px' }
/** Those whose sums and other moments wait by themselves are tried on all; the rest with PAIRS=all. */
const WAITING = ['sine', 'accumulate', 'average', 'delay', 'hold']
const OUTER = process.env.PAIRS === 'all' ? FUNCTIONS : FUNCTIONS.filter(e => WAITING.includes(e.name))
const TEMPLATES = new Map(FUNCTIONS.map(e => [e, templatesOf(e)] as const))

describe('while something is pending', () => {
  it('every function that can read it is among those tried', () => {
    expect(FUNCTIONS.filter(e => TEMPLATES.get(e)!.length === 0).map(e => e.name)).toEqual([])
  })
  it.each(FUNCTIONS.map(e => [e.name, e] as const))('%s ends and is what it is', (_, entry) => {
    for (const text of TEMPLATES.get(entry)!) bothWays(entry, text.replace('§', 'Source.x / 1px'))
  })
  it.each(FUNCTIONS.map(e => [e.name, e] as const))('every function on %s does', (_, inner) => {
    // What stands still once it is there costs the sums round it little.
    const made = TEMPLATES.get(inner)![0]!.replace('§', 'at(Source.x, 12s) / 1px')
    const unit = UNIT_OF[inner.example.property]
    for (const outer of OUTER)
      bothWays(outer, TEMPLATES.get(outer)![0]!.replace('§', `inner${unit ? ` / 1${unit}` : ''}`), made, SOON)
  })
})
