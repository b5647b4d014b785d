/** Trials of values: formulas by kind, each at many moments, against the evaluator written from the page. */
import { doubt, isQ, num, valueOf, type V } from './evaluate.ts'
import { LAMPS, tried } from './fair.ts'
import { q, toDouble, type Q } from './fraction.ts'
import { random } from '../random.ts'
import { KINDS, type Kind } from './made.ts'

export interface Tally {
  readonly kind: string
  formulas: number
  values: number
  /** Values that differ, formulas that were refused, and values the trial itself is not sure of. */
  wrong: number
  refused: number
  unsure: number
  readonly examples: string[]
}

const YEAR = 31_557_600

/** Whole seconds, frames, sevenths, moments before 0; far away too, where that is asked for. */
function moments(far: boolean, salt: number): Q[] {
  const near = [0, 1, 2, 3, 4, 5, 7, 8, 12, 16].map(n => q(n))
  const frames = [1, 5, 14, 15, 37, 60, 75, 155, 163, 210, 299].map(n => q(n + (salt % 7) * 15, 30))
  const odd = [3, 11, 29, 61].map(n => q(n + salt, 7))
  const before = [q(-1), q(-5, 2), q(-7, 30), q(-8)]
  const away = far
    ? [
        q(86_400),
        q(86_400 * 30 + 7, 30),
        q(YEAR),
        q(YEAR * 30 + salt, 30),
        q(-86_400),
        q(100_000 + salt),
        q(YEAR + 1, 3),
      ]
    : [q(20), q(1234, 60)]
  return [...near, ...frames, ...odd, ...before, ...away]
}

/** To the bit for whole turns, where that is promised; else to 1e-9 of what it is, or 1e-8 where the trial adds up a rate. */
function agree(seen: number, meant: V, { far, exact }: Kind): boolean {
  if (exact && isQ(meant) && meant.d === 1n) return seen === toDouble(meant)
  const m = num(meant)
  return Math.abs(seen - m) <= (far ? 1e-9 : 1e-8) * Math.max(1, Math.abs(m))
}

export function tryKind(kind: Kind, formulas: number, seed: number): Tally {
  const r = random(seed)
  const tally: Tally = { kind: kind.name, formulas, values: 0, wrong: 0, refused: 0, unsure: 0, examples: [] }
  for (let n = 0; n < formulas; n++) {
    const text = kind.make(r)
    const core = tried(text)
    const index = r(LAMPS)
    if (core.problems.length > 0) {
      tally.refused++
      tally.examples.push(`${text}: ${core.problems[0]}`)
      continue
    }
    let shown = false
    for (const t of moments(kind.far, n)) {
      doubt.seen = false
      const meant = valueOf(text, t, { index, count: LAMPS })
      tally.values++
      if (doubt.seen || !Number.isFinite(num(meant))) {
        tally.unsure++
        continue
      }
      const seen = core.value(t, index)
      if (agree(seen, meant, kind)) continue
      tally.wrong++
      if (!shown) tally.examples.push(`${text} [${index}] at ${toDouble(t)} s: ${seen}, not ${num(meant)}`)
      shown = true
    }
  }
  return tally
}

export const tryValues = (formulas: number, seed: number, only?: string): Tally[] =>
  KINDS.filter(k => !only || k.name.includes(only)).map((k, i) => tryKind(k, formulas, seed + i))
