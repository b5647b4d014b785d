/**
 * Steady growth on every lane: rate · t + base, read as `AffineReader` reads it, to the bit. Where all lanes grow at one pace
 * its share is worked out once a moment, and a lane costs one sum: of whole numbers over one denominator while doubles hold
 * them, else of two doubles each. What those cannot tell, and lanes with paces of their own, are read one by one.
 */
import type { ActiveClock } from '../form/active-clock.ts'
import { AffineReader, evaluateAffine } from '../time/affine.ts'
import { TICKS, type Moment } from '../time/moment.ts'
import { ZERO, commonMultiple, floor, over, rational, type Rational } from '../time/rational.ts'
import { commonDenominator, commonOf, laneOf, lanesOf, shiftedLanes, small, type Fractions } from './fractions.ts'
import { partOf, partOfSum, remainderOf, sumWith } from './twofold.ts'

const SAFE = Number.MAX_SAFE_INTEGER
const isSafe = (x: number): boolean => x <= SAFE && x >= -SAFE

/**
 * Lanes over one denominator: value = (p · top + (first + q[lane]) · bottom) / (r · bottom), the moment being top / bottom
 * frames. `paces` has the p of each lane where they differ; `p` is then the largest. `mostQ`: |first| and the largest |q|.
 */
interface Grid {
  readonly p: number
  readonly paces: Float64Array | null
  readonly first: number
  readonly q: Float64Array
  readonly r: number
  readonly mostQ: number
}

/** Bases as a whole number and a part of two doubles. */
interface Twofold {
  readonly wholes: Float64Array
  readonly high: Float64Array
  readonly low: Float64Array
}

export class SteadyLanes {
  private readonly pace: Rational | null
  private readonly readers: (AffineReader | undefined)[] = []
  private readonly ahead: Rational
  private readonly grid: Grid | null
  private twofold: Twofold | null = null
  /** The remainders of q · bottom and whole parts, for the bottom that was read last. */
  private bottom = NaN
  private rests: Float64Array | null = null
  private wholes: Float64Array | null = null

  /** @param beat the clock whose seconds rate and base count in, where it is not steady; else the piece's */
  constructor(
    private readonly rate: Fractions | Rational,
    private readonly base: Fractions,
    private readonly frameRate: Rational,
    private readonly beat: ActiveClock | null = null,
  ) {
    this.pace = 'big' in rate ? commonOf(rate) : rate
    // What is added to all lanes alike goes with what they grow by alike.
    this.ahead = base.big ? ZERO : base.offset
    this.grid = gridOf(rate, this.pace, this.ahead, base, frameRate)
  }

  /** The same with so much more on every lane: null where that leaves the size up to which exactness is kept. */
  plus(more: Rational): SteadyLanes | null {
    const base = shiftedLanes(this.base, more)
    return base && new SteadyLanes(this.rate, base, this.frameRate, this.beat)
  }

  at(now: Moment, from: number, count: number, out: Float64Array): void {
    const m = this.beat ? this.beat.when(now) : now
    const { grid } = this
    const { top, bottom } = onTicks(m)
    if (grid) {
      const { p, paces, first, q, r, mostQ } = grid
      const whole = r * bottom
      if (isSafe(whole) && isSafe(Math.abs(p * top) + mostQ * bottom)) {
        const begun = first * bottom
        const grown = p * top + begun
        if (paces)
          for (let i = 0; i < count; i++) out[i] = (paces[from + i]! * top + begun + q[from + i]! * bottom) / whole
        else for (let i = 0; i < count; i++) out[i] = (grown + q[from + i]! * bottom) / whole
        return
      }
    }
    const two = this.inTwo()
    const share = two && this.shareAt(m)
    for (let i = 0; i < count; i++) {
      const lane = from + i
      const v = share
        ? sumWith(share.whole + two.wholes[lane]!, share.high, share.low, two.high[lane]!, two.low[lane]!)
        : NaN
      out[i] = v === v ? v : this.reader(lane).at(m)
    }
  }

