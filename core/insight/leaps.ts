/**
 * Where a value leaps: every moment at which it may jump or bend is looked at from both sides, over a whole period of
 * what comes back, or as far as the single ones go; so that one without a leap (two stages that meet) is not told.
 */
import { ordered, type Bends } from '../facts/bends.ts'
import { rests } from '../facts/repeats.ts'
import type { ProgramHome } from '../engine/program.ts'
import type { CompiledExpression } from '../form/compiled-expression.ts'
import { bySecond } from '../form/compiled-expression.ts'
import { momentOfSeconds } from '../time/moment.ts'
import { compare, fromFinite, isZero, minus, rational, toNumber, ZERO, type Rational } from '../time/rational.ts'

export interface Jump {
  /** Seconds of the piece. */
  readonly at: Rational
  /** It leaps again every so many seconds; null when once. */
  readonly every: Rational | null
  /** In base measure. */
  readonly from: number
  readonly to: number
}

export interface Jumps {
  /** Leaps in the order of time, from second 0 on where they come again. */
  readonly jumps: readonly Jump[]
  /** Whether there may be leaps besides. */
  readonly more: boolean
}

/** How near a moment it is looked at, in seconds: far below a frame, far above a double's grain. */
const NEAR = 1 / (1 << 22)
/** Less than this share of the value is no leap. */
const SMALL = 1e-6
/** More units (or turns) than these at once are a pole. */
const POLE = 1e4
/** Moments that are looked at, and leaps that are told, at most. */
const MOST_LOOKS = 1500
const MOST_TOLD = 60
/** Seconds that are looked at where nothing comes back, and of the longest period. */
const AHEAD = 60
const LONGEST = 600

/**
 * The leap at a moment, from what the value was heading for to what it goes on from; null when there is none.
 * @param turn growth after which the value is the same (a turn), which is no leap; 0 for none
 */
export function leapAt(
  form: CompiledExpression,
  at: Rational,
  { measures: m, queue }: ProgramHome,
  turn: number,
): Jump | null {
  const once = bySecond(form, m.frameRate)
  const read = (t: number) => queue.settle(() => once(t))
  const t = toNumber(at)
  const own = queue.settle(() => form.at(momentOfSeconds(at, m.frameRate)))
  const sides = (h: number) => [2 * read(t - h) - read(t - 2 * h), 2 * read(t + h) - read(t + 2 * h)] as const
  const [before, after] = sides(NEAR)
  // Where a value leaves for the far end on one side and comes from the other, whole turns mean nothing.
  const far = Math.max(POLE * Math.max(turn, 1), (Math.abs(before) + Math.abs(after)) / 1000)
  if (!(Math.abs(after - before) < far)) return { at, every: null, from: before, to: after }
  const folded = (x: number) => (turn > 0 ? x - Math.round(x / turn) * turn : x)
  const small = SMALL * Math.max(Math.abs(own), Math.abs(before), turn || 1e-3)
  const size = folded(after - before)
  const alone = Math.min(Math.abs(folded(own - before)), Math.abs(folded(own - after)))
  if (!(Math.abs(size) > small) && !(alone > small)) return null
  // A steep bend grows smaller the nearer it is looked at; a leap does not.
  const [nearer, further] = sides(NEAR / 16)
  if (!(alone > small) && Math.abs(folded(further - nearer)) < 0.7 * Math.abs(size)) return null
  const to = alone > small || Math.abs(folded(own - after)) <= Math.abs(folded(own - before)) ? own : after
  return { at, every: null, from: to - folded(to - before), to }
}

/** The fraction with the smallest denominator that a double stands for, as near as moments are found. */
export function plainFraction(t: number): Rational {
  const reach = 4e-10 * (1 + Math.abs(t))
  let [p0, q0, p1, q1] = [0, 1, 1, 0]
  let x = t
  for (let k = 0; k < 24; k++) {
    const a = Math.floor(x)
    ;[p0, q0, p1, q1] = [p1, q1, a * p1 + p0, a * q1 + q0]
    if (q1 > 1e6) break
    if (Math.abs(t - p1 / q1) <= reach) return rational(p1, q1)
    x = 1 / (x - a)
  }
  return fromFinite(Math.round(t * 1e9) / 1e9)
}

/** The stretch in which everything happens that ever does, and the seconds after which it comes again. */
function windowOf(
  form: CompiledExpression,
  b: Bends,
): { from: number; to: number; every: Rational | null; whole: boolean } {
  const r = form.facts().repeats
  const start = r.from ? toNumber(r.from) : 0
  if (b.only && b.all) {
    const [low, high] = [Math.min(0, ...b.only), Math.max(0, ...b.only)]
    return { from: low - 1, to: high + 1, every: null, whole: true }
  }
  if (rests(r)) return { from: -AHEAD, to: start + 1, every: null, whole: start < LONGEST }
  if (r.every && !isZero(r.every)) {
    const length = toNumber(r.every)
    const to = start + Math.min(length, LONGEST)
    return { from: r.from ? Math.min(0, start) - AHEAD : start, to, every: r.every, whole: length <= LONGEST }
  }
  return { from: -AHEAD, to: AHEAD, every: null, whole: false }
}

export interface CopyJump extends Jump {
  /** The copy that leaps so, counted from 0. */
  readonly copy: number
}

