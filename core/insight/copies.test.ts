/** What is said of a part in copies, held against every copy. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anAngleOfCopies } from '../testing/made-up-formulas.ts'
import { fairOfCopies, RATE } from '../testing/fair.ts'
import { momentOfSeconds, type Moment } from '../time/moment.ts'
import { ZERO, fromNumber, toNumber, type Rational } from '../time/rational.ts'
import { closureOf } from './closure.ts'
import { leapsOf } from './leaps.ts'
import { reportOf, symmetriesOf } from './report.ts'

const NEAR = 1e-6
/** Operations that one value may take. */
const MOST = 2000
const moment = (seconds: Rational | number): Moment =>
  momentOfSeconds(typeof seconds === 'number' ? fromNumber(Number(seconds.toFixed(9))) : seconds, RATE)

/** The formula on a ring of so many copies, and what is said of it; null where it is too much to be worked out. */
function copies(text: string, count: number) {
  const f = fairOfCopies(text, count)
  fc.pre(!f.slot.problems.some(p => p.code === 'heavy'))
  // Averages of averages of all copies take minutes to be held against every one.
  fc.pre(f.slot.forms.every(form => form.facts().cost.anew < MOST))
  expect(f.slot.problems.filter(p => p.level === 'error').map(p => p.message)).toEqual([])
  expect(f.slot.forms).toHaveLength(count)
  const at = (copy: number, m: Moment) => f.program.queue.settle(() => f.slot.forms[copy]!.at(m))
  const { natural, symmetry } = symmetriesOf(f.program, f.key)
  const round = toNumber(symmetry) || toNumber(natural)
  /** How far two values look apart: a part looks the same after a share of a turn. */
  const turns = (a: number, b: number) => Math.abs(a - b - Math.round((a - b) / round) * round)
  return { f, at, turns, report: reportOf(f.program, f.slot) }
}

const RUNS = Number(process.env.RUNS ?? 120)
/** Asked for by hand: as many as are wanted, however long that takes. */
const MANY = RUNS > 120
const cases = [
  anAngleOfCopies,
  fc.integer({ min: 2, max: 12 }),
  fc.array(fc.integer({ min: 0, max: 400_000 }), { minLength: 8, maxLength: 8 }),
] as const

describe('of copies', () => {
  it('what is said of all is so of every one', () => {
    const seen: Record<string, number> = {}
    fc.assert(
      fc.property(...cases, (text, count, drawn) => {
        const { f, at, turns, report } = copies(text, count)
        const lap = toNumber(f.program.measures.lapLength)
        const { closure } = report
        const said = /^(settles after|every|still)/.exec(report.period)?.[0] ?? ''
        seen[`${closure.verdict} ${said}`] = (seen[`${closure.verdict} ${said}`] ?? 0) + 1
        const from = closure.verdict === 'later' ? toNumber(closure.from) : 0
        for (let copy = 0; copy < count; copy++) {
          const { bounds, repeats } = f.slot.forms[copy]!.facts()
          let off = 0
          for (const ms of drawn) {
            const t = ms / 1000
            const v = at(copy, moment(t))
            expect(v, `${text}, copy ${copy + 1}`).toBeGreaterThanOrEqual(bounds.low)
            expect(v, `${text}, copy ${copy + 1}`).toBeLessThanOrEqual(bounds.high)
            // The report rounds: its moments are looked at from a little later on.
            if (['yes', 'symmetry', 'later'].includes(closure.verdict) && t >= from + 0.01)
              if (turns(at(copy, moment(t + lap)), v) > NEAR) off++
            const rest = /^settles after (.*) s$/.exec(report.period)
            if ((rest && t > Number(rest[1]) + 0.06) || report.period === 'still')
              if (Math.abs(at(copy, moment(t + 7.3)) - at(copy, moment(t + 1))) > NEAR) off++
          }
          // Where the last bit of a sum decides on which side of a leap a moment lies, one look may differ.
          expect(off, `${text}, copy ${copy + 1} of ${count}: ${report.closes}, ${report.period}`).toBeLessThanOrEqual(
            1,
          )
          if (said === 'settles after') expect(repeats.every, text).not.toBeNull()
        }
        // The copy that is named is as bad as is said.
        if (closure.verdict === 'no' && report.copy !== null && !closure.within) {
          const gap = at(report.copy, moment(lap)) - at(report.copy, moment(0))
          expect(turns(gap, closure.gap), text).toBeLessThan(NEAR)
        }
      }),
      { numRuns: RUNS, interruptAfterTimeLimit: MANY ? 600_000 : 12_000 },
    )
    expect(Object.keys(seen).length).toBeGreaterThan(2)
    if (MANY) console.log(seen)
  })

  it('no copy is worse than the one that is named', () => {
    fc.assert(
      fc.property(anAngleOfCopies, fc.integer({ min: 2, max: 12 }), (text, count) => {
        const { f, at, turns, report } = copies(text, count)
        const lap = toNumber(f.program.measures.lapLength)
        if (report.closure.verdict !== 'no' || report.closure.within) return
        const { natural, symmetry } = symmetriesOf(f.program, f.key)
        for (let copy = 0; copy < count; copy++) {
          // One that settles is told apart: it is off at first, and no more later.
          const own = closureOf(f.slot.forms[copy]!, f.program, ZERO, natural, symmetry)
          if (own.verdict === 'later') continue
          const gap = turns(at(copy, moment(lap)), at(copy, moment(0)))
          expect(gap, `${text}, copy ${copy + 1}: ${report.closes}`).toBeLessThanOrEqual(
            Math.abs(report.closure.gap) + NEAR,
          )
        }
      }),
      { numRuns: RUNS, interruptAfterTimeLimit: MANY ? 600_000 : 8000 },
    )
  })

  it('every leap that is told is one, of the copy it is told of', () => {
    let looked = 0
    fc.assert(
      fc.property(anAngleOfCopies, fc.integer({ min: 2, max: MANY ? 12 : 4 }), (text, count) => {
        const { f, at } = copies(text, count)
        for (const jump of leapsOf(f.slot.forms, f.program, 0).jumps.slice(0, 6)) {
          const t = toNumber(jump.at)
          if (!Number.isFinite(jump.to - jump.from) || Math.abs(t) > 1e4) continue
          looked++
          const [before, here, behind] = [-1e-6, 0, 1e-6].map(h =>
            at(jump.copy, h === 0 ? moment(jump.at) : moment(t + h)),
          )
          const size = Math.abs(jump.to - jump.from)
          const there = Math.max(Math.abs(behind! - before!), Math.abs(here! - before!), Math.abs(behind! - here!))
          expect(there, `${text}, copy ${jump.copy + 1} at ${t} s`).toBeGreaterThan(size * 0.5)
        }
      }),
      { numRuns: MANY ? RUNS : 25, interruptAfterTimeLimit: MANY ? 600_000 : 8000 },
    )
    expect(looked).toBeGreaterThan(0)
  })
})
