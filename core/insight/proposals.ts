/** What to change so that a drive closes at the lap: the nearest numbers either way, and the shortest lap that closes all. */
import { numberChange, setHandle } from '../formula/edit.ts'
import { change, type Fix } from '../formula/problem.ts'
import { handles } from '../formula/tree.ts'
import type { Program } from '../engine/program.ts'
import { rewrite } from '../engine/rewrite.ts'
import { momentOfSeconds } from '../time/moment.ts'
import {
  ZERO,
  absolute,
  commonMultiple,
  compare,
  isWhole,
  isZero,
  over,
  rational,
  times,
  toNumber,
  type Rational,
} from '../time/rational.ts'
import { closureOf } from './closure.ts'
import { closureOfAll, factOfAll, isFew, isTooMany } from './many-copies.ts'
import { symmetriesOf } from './report.ts'

const CLOSED = new Set<string>(['yes', 'symmetry', 'later'])

/** Whether a drive closes in a program, at all its copies, if only from a moment on. */
export function closes(program: Program, key: string): boolean {
  const { natural, symmetry } = symmetriesOf(program, key)
  const slot = program.slots.get(key)
  if (!slot) return false
  const { measures, lapStart: start } = program
  const together = isFew(slot) ? null : closureOfAll(program, key, { measures, start, natural, symmetry })
  if (together || isTooMany(slot)) return together !== null
  return slot.forms.every(f => CLOSED.has(closureOf(f, program, start, natural, symmetry).verdict))
}

/** Numbers of a formula's that are tried, most. */
const TRIED = 6

/**
 * Fixes that make a drive close: for each number that sets a pace, the nearest value below and above with which
 * it does. Each is tried before it is proposed.
 */
export function closingNumbers(program: Program, key: string): Fix[] {
  const text = program.piece.drives[key]?.text ?? ''
  const formula = program.meanings.all.get(key)?.text?.formula
  if (!formula || closes(program, key)) return []
  const found: Fix[] = []
  handles(formula)
    .slice(0, TRIED)
    .forEach((n, nth) => {
      const near = nearestClosing(program, key, nth)
      for (const value of near) {
        const decimals = decimalsNeeded(value)
        const changes = [numberChange(text, n, value, decimals)]
        found.push({ label: change(text, changes), changes })
      }
    })
  return [...found, ...perLap(program, key)]
}

/** Frequencies as so many cycles a lap: what has no period of its own, as noise, closes that way. */
function perLap(program: Program, key: string): Fix[] {
  const { text, formula } = {
    text: program.piece.drives[key]!.text,
    formula: program.meanings.all.get(key)!.text!.formula,
  }
  const lap = toNumber(program.measures.lapLength)
  return handles(formula)
    .slice(0, TRIED)
    .filter(n => n.unit.toLowerCase() === 'hz')
    .flatMap(n => {
      const changes = [{ from: n.from, to: n.to, insert: `${Math.max(1, Math.round(toNumber(n.value) * lap))}/lap` }]
      const at = momentOfSeconds(ZERO, program.measures.frameRate)
      const made = rewrite(program, key, change(text, changes), at, false).program
      if (made.slots.get(key)?.running !== 'text' || !closes(made, key)) return []
      return [{ label: `${text.slice(n.from, n.to)} → ${changes[0]!.insert}`, changes }]
    })
}

const decimalsNeeded = (x: number) => Math.min(6, (/\.(\d+)/.exec(String(Number(x.toFixed(6))))?.[1] ?? '').length)

/** The nearest values of the n-th number, below and above, with which the drive closes. */
function nearestClosing(program: Program, key: string, nth: number): number[] {
  const formula = program.meanings.all.get(key)!.text!.formula
  const n = handles(formula)[nth]!
  const now = toNumber(n.value)
  if (now === 0) return []
  const wanted = (value: number): boolean => {
    const made = rewrite(
      program,
      key,
      setHandle(formula, nth, value, decimalsNeeded(value)),
      momentOfSeconds(ZERO, program.measures.frameRate),
      false,
    )
    return made.program.slots.get(key)?.running === 'text' && closes(made.program, key)
  }
  // A pace closes at whole parts of the symmetry in a lap: candidates are those shares of it, and of its inverse.
  const candidates = new Set<number>()
  const rate = program.slots.get(key)!.forms[0]!.facts().repeats
  const lap = program.measures.lapLength
  const { symmetry } = symmetriesOf(program, key)
  const unit =
    rate.every && isZero(rate.every) && !isZero(rate.gain) && !isZero(symmetry)
      ? over(times(rate.gain, lap), symmetry)
      : rate.every && !isZero(rate.every)
        ? over(lap, rate.every)
        : null
  if (!unit || isZero(unit)) return []
  const cycles = Math.abs(toNumber(unit))
  for (const k of [Math.floor(cycles), Math.ceil(cycles), Math.floor(cycles) - 1, Math.ceil(cycles) + 1]) {
    if (k <= 0) continue
    candidates.add(Number(((now * k) / cycles).toFixed(6)))
    candidates.add(Number(((now * cycles) / k).toFixed(6)))
  }
  const working = [...candidates].filter(c => c !== now && c > 0 && wanted(c))
  const below = working.filter(c => c < now).sort((a, b) => b - a)[0]
  const above = working.filter(c => c > now).sort((a, b) => a - b)[0]
  return [below, above].filter((c): c is number => c !== undefined)
}

/**
 * Spoke counts with which a gear of so many teeth closes, when it makes `turns` of a turn in a lap: what lines up at
 * the seam must be a whole number of the spokes that fall on each other.
 */
export const closingSpokes = (teeth: number, turns: Rational, most = MOST_COUNTED): number[] =>
  Array.from({ length: most - 1 }, (_, i) => i + 2).filter(spokes => lineUp(teeth, spokes, turns))

/** Counts of teeth with which a gear of so many spokes does; of one without spokes, those whose teeth alone line up. */
export const closingTeeth = (spokes: number, turns: Rational, most = MOST_COUNTED): number[] =>
  Array.from({ length: most - 3 }, (_, i) => i + 4).filter(teeth => lineUp(teeth, spokes, turns))

/** Spokes and teeth that are proposed, at most. */
const MOST_COUNTED = 60

function lineUp(teeth: number, spokes: number, turns: Rational): boolean {
  const common = (a: number, b: number): number => (b === 0 ? a : common(b, a % b))
  return isWhole(times(turns, rational(common(teeth, spokes))))
}

/** The shortest lap with which every drive closes that comes back at all; null when it would be longer than an hour. */
export function shortestLap(program: Program): Rational | null {
  let lap: Rational | null = null
  for (const [key, slot] of program.slots) {
    if (slot.offset < 0) continue
    const { symmetry } = symmetriesOf(program, key)
    // What is not known of all copies together may come back at any other time.
    const all = isTooMany(slot) ? [factOfAll(program, key, 'repeats')] : slot.forms.map(f => f.facts().repeats)
    for (const repeats of all) {
      if (repeats === null) return null
      const { every, gain } = repeats
      if (every === null) continue
      const own: Rational | null = isZero(gain) ? every : isZero(symmetry) ? null : over(symmetry, absolute(gain))
      if (!own || isZero(own)) continue
      lap = lap ? commonMultiple(lap, own) : own
      if (compare(lap, rational(3600)) > 0) return null
    }
  }
  return lap
}