/** The leaps of all copies, each told once with the first copy that has it, in the order of time. */
export function leapsOf(
  forms: readonly CompiledExpression[],
  home: ProgramHome,
  turn: number,
): { jumps: CopyJump[]; more: boolean } {
  const told = new Map<string, CopyJump>()
  let more = false
  const seen = new Set<CompiledExpression>()
  for (const [copy, form] of forms.entries()) {
    // Copies that are the very same expression leap alike.
    if (seen.has(form)) continue
    seen.add(form)
    const found = jumpsOf(form, home, turn)
    more ||= found.more
    for (const j of found.jumps) {
      const key = `${j.at.n}/${j.at.d} ${(j.to - j.from).toPrecision(8)}`
      if (!told.has(key) && told.size < MOST_TOLD) told.set(key, { ...j, copy })
    }
  }
  return { jumps: [...told.values()].sort((a, b) => compare(a.at, b.at)), more }
}

/** The moments to look at, window by window from 0 on and then back from it, until they are too many. */
function candidates(b: Bends, from: number, to: number): { moments: number[]; all: boolean } {
  if (b.only) return { moments: ordered(b, from, to), all: true }
  if (b.often > MOST_OFTEN) return { moments: [], all: false }
  const found: number[] = []
  const middle = Math.min(to, Math.max(from, 0))
  const grow = (a: number, c: number): boolean => {
    found.push(...ordered(b, a, c))
    return found.length <= MOST_LOOKS
  }
  let all = true
  // Windows overlap by a hair, so that what lies where two meet is seen.
  for (let t = middle; all && t < to; t += WINDOW) all = grow(t - HAIR, Math.min(to, t + WINDOW))
  for (let t = middle; all && t > from; t -= WINDOW) all = grow(Math.max(from, t - WINDOW), t + HAIR)
  const moments = found.filter(t => t > from && t < to).sort((x, y) => x - y)
  return { moments: moments.filter((t, i) => i === 0 || t - moments[i - 1]! > HAIR), all }
}
const WINDOW = 2
/** Leaps a second that are more of a sound than of leaps: they are not looked at one by one. */
const MOST_OFTEN = 1000
const HAIR = 1e-7

export function jumpsOf(form: CompiledExpression, home: ProgramHome, turn: number): Jumps {
  const b = form.facts().leaps
  const { from, to, every, whole } = windowOf(form, b)
  // A period holds its beginning and not its end; where it begins with a stage of its own, the other way round.
  const inset = !every ? 0 : form.facts().repeats.from ? -1e-7 : 1e-7
  const { moments, all } = candidates(b, from - inset, to - inset)
  const start = toNumber(form.facts().repeats.from ?? ZERO)
  const found: Jump[] = []
  let looked = 0
  // What comes back first, then what was before, backwards: of too many, those far in the past are left out.
  for (const t of [...moments.filter(t => t >= start), ...moments.filter(t => t < start).reverse()]) {
    if (found.length > 4 * MOST_TOLD) break
    const jump = leapAt(form, plainFraction(t), home, turn)
    if (jump) found.push(jump)
    looked++
  }
  found.sort((a, b) => compare(a.at, b.at))
  const jumps = told(found, every, form.facts().repeats.from ? start : -Infinity)
  const surely = b.all && whole && all && looked === moments.length && jumps.length <= MOST_TOLD
  // What leaps again and again is told by its first; what never comes back goes on in ways that are not told one by one.
  const more = !surely && (!b.all || found.length > 0 || !all || looked < moments.length)
  return { jumps: jumps.slice(0, MOST_TOLD), more: more && !(jumps.length === 1 && jumps[0]!.every !== null && b.all) }
}

/** Leaps in even steps are told as one that comes again. */
function told(found: readonly Jump[], every: Rational | null, start: number): Jump[] {
  const away = (j: Jump) => toNumber(j.at) - start
  const single = found.filter(j => every && away(j) < -1e-6)
  // Where it begins to come back it is reached from what was before: once.
  const once = found.filter(j => every && Math.abs(away(j)) <= 1e-6)
  const round = found.filter(j => !single.includes(j) && !once.includes(j))
  const groups = new Map<string, Jump[]>()
  for (const j of round) {
    const key = every ? (j.to - j.from).toPrecision(6) : ''
    groups.set(key, [...(groups.get(key) ?? []), j])
  }
  const all = [...groups.values()].flatMap(g => stepped(g, every))
  return [...stepped(single, null), ...once, ...all].sort((a, b) => compare(a.at, b.at))
}

function stepped(group: readonly Jump[], every: Rational | null): Jump[] {
  const [first, second] = group
  if (!first) return []
  const even = (step: Rational) =>
    group.every((j, i) => i === 0 || Math.abs(toNumber(minus(j.at, group[i - 1]!.at)) - toNumber(step)) < 1e-8)
  if (every) {
    if (!second) return [{ ...first, every }]
    const step = minus(second.at, first.at)
    const fits = Math.abs(group.length * toNumber(step) - toNumber(every)) < 1e-8
    return fits && even(step) ? [{ ...first, every: step }] : group.map(j => ({ ...j, every }))
  }
  if (group.length < 4) return [...group]
  const step = minus(second!.at, first.at)
  if (!even(step)) return [...group]
  const shown = group.find(j => j.at.n >= 0n) ?? first
  return [{ ...shown, every: step }]
}