  /** Whole parts and what is left, 0 ≤ part < 1; `wholes` may be left out. */
  split(now: Moment, from: number, count: number, parts: Float64Array, wholes: Float64Array | null): void {
    const m = this.beat ? this.beat.when(now) : now
    const { grid } = this
    const { top, bottom } = onTicks(m)
    const size = grid ? grid.r * bottom : NaN
    if (!grid || !isSafe(2 * size) || !isSafe(grid.mostQ * bottom) || !isSafe(top))
      return this.splitInTwo(m, from, count, parts, wholes)
    if (grid.paces) return this.splitEach(grid, m, from, count, parts, wholes)
    const begun = grid.first * bottom
    const grown = grid.p * top + begun
    let [whole, rest] = [0, 0]
    if (isSafe(grid.p * top) && isSafe(grown)) {
      rest = grown % size
      if (rest < 0) rest += size
      whole = (grown - rest) / size
    } else {
      const [all, round] = [BigInt(grid.p) * BigInt(top) + BigInt(begun), BigInt(size)]
      const left = ((all % round) + round) % round
      rest = Number(left)
      whole = Number((all - left) / round)
    }
    const rests = this.prepare(grid.q, bottom, size)
    for (let i = 0; i < count; i++) {
      const sum = rest + rests[from + i]!
      parts[i] = (sum >= size ? sum - size : sum) / size
    }
    if (!wholes) return
    const own = this.wholes!
    for (let i = 0; i < count; i++) wholes[i] = whole + own[from + i]! + (rest + rests[from + i]! >= size ? 1 : 0)
  }

  /** Lanes that have paces of their own. */
  private splitEach(
    { p, paces, first, q, r, mostQ }: Grid,
    m: Moment,
    from: number,
    count: number,
    parts: Float64Array,
    wholes: Float64Array | null,
  ): void {
    const { top, bottom } = onTicks(m)
    if (!isSafe(Math.abs(p * top) + mostQ * bottom)) return this.splitInTwo(m, from, count, parts, wholes)
    const size = r * bottom
    const begun = first * bottom
    for (let i = 0; i < count; i++) {
      const grown = paces![from + i]! * top + begun + q[from + i]! * bottom
      const left = grown % size
      const rest = left < 0 ? left + size : left + 0
      parts[i] = rest / size
      if (wholes) wholes[i] = (grown - rest) / size
    }
  }

  private splitInTwo(m: Moment, from: number, count: number, parts: Float64Array, wholes: Float64Array | null): void {
    const two = this.inTwo()
    const share = two && this.shareAt(m)
    for (let i = 0; i < count; i++) {
      const lane = from + i
      const part = share ? partOfSum(share.high, share.low, two.high[lane]!, two.low[lane]!) : NaN
      if (part === part) {
        parts[i] = part
        // The sum of the parts is 1 or more where it came out below one of them.
        if (wholes) wholes[i] = share!.whole + two!.wholes[lane]! + (share!.high + two!.high[lane]! >= 1 ? 1 : 0)
      } else {
        const split = this.reader(lane).splitAt(m)
        parts[i] = split.part
        if (wholes) wholes[i] = split.whole
      }
    }
  }

  /** What the pace comes to at a moment: whole, and the part of two doubles. */
  private shareAt(m: Moment): { readonly whole: number; readonly high: number; readonly low: number } | null {
    const share = evaluateAffine({ rate: this.pace!, base: this.ahead }, m)
    const whole = Number(floor(share))
    return isSafe(whole) ? { whole, ...partOf(share) } : null
  }

  private inTwo(): Twofold | null {
    return (this.twofold ??= this.pace && keptTwofold(this.base))
  }

  private reader(i: number): AffineReader {
    const known = this.readers[i]
    if (known) return known
    const rate = 'big' in this.rate ? laneOf(this.rate, i) : this.rate
    return (this.readers[i] = new AffineReader({ rate, base: laneOf(this.base, i) }, this.frameRate))
  }

  private prepare(q: Float64Array, bottom: number, size: number): Float64Array {
    const rests = (this.rests ??= new Float64Array(q.length))
    const wholes = (this.wholes ??= new Float64Array(q.length))
    if (bottom === this.bottom) return rests
    for (let i = 0; i < q.length; i++) {
      const grown = q[i]! * bottom
      let rest = grown % size
      if (rest < 0) rest += size
      rests[i] = rest + 0
      wholes[i] = (grown - rest) / size
    }
    this.bottom = bottom
    return rests
  }
}

/** Numerator and denominator of a moment in frames, on ticks where it stands on them. */
function onTicks({ top, bottom }: Moment): { readonly top: number; readonly bottom: number } {
  return bottom <= TICKS && TICKS % bottom === 0 ? { top: top * (TICKS / bottom), bottom: TICKS } : { top, bottom }
}

