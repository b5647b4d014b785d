/** Calls made ready: their arguments become expressions, the things they name are looked up, and their entry does the rest. */
import type { Checked } from '../formula/check.ts'
import { argumentsOf, type Arguments } from '../formula/arguments.ts'
import { functionNamed } from '../functions/index.ts'
import {
  type Call,
  type WordArgument,
  argsOf,
  bendsOfArgs,
  costOfArgs,
  leapsOfArgs,
  repeatsOfArgs,
} from '../functions/prepared-call.ts'
import type { Entry } from '../functions/entry.ts'
import { costOf, costSummed } from '../facts/cost.ts'
import { ALL } from '../facts/interval.ts'
import { canonical, nearest } from '../units/names.ts'
import { partWord } from '../formula/scope.ts'
import { quotedName } from '../formula/words.ts'
import { replacing } from '../formula/problem.ts'
import { easingNamed } from '../signal/easing.ts'
import { curveEase } from '../form/curve-bends.ts'
import type { Marks } from '../signal/marks.ts'
import { PIECE_CLOCK, clockReading, type ActiveClock } from '../form/active-clock.ts'
import { everyNode, outerSpan, type CallNode, type Formula, type Node } from '../formula/tree.ts'
import { constant } from '../time/affine.ts'
import { ONE, ZERO, compare, isWhole, isZero, negate, over, within, type Rational } from '../time/rational.ts'
import type { ElapsedTime } from '../form/dial-factors.ts'
import type { Measures } from '../units/units.ts'
import { cannotRun, type Env } from './env.ts'
import {
  constantOf,
  exactlyOf,
  constantExpression,
  constantNumber,
  expressionOf,
  steadyExpression,
  type CompiledExpression,
} from '../form/compiled-expression.ts'
import { refuseToRead } from '../form/differs-by-copy.ts'
import { phaseOf } from '../form/phase.ts'
import { multiplyExpressions, type Factor, type ProductContext } from '../form/product.ts'
import { accumulationOf } from '../form/accumulation.ts'

/** What of a formula is the same for every copy, made once. */
const places = new WeakMap<Formula, ReadonlyMap<Node, number>>()
const filling = new WeakMap<CallNode, Arguments>()

/** Each call's place among the calls of its name, in text order. */
function placesOf(formula: Formula): ReadonlyMap<Node, number> {
  const known = places.get(formula)
  if (known) return known
  const nth = new Map<Node, number>()
  const counts = new Map<string, number>()
  for (const n of everyNode(formula)) {
    if (n.type !== 'call') continue
    const name = canonical(n.name)
    nth.set(n, counts.get(name) ?? 0)
    counts.set(name, (counts.get(name) ?? 0) + 1)
  }
  places.set(formula, nth)
  return nth
}

export function filledIn(node: CallNode, entry: Entry): Arguments {
  const known = filling.get(node)
  if (known) return known
  const made = argumentsOf(node, entry)
  filling.set(node, made)
  return made
}

export abstract class CallCompiler {
  private readonly nth: ReadonlyMap<Node, number>
  beat: ActiveClock = PIECE_CLOCK

  constructor(
    protected readonly checked: Checked,
    protected readonly env: Env,
  ) {
    this.nth = placesOf(checked.formula)
  }

  abstract form(node: Node): CompiledExpression
  /** All factors of a product, in text order; `inverse`: of what is divided by. */
  protected abstract factors(node: Node, inverse: boolean): Factor[]
  /** A constant made of dials knows them. */
  protected abstract dialled(node: Node, made: CompiledExpression): CompiledExpression

  /** Does something with another clock in force. */
  on<T>(beat: ActiveClock, make: () => T): T {
    const before = this.beat
    this.beat = beat
    try {
      return make()
    } finally {
      this.beat = before
    }
  }

  /** On a clock that is not steady a pace runs over the clock's own seconds. */
  get setting(): ProductContext & Measures {
    const { beat, env } = this
    if (beat.steady) return env
    const there = (run: ElapsedTime): ElapsedTime =>
      run.clocked ? { key: `~${beat.id}${run.key}`, at: m => run.at(beat.when(m)), clocked: false } : run
    return { ...env, slip: (dials, pace, run) => env.slip(dials, pace, there(run)) }
  }

