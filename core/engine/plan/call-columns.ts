/** Calls as columns: their arguments, the phase of a source, and what the entry of the function table makes of them. */
import type { Column } from '../../columns/column.ts'
import { fixedLanes, one } from '../../columns/column.ts'
import {
  fractionsOf,
  laneOf,
  plusLanes,
  scaledLanes,
  shiftedLanes,
  signsOf,
  type Fractions,
} from '../../columns/fractions.ts'
import type { Elsewhere, LaneCall } from '../../columns/kernel.ts'
import { phaseLanes, type PhaseLanes } from '../../columns/phase-columns.ts'
import type { SteadyLanes } from '../../columns/steady.ts'
import { PIECE_CLOCK, type ActiveClock } from '../../form/active-clock.ts'
import { constantOf, constantNumber, type CompiledExpression } from '../../form/compiled-expression.ts'
import { phaseOf } from '../../form/phase.ts'
import type { CallNode, Node } from '../../formula/tree.ts'
import type { Call, Fold } from '../../functions/prepared-call.ts'
import type { Entry } from '../../functions/entry.ts'
import type { Parameter } from '../../functions/parameter.ts'
import { functionNamed } from '../../functions/index.ts'
import { ONE, ZERO, isZero, within, type Rational } from '../../time/rational.ts'
import { filledIn, type CallCompiler } from '../call-compiler.ts'
import { constantLanes, zeroLanes } from './exact-lanes.ts'
import { productColumn, type FactorColumn } from './product-column.ts'
import { sameOnAllLanes, noColumn } from './split.ts'

/** What a call is planned with. */
export interface CallPlanner {
  readonly lanes: number
  readonly frameRate: Rational
  /** Of what is the same on every lane, with the clock in force. */
  readonly compiler: CallCompiler
  readonly column: (node: Node) => Column
  /** What an argument is on all lanes; null where it has to be planned. */
  readonly argument: (node: Node, form: CompiledExpression | undefined) => Column | null
  /** All factors of a product, in text order; `inverse`: of what is divided by. */
  readonly factors: (node: Node, inverse: boolean) => FactorColumn[]
  /** The seed of each lane, for a call that was given none. */
  readonly seeds: (node: CallNode, entry: Entry) => number[]
  /** Growth by lane in seconds of the piece, or of a clock that is not steady; null where only the plain evaluator follows. */
  readonly steady: (rate: Fractions | Rational, base: Fractions, beat: ActiveClock | null) => SteadyLanes | null
  /** A value at other moments. */
  readonly elsewhere: (value: Node) => Elsewhere
}

export function callColumn(p: CallPlanner, node: CallNode): Column {
  const entry = functionNamed(node.name)
  const { exact, fold: foldOf, kernel } = entry?.evaluation ?? {}
  if (!entry || !kernel) return noColumn()
  const { lanes, frameRate, compiler } = p
  const { call: first } = compiler.prepared(node)
  const args: Record<string, Column | undefined> = {}
  const many: Column[] = []
  let elsewhere: Elsewhere | null = null
  const last = entry.parameters.at(-1)!
  for (const { parameter, arg, word } of filledIn(node, entry).filled) {
    if (word) continue
    if (parameter.readAt) {
      elsewhere = p.elsewhere(arg.value)
      continue
    }
    const column = p.argument(arg.value, first.args[parameter.name]) ?? argument(p, entry, parameter, arg.value)
    if (entry.variadic && parameter === last) many.push(column)
    else args[parameter.name] = column
  }
  for (const t of entry.parameters)
    if (args[t.name] === undefined && t.initial !== undefined) args[t.name] = one(constantNumber(t.initial, frameRate))
  const constant = (name: string): Fractions | null => {
    const column = args[name]
    return column ? (constantLanes(column, lanes)?.exact ?? null) : null
  }
  // What is exact at other moments, whoever plans finds out.
  if (exact && !elsewhere) return noColumn()
  const fold = foldOf?.(first)
  if (fold && [...Object.values(args), ...many].every(c => !c || constantLanes(c, lanes)))
    return entry.seeded ? noColumn() : folded(fold, first, args, many, lanes)
  const call: LaneCall<Call> = {
    lanes,
    args,
    many,
    first,
    phase: entry.pace ? phaseOn(p, entry, args, first) : null,
    seeds: entry.seeded ? seedsOf(p, node, entry, args, first) : [],
    constant,
    steady: (rate, base) => steadyOn(p, rate, base),
    common: name => {
      const exact = constant(name)
      return exact && sameOnAllLanes(exact)
    },
    elsewhere,
  }
  return kernel(call) ?? noColumn()
}

