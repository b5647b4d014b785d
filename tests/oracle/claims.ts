/** Trials of claims: what is said for all time of a formula, held against values worked out from the page alone. */
import { bySecond } from '../../core/form/compiled-expression.ts'
import { closureOf } from '../../core/insight/closure.ts'
import { jumpsOf } from '../../core/insight/leaps.ts'
import { isBounded } from '../../core/facts/interval.ts'
import { momentOfSeconds } from '../../core/time/moment.ts'
import { ONE, ZERO, toNumber } from '../../core/time/rational.ts'
import { doubt, num, valueOf } from './evaluate.ts'
import { LAMPS, tried, type Tried } from './fair.ts'
import { ofDouble, plus, q, toDouble, type Q } from './fraction.ts'
import { random } from '../random.ts'
import { KINDS } from './made.ts'
import { LAP } from './world.ts'

export interface Claims {
  readonly kind: string
  claims: number
  wrong: number
  /** Said to be unknown though it is plain: what the trial finds at every moment it looks at. */
  unproven: number
  /** Bounds wider than one and a half times what is reached. */
  loose: number
  worst: number
  readonly examples: string[]
}

const turns = (x: number): number => Math.abs(x - Math.round(x))

/** Moments over four laps and some before 0, none of them on a whole frame only. */
const MOMENTS: Q[] = Array.from({ length: 160 }, (_, k) => q(k * 47 - 1500, 193))

function oracle(text: string, index: number, t: Q): number | null {
  doubt.seen = false
  const v = num(valueOf(text, t, { index, count: LAMPS }))
  return doubt.seen || !Number.isFinite(v) ? null : v
}

/** Moments at which a formula made of plain numbers may leap, and a hair before and after each. */
const CANDIDATES: Q[] = Array.from({ length: 12 * 20 + 40 }, (_, k) => q(k - 40, 20))
const HAIR = ofDouble(2 ** -26)

export function tryClaims(formulas: number, seed: number, only?: string): Claims[] {
  return KINDS.filter(k => !only || k.name === only).map((kind, i) => {
    const r = random(seed + 31 * i)
    const tally: Claims = { kind: kind.name, claims: 0, wrong: 0, unproven: 0, loose: 0, worst: 1, examples: [] }
    for (let n = 0; n < formulas; n++) {
      const text = kind.make(r)
      const core = tried(text)
      if (core.problems.length === 0) tryOne(text, r(LAMPS), core, tally)
    }
    return tally
  })
}

function tryOne(text: string, index: number, core: Tried, tally: Claims): void {
  const form = core.reader(index)
  const { measures, queue } = core.program
  const told = (what: string) => tally.examples.push(`${text} [${index}]: ${what}`)
  const values = MOMENTS.map(t => oracle(text, index, t))
  const known = values.filter((v): v is number => v !== null)
  if (known.length < 120) return

  // Bounds.
  const { bounds } = core.driven(index).facts()
  tally.claims++
  const [low, high] = [Math.min(...known), Math.max(...known)]
  if (low < bounds.low - 1e-9 || high > bounds.high + 1e-9) {
    tally.wrong++
    told(`bounds ${bounds.low} … ${bounds.high}, but ${low} … ${high} is reached`)
  } else if (isBounded(bounds)) {
    const range = core.extremes(index, low, high)
    const ratio = (bounds.high - bounds.low) / Math.max(range, 1e-12)
    if (range > 1e-9 && ratio > 1.5) {
      tally.loose++
      tally.worst = Math.max(tally.worst, ratio)
      told(`bounds ${bounds.low} … ${bounds.high} are ${ratio.toFixed(1)} times ${range}`)
    }
  } else if (
    high - low < 3 &&
    Math.max(...known.map(Math.abs)) < 4 &&
    !/accumulate|time \*|carry|idler|Index|count\(|frame|time \//.test(text)
  ) {
    tally.loose++
    told(`no bounds, though ${low} … ${high}`)
  }

  // Closing at the lap.
  const closure = closureOf(form, core.program, ZERO, ONE, ONE)
  tally.claims++
  // What is said of a lap is said from its start on, at 0.
  const from = closure.verdict === 'later' ? toNumber(closure.from) : 0
  const gaps = MOMENTS.map(t => {
    if (toDouble(t) < from) return null
    const [a, b] = [oracle(text, index, t), oracle(text, index, plus(t, LAP))]
    return a === null || b === null ? null : turns(b - a)
  }).filter((g): g is number => g !== null)
  const gap = Math.max(0, ...gaps)
  if (closure.verdict === 'yes' || closure.verdict === 'symmetry' || closure.verdict === 'later') {
    if (gap > 1e-6) {
      tally.wrong++
      told(`is said to close (${closure.verdict}), but ${gap} is left`)
    }
  } else if (closure.verdict === 'no' && gap < 1e-9) {
    tally.wrong++
    told('is said not to close, but does')
  } else if (closure.verdict === 'unproven' && gap < 1e-9) {
    tally.unproven++
    told('closes, which is not proven')
  }

  // Leaps.
  const { jumps, more } = jumpsOf(form, core.program, 1)
  tally.claims++
  const own = bySecond(form, measures.frameRate)
  for (const t of CANDIDATES) {
    const [before, after] = [
      oracle(text, index, plus(t, { n: -HAIR.n, d: HAIR.d })),
      oracle(text, index, plus(t, HAIR)),
    ]
    if (before === null || after === null || turns(after - before) < 1e-4) continue
    const at = toDouble(t)
    const is = jumps.some(j => {
      const away = at - toNumber(j.at)
      if (!j.every) return Math.abs(away) < 1e-6
      const rounds = away / toNumber(j.every)
      return Math.abs(rounds - Math.round(rounds)) < 1e-5
    })
    if (is || more) continue
    tally.wrong++
    told(`leaps at ${at} s by ${after - before}, which is not told`)
    break
  }
  for (const j of jumps.slice(0, 6)) {
    const at = toNumber(j.at)
    const [before, after] = [at - 1e-6, at + 1e-6].map(s => queue.settle(() => own(s))) as [number, number]
    const there = queue.settle(() => form.at(momentOfSeconds(j.at, measures.frameRate)))
    if (turns(after - before) > 1e-5 || turns(there - after) > 1e-5) continue
    tally.wrong++
    told(`is said to leap at ${at} s, but does not`)
    break
  }
}