  /** The call of an entry with its arguments made ready. */
  prepared(node: CallNode): { entry: Entry; call: Call } {
    const entry = functionNamed(node.name)!
    const args: Record<string, CompiledExpression | undefined> = {}
    const words: Record<string, WordArgument | undefined> = {}
    const many: CompiledExpression[] = []
    const given = new Set<string>()
    const { filled } = filledIn(node, entry)
    const last = entry.parameters.at(-1)!
    for (const { parameter, arg, word } of filled) {
      given.add(parameter.name)
      if (word) {
        words[parameter.name] = word
        continue
      }
      // A period is turned into a frequency factor by factor, so that `2s / fairPace` may come to rest at 0.
      const made =
        parameter.name === entry.pace?.every
          ? this.on(PIECE_CLOCK, () => multiplyExpressions(this.factors(arg.value, true), this.setting))
          : parameter.kind === 'perSecond' || parameter.name === entry.pace?.freq
            ? this.on(PIECE_CLOCK, () => this.form(arg.value))
            : this.form(arg.value)
      this.fits(parameter, made, arg.value, parameter.name === entry.pace?.every)
      if (entry.variadic && parameter === last) many.push(made)
      else args[parameter.name] = made
    }
    for (const p of entry.parameters) {
      if (args[p.name] === undefined && p.initial !== undefined)
        args[p.name] = constantNumber(p.initial, this.env.frameRate)
    }
    const { frameRate, lapLength, queue } = this.env
    const place = `${this.env.place}.${entry.name}${this.nth.get(node) ?? 0}`
    const phase = phaseOf(entry.pace, args, this.setting, this.beat, place)
    const total = args.rate && entry.parameters.some(p => p.kind === 'perSecond') ? args.rate : null
    const { beat } = this
    const call: Call = {
      args,
      given,
      variadicArgs: many,
      words,
      phase,
      exactly: null,
      accumulation: total && accumulationOf(total, place, this.setting, beat),
      seed: this.seed(node, entry, args),
      frameRate,
      queue,
      measures: { frameRate, lapLength },
      beat,
      read: a => clockReading(a, beat, frameRate),
      curve: this.curve(entry, node, words),
      easing: this.easings(words),
      cue: this.cue(entry, words),
      gear: entry.name === 'engage' ? this.env.gear(words.gear!.name) : null,
      spot: entry.parameters[0]?.thing === 'part' ? this.spot(node) : null,
      surface: words.surface ? this.surface(words.surface.name) : null,
      windows: this.env.windows,
    }
    return { entry, call }
  }

  /** Easings by name, or from drawn curves: from the first point at share 0 to the last at 1. */
  private easings(words: Call['words']): Call['easing'] {
    return name => {
      const word = words[name]
      if (!word) return easingNamed('linear')!
      return word.curve ? curveEase(this.env.curve(word.name, null)!) : easingNamed(word.name, word.strength)!
    }
  }

  private curve(entry: Entry, node: CallNode, words: Call['words']): Call['curve'] {
    const parameter = entry.parameters.find(p => p.thing === 'curve')
    const name = parameter && words[parameter.name]?.name
    if (name === undefined) return null
    const channel = words.channel?.name ?? null
    const found = this.env.curve(name, channel)
    if (found) return found
    const known = this.env.channels(name)
    const at = node.args.find(a => a.value.type === 'name' && a.value.name === channel)?.value ?? node
    const fixes = nearest(channel ?? '', known).map(n => replacing(at, quotedName(n)))
    return cannotRun('argument-unknown', at, `${name} has no channel ${channel}. It has ${known.join(', ')}.`, ...fixes)
  }

  private spot(node: CallNode): Call['spot'] {
    const of = node.args[0]!.value
    const before = partWord(of.type === 'index' ? of.of : of)!
    const which = of.type === 'index' ? constantOf(this.form(of.at)) : null
    if (of.type === 'index' && !(which && isWhole(which)))
      return cannotRun('index', of.at, 'The copy number must be a whole number that doesn’t change with time.')
    const copy = which ? Number(which.n) : null
    const word = before.relative ? canonical(before.word) : before.word
    return (
      this.env.spot(word, before.relative, copy) ??
      cannotRun('index', of, `There’s no copy ${copy} of ${before.word}. Guard it with if, or choose an existing one.`)
    )
  }

