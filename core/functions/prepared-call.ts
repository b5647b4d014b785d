/** One call of a function with its arguments made ready, and what entries say of them. */
import { outside } from '../facts/suppose.ts'
import { constantOf, type Exactly, type CompiledExpression } from '../form/compiled-expression.ts'
import type { Phase } from '../form/phase.ts'
import type { Accumulation } from '../form/accumulation.ts'
import type { WorkQueue } from '../form/work-queue.ts'
import { settledBy, type ActiveClock, type ClockReading } from '../form/active-clock.ts'
import { joined, type Bends } from '../facts/bends.ts'

import type { DrawnCurve } from '../signal/drawn.ts'
import type { NamedEase } from '../signal/easing.ts'
import type { Marks } from '../signal/marks.ts'
import type { Wave } from '../signal/waves.ts'
import type { Measures } from '../units/units.ts'
import { costOf, type Cost } from '../facts/cost.ts'
import type { Interval } from '../facts/interval.ts'
import type { Repeats } from '../facts/repeats.ts'
import { ALWAYS, NEVER, everySeconds, onlyFrom, restingFrom, together } from '../facts/repeats.ts'
import type { Affine } from '../time/affine.ts'
import type { Moment } from '../time/moment.ts'
import { ONE, ZERO, compare, minus, over, plus, toNumber, type Rational } from '../time/rational.ts'

export interface StagePosition {
  /** Across and upwards on the stage, of a point some px from its middle. */
  readonly x: (m: Moment, dx: number, dy: number) => number
  readonly y: (m: Moment, dx: number, dy: number) => number
  readonly pivot: { readonly x: number; readonly y: number }
  /** All that its place is made of. */
  readonly of: readonly CompiledExpression[]
  /** How each of those comes back; of what turns it, whole turns mean nothing. */
  readonly repeats: () => Repeats[]
}

export interface Fold {
  readonly of: readonly CompiledExpression[]
  readonly by: (...values: Rational[]) => Rational | null
}

/** A fold of arguments by their names. */
export const folding = <N extends string>(call: Having<N>, names: readonly N[], by: Fold['by']): Fold => ({
  of: names.map(n => call.args[n]),
  by,
})

/** A word as an argument, with the strength that may stand behind it: `elasticOut(1.4)`. */
export interface WordArgument {
  readonly name: string
  readonly strength?: number
  /** The name of a curve of the piece, as an easing. */
  readonly curve?: true
}

/** One call with its arguments made ready. */
export interface Call {
  /** By parameter name; those left out with an `initial` are there, others are undefined. */
  readonly args: Readonly<Record<string, CompiledExpression | undefined>>
  /** Names of the arguments that were written. */
  readonly given: ReadonlySet<string>
  /** All values of the last parameter when it may be given many times. */
  readonly variadicArgs: readonly CompiledExpression[]
  readonly words: Readonly<Record<string, WordArgument | undefined>>
  readonly phase: Phase
  /** The value as a fraction, where the entry gives it. */
  readonly exactly: Exactly | null
  /** Of what adds a rate up: what it comes to. */
  readonly accumulation: Accumulation | null
  /** Null where all copies are looked at together and each has another: then it is not read, and nothing may be known by it. */
  readonly seed: number | null
  readonly frameRate: Rational
  /** Where what takes long to add up waits. */
  readonly queue: WorkQueue
  readonly measures: Measures
  readonly beat: ActiveClock
  /** Something steady in the seconds of the clock in force, ready to be read. */
  readonly read: (a: Affine) => ClockReading
  /** The channel of the curve that is named, with the size of its unit. */
  readonly curve: { readonly drawn: DrawnCurve; readonly size: number; readonly hit: number } | null
  /** The gear that is named: its turn, how many of its teeth go to one of this gear's, and what is added (turns). */
  readonly gear: { readonly rotation: CompiledExpression; readonly ratio: Rational; readonly offset: number } | null
  /** The wave surface that is named: its waves, how tall it is at rest, what they are raised by, and how far the lap is on. */
  readonly surface: {
    readonly waves: readonly Wave[]
    readonly tall: CompiledExpression
    readonly swell: CompiledExpression
    readonly crest: CompiledExpression
    readonly foam: CompiledExpression
    readonly lap: ClockReading
  } | null
  /** The easings that are named, by parameter: linear where none is. */
  readonly easing: (parameter: string) => NamedEase
  /** Where the part that is named stands: its pivot moved by so many px of its own, on the stage. */
  readonly spot: StagePosition | null
  /** The marks of the cue that is named. */
  readonly cue: Marks | null
  /** First and last second of the lap, the part's span and the marked stretch. */
  readonly windows: Readonly<Record<'lap' | 'span' | 'stretch', readonly [Rational, Rational]>>
}