/** The seed of each lane: one for all where it was given. */
function seedsOf(p: CallPlanner, node: CallNode, entry: Entry, args: LaneCall<Call>['args'], first: Call): number[] {
  if (args.seed && args.seed.type !== 'one') return noColumn()
  if (args.seed || args.at) return Array.from({ length: p.lanes }, () => first.seed!)
  return p.seeds(node, entry)
}

/** What folds to a constant is one on each lane, wherever a constant may stand. */
function folded(fold: Fold, first: Call, args: LaneCall<Call>['args'], many: readonly Column[], lanes: number): Column {
  const columns = fold.of.map(form => {
    const name = Object.keys(first.args).find(n => first.args[n] === form)
    const column = name === undefined ? many[first.variadicArgs.indexOf(form)] : args[name]
    return (column && constantLanes(column, lanes)) ?? noColumn()
  })
  const all = Array.from({ length: lanes }, (_, i) => {
    const made = fold.by(...columns.map(c => laneOf(c.exact, i)))
    return made && within(made) ? made : noColumn()
  })
  return fixedLanes(
    fractionsOf(all),
    columns.some(c => c.paced),
  )
}

/** An argument that differs from lane to lane, as `prepared` makes it: what sets a pace counts in the piece's own seconds, a period as its inverse. */
function argument(p: CallPlanner, entry: Entry, parameter: Parameter, value: Node): Column {
  const inverse = parameter.name === entry.pace?.every
  const own = parameter.kind === 'perSecond' || parameter.name === entry.pace?.freq
  const column = inverse
    ? p.compiler.on(PIECE_CLOCK, () => productColumn(p.factors(value, true), p.lanes, p.frameRate))
    : own
      ? p.compiler.on(PIECE_CLOCK, () => p.column(value))
      : p.column(value)
  // What must not change, or must be more than 0, is told so by the compiler.
  const fixed = parameter.steady || parameter.positive ? constantLanes(column, p.lanes) : null
  if (parameter.steady && !fixed) return noColumn()
  if (parameter.positive && fixed && signsOf(fixed.exact).some(n => (inverse ? n < 0 : n <= 0))) return noColumn()
  return column
}

/** The phase of a source on every lane; null where only the plain evaluator can follow it. */
function phaseOn(
  p: CallPlanner,
  entry: Entry,
  args: Readonly<Record<string, Column | undefined>>,
  first: Call,
): PhaseLanes | null {
  const { freq, every, phase } = entry.pace!
  const pace = args[freq] ?? (every ? args[every] : undefined)
  const ahead = phase ? args[phase] : undefined
  const fixedAhead = ahead ? constantLanes(ahead, p.lanes)?.exact : zeroLanes(p.lanes)
  const base = fixedAhead ?? zeroLanes(p.lanes)
  const one = (rate: Rational, from: Rational, wrap: number): PhaseLanes | null =>
    made(rate, shiftedLanes(base, from), wrap)
  const moving = fixedAhead ? null : ahead!
  const { beat } = p.compiler
  const made = (rate: Fractions | Rational | null, all: Fractions | null, wrap: number): PhaseLanes | null => {
    const steady = rate && all && p.steady(rate, all, beat.steady ? null : beat)
    return steady && phaseLanes(steady, moving, wrap, p.lanes)
  }
  if (!pace) return one(ZERO, ZERO, 0)
  if (pace.type === 'one') {
    if (!constantOf(pace.form)) return null
    // Without its own phase: what the pace comes to, with the slip that tuning has left.
    const bare = phaseOf(
      { freq: 'freq' },
      { freq: pace.form },
      { ...p.compiler.setting, lapLength: first.measures.lapLength },
      beat,
      '',
    )
    const { turns } = bare
    // A pace that is too large to be counted exactly is added up.
    if (isZero(turns.rate) && !isZero(constantOf(pace.form)!)) return null
    return one(turns.rate, turns.base, bare.wrap)
  }
  const own = constantLanes(pace, p.lanes)
  if (!own || own.paced) return null
  const clock = beat.steady ?? { rate: ONE, base: ZERO }
  const from = scaledLanes(own.exact, clock.base)
  return made(scaledLanes(own.exact, clock.rate), from && plusLanes(from, base), 0)
}

/** Steady growth in the seconds of the clock in force. */
function steadyOn(p: CallPlanner, rate: Fractions, base: Fractions): SteadyLanes | null {
  const { beat } = p.compiler
  if (!beat.steady) return p.steady(rate, base, beat)
  const [grown, begun] = [scaledLanes(rate, beat.steady.rate), scaledLanes(rate, beat.steady.base)]
  const all = begun && plusLanes(begun, base)
  return grown && all && p.steady(grown, all, null)
}