  /** A wave surface is read at the moment, on the piece's own time, as links are. */
  private surface(name: string): Call['surface'] {
    const { lapStart, lapLength, frameRate } = this.env
    const lap = clockReading(
      { rate: over(ONE, lapLength), base: negate(over(lapStart, lapLength)) },
      PIECE_CLOCK,
      frameRate,
    )
    return { ...this.env.surface(name), lap }
  }

  private cue(entry: Entry, words: Call['words']): Marks | null {
    const parameter = entry.parameters.find(p => p.thing === 'cue')
    const name = parameter && words[parameter.name]?.name
    return name === undefined ? null : this.env.cue(name)
  }

  private fits(p: Entry['parameters'][number], made: CompiledExpression, at: Node, inverted: boolean): void {
    const c = constantOf(made)
    if (p.steady && !c) cannotRun('varying', outerSpan(at), `${p.name} must not change with time.`)
    if (!p.positive) return
    const low = c ? compare(c, ZERO) : 1
    const never = inverted && c === null && made.exact === null && !Number.isFinite(made.facts().bounds.high)
    if (inverted ? low < 0 || (never && at.type === 'number') : low <= 0) {
      cannotRun('domain', outerSpan(at), `${p.name} must be more than 0.`)
    }
  }

  private seed(node: CallNode, entry: Entry, args: Record<string, CompiledExpression | undefined>): number | null {
    if (!entry.seeded) return 0
    const own = args.seed && constantOf(args.seed)
    if (own) return this.env.seed(`=${own.n}/${own.d}`, -1)
    return this.seedBy(this.env, node, entry, args.at !== undefined)
  }

  /** The seed of a call without one of its own, in some surroundings; a landscape is one for all copies of a drive. */
  seedBy(env: Env, node: CallNode, entry: Entry, forAll = false): number | null {
    return env.seed(canonical(entry.name), this.placeOf(node), forAll)
  }

  /** Which of the calls of its function a call is, in text order. */
  placeOf(node: CallNode): number {
    return this.nth.get(node) ?? 0
  }

  phase(node: CallNode) {
    return this.prepared(node).call.phase
  }

  protected call(node: CallNode): CompiledExpression {
    const { entry, call: bare } = this.prepared(node)
    const { evaluation, facts } = entry
    const fold = evaluation.fold?.(bare)
    const constants = fold?.of.map(constantOf)
    const folded = constants?.every(c => c !== null) ? fold!.by(...(constants as Rational[])) : null
    const exact = evaluation.exact?.(bare) ?? (folded && within(folded) ? constant(folded) : null)
    const exactly = (fold && exactlyOf(fold.of, fold.by)) ?? evaluation.exactly?.(bare) ?? null
    const call: Call = { ...bare, exactly }
    if (exact && isZero(exact.rate)) return this.dialled(node, constantExpression(exact.base, this.env.frameRate))
    if (exact) return steadyExpression(exact, this.env.frameRate)
    const known = {
      bounds: () => facts.bounds(call),
      repeats: () => (facts.repeats ?? repeatsOfArgs)(call),
      bends: () => (facts.bends ?? bendsOfArgs)(call),
      leaps: () => (facts.leaps ?? facts.bends ?? leapsOfArgs)(call),
      cost: () => {
        const cost = (facts.cost ?? costOfArgs)(call)
        const { freq, every, rate } = call.args
        const pace = freq ?? every ?? rate
        // A pace that varies is added up.
        const summed = pace && !constantOf(pace) && !call.phase.affine
        return summed ? costOf(0, [{ cost }, { cost: costSummed(0, pace.facts(), 0) }]) : cost
      },
      finite: () => argsOf(call).every(f => f.facts().finite) && (facts.finite?.(call) ?? true) && call.phase.finite(),
      slope: () => facts.slope?.(call) ?? ALL,
      reach: () =>
        Math.min(
          call.phase.reach(),
          call.accumulation?.form.facts().reach ?? Infinity,
          ...argsOf(call).map(f => f.facts().reach),
        ),
    }
    if (call.seed === null) return expressionOf(refuseToRead, known)
    return expressionOf(evaluation.at(call), known, {
      integral: evaluation.integral?.(call) ?? null,
      exactly,
      grid: facts.grid?.(call) ?? null,
    })
  }
}