/** A call on a cue. */
export type CallOnCue = Call & { readonly cue: Marks }

export const argsOf = (call: Call): CompiledExpression[] => [
  ...Object.values(call.args).filter((f): f is CompiledExpression => f !== undefined),
  ...call.variadicArgs,
]
/** A call that has some arguments, and may have others. */
export type CallWith<Names extends string, Others extends string = never> = Omit<Call, 'args'> & {
  readonly args: Readonly<Record<Names, CompiledExpression>> & Readonly<Partial<Record<Others, CompiledExpression>>>
}
interface Having<Name extends string> {
  readonly args: Readonly<Record<Name, CompiledExpression>>
}
export const boundsOf = <N extends string>(call: Having<N>, name: N): Interval => call.args[name].facts().bounds
/** Bounds of an argument that is read at other moments than the call. */
export const boundsElsewhere = <N extends string>(call: Having<N>, name: N): Interval =>
  outside(() => boundsOf(call, name))
export const slopeOf = <N extends string>(call: Having<N>, name: N): Interval => call.args[name].facts().slope
export const repeatsOfArgs = (call: Call): Repeats => together(argsOf(call).map(f => f.facts().repeats))
export const leapsOfArgs = (call: Call): Bends => joined(...argsOf(call).map(f => f.facts().leaps))
export const bendsOfArgs = (call: Call): Bends => joined(...argsOf(call).map(f => f.facts().bends))
/**
 * How something that plays on the marks of a cue comes back: it sets off `lead` before each mark and is over after
 * `length`. Repeated marks come back from the first on; others leave it at rest after the last.
 */
export function afterMarks(call: Call, cue: Marks, lead: Rational, length: Rational): Repeats {
  const clock = call.beat.steady
  const { first, last, every } = cue
  if (!first || !last) return ALWAYS
  if (!clock || clock.rate.n <= 0n) return NEVER
  const inPiece = (t: Rational): Rational => over(minus(t, clock.base), clock.rate)
  const from = inPiece(minus(first, lead))
  if (every) return onlyFrom(everySeconds(over(every, clock.rate)), from)
  return restingFrom(inPiece(plus(minus(last, lead), length)))
}

/** Where the marks of the cue lie, and moments so many seconds after each. */
export function marksBends(call: Call, cue: Marks, ...after: readonly number[]): Bends {
  const { seconds, every } = cue
  const at = seconds.flatMap(s => [0, ...after].map(t => s + t))
  if (!every) return call.read({ rate: ONE, base: ZERO }).reaching(...at)
  // Marks that come again begin with the first.
  const first = at.reduce((a, b) => Math.min(a, b))
  const round = call.read({ rate: over(ONE, every), base: ZERO })
  return joined(
    call.read({ rate: ONE, base: ZERO }).reaching(first),
    round.passing(...at.map(t => t / toNumber(every))),
  )
}

/** At rest from when an argument that grows steadily has left the range between two others for good; else as they all repeat. */
export function settledBetween<N extends string>(call: CallWith<N>, x: N, low: N, high: N): Repeats {
  const [l, h] = [constantOf(call.args[low]), constantOf(call.args[high])]
  const { exact } = call.args[x]
  if (!exact || !l || !h) return repeatsOfArgs(call)
  const rest = withoutArguments(call, x)
  return together([compare(l, h) <= 0 ? settledBy(exact, l, h) : settledBy(exact, h, l), repeatsOfArgs(rest)])
}

/** The cost of the arguments and so many operations more. */
export const costOfArgs = (call: Call, own = 1): Cost =>
  costOf(
    own,
    argsOf(call).map(f => f.facts()),
  )

/** Whether an argument is never 0, as what is divided by must be. */
export const never0 = (divisor: CompiledExpression): boolean => {
  const { low, high } = divisor.facts().bounds
  return low > 0 || high < 0
}

/** The call without some arguments: those that set its pace are in its phase. */
export function withoutArguments(call: Call, ...names: readonly string[]): Call {
  const args = Object.fromEntries(Object.entries(call.args).filter(([name]) => !names.includes(name)))
  return { ...call, args }
}