/** All lanes over one denominator; null where that or a numerator is too large. Any denominator gives the same quotients. */
function gridOf(
  rate: Fractions | Rational,
  pace: Rational | null,
  ahead: Rational,
  base: Fractions,
  frameRate: Rational,
): Grid | null {
  const perFrame = pace ? gridPace(pace, frameRate) : 'big' in rate ? gridPaces(rate, frameRate) : null
  const begun = small(ahead)
  const lanes = commonDenominator(base)
  if (!perFrame || !begun || lanes === null || base.big) return null
  const denominator = Number(commonMultiple(rational(lanes), rational(begun.d)).n)
  const [p, r] = [perFrame.n * denominator, perFrame.d * denominator]
  if (!isSafe(p * TICKS) || !isSafe(r * TICKS)) return null
  const paces = perFrame.each && perFrame.each.map(n => n * denominator)
  const first = begun.n * (denominator / begun.d) * perFrame.d
  const { q, most } = numeratorsOver(base, denominator, perFrame.d)
  const mostQ = Math.abs(first) + most
  return isSafe(mostQ * TICKS) ? { p, paces, first, q, r, mostQ } : null
}

/** Lanes as whole numbers of one denominator, and the largest size of them. */
interface Numerators {
  readonly by: number
  readonly q: Float64Array
  readonly most: number
}

/** By the numerators of lanes: the same lanes begin at other moments, by marks and by tuning. */
const numerators = new WeakMap<Float64Array, Numerators & { readonly denominators: Float64Array }>()

function numeratorsOver(base: Fractions & { readonly big: false }, denominator: number, times: number): Numerators {
  const by = denominator * times
  const known = numerators.get(base.n)
  if (known?.by === by && known.denominators === base.d) return known
  let most = 0
  const q = base.n.map((n, i) => {
    const x = n * (denominator / base.d[i]!) * times
    most = Math.max(most, Math.abs(x))
    return x
  })
  const made = { by, q, most, denominators: base.d }
  numerators.set(base.n, made)
  return made
}

/** Growth a frame, of all lanes or of each, over one denominator. */
interface PerFrame {
  /** The same for all, or the largest. */
  readonly n: number
  readonly d: number
  readonly each: Float64Array | null
}

function gridPace(pace: Rational, frameRate: Rational): PerFrame | null {
  const perFrame = small(over(pace, frameRate))
  return perFrame && { ...perFrame, each: null }
}

function gridPaces(rate: Fractions, frameRate: Rational): PerFrame | null {
  const each: { readonly n: number; readonly d: number }[] = []
  for (let i = 0; i < lanesOf(rate); i++) {
    const own = small(over(laneOf(rate, i), frameRate))
    if (!own) return null
    each.push(own)
  }
  let d = 1
  for (const own of each) if (!isSafe((d = multiple(d, own.d)))) return null
  const paces = Float64Array.from(each, own => own.n * (d / own.d))
  let n = 0
  for (const x of paces) n = Math.max(n, Math.abs(x))
  return isSafe(n) ? { n, d, each: paces } : null
}

/** The least common multiple of two whole numbers > 0; more than is safe where it is too large. */
function multiple(a: number, b: number): number {
  let [x, y] = [a, b]
  while (y !== 0) [x, y] = [y, x % y]
  return (a / x) * b
}

/** By the numerators of lanes: what tuning adds to all alike lies apart. */
const twofolds = new WeakMap<Float64Array, Twofold & { readonly denominators: Float64Array }>()

function keptTwofold(base: Fractions): Twofold {
  if (base.big) return twofoldOf(base)
  const known = twofolds.get(base.n)
  if (known?.denominators === base.d) return known
  const made = { ...twofoldOf(base), denominators: base.d }
  twofolds.set(base.n, made)
  return made
}

function twofoldOf(base: Fractions): Twofold {
  const lanes = lanesOf(base)
  const two = { wholes: new Float64Array(lanes), high: new Float64Array(lanes), low: new Float64Array(lanes) }
  for (let i = 0; i < lanes; i++) {
    if (base.big) {
      const r = laneOf(base, i)
      const { high, low } = partOf(r)
      two.wholes[i] = Number(floor(r))
      two.high[i] = high
      two.low[i] = low
    } else {
      const [n, d] = [base.n[i]!, base.d[i]!]
      const rest = n % d
      const part = rest < 0 ? rest + d : rest
      two.wholes[i] = (n - part) / d
      two.high[i] = part / d
      two.low[i] = remainderOf(part, d, two.high[i]!)
    }
  }
  return two
}
