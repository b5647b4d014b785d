/** What a call means: its arguments, their kinds, and what it gives. */
import { FREQUENCY, PLAIN, TIME, isPlain, kindName, product, quotient, sameKind, type Kind } from '../units/kinds.ts'
import { unitOfKind } from '../units/units.ts'
import { argumentsOf, type Filled } from './arguments.ts'
import { FUNCTIONS, functionNamed } from '../functions/index.ts'
import type { Entry, Parameter } from '../functions/entry.ts'
import { Lookup, type Got } from './lookup.ts'
import { problem, replacing } from './problem.ts'
import { kindOfUnit, type Thing } from './scope.ts'
import { outerSpan, type CallNode, type Node } from './tree.ts'

/** What is read of a part that stands as an argument. */
const READ_OF: Readonly<Record<string, readonly string[]>> = { gear: ['rotation'], waves: ['swell', 'crest'] }

export abstract class Calls extends Lookup {
  /** A number of any kind, but no yes or no. */
  protected measured(node: Node, got: Got): Got {
    if (got === 'any' || !got.truth) return got
    return this.wrong(
      problem('kind', outerSpan(node), 'A yes or no cannot be reckoned with. Choose with if … then … else ….'),
    )
  }

  protected call(node: CallNode, place: boolean): Got {
    const entry = functionNamed(node.name)
    if (!entry) {
      for (const a of node.args) this.infer(a.value, false)
      return this.unknown(
        node.nameAt,
        node.name,
        FUNCTIONS.map(f => f.name),
        'There is no function',
      )
    }
    const { filled, problems } = argumentsOf(node, entry)
    this.problems.push(...problems)
    const got = new Map<Filled, Got>()
    for (const f of filled) {
      if (f.word) {
        if (f.parameter.thing) this.thing(f, f.parameter.thing)
        continue
      }
      got.set(f, this.measured(f.arg.value, this.infer(f.arg.value, place && f.parameter.valuePlace === true)))
    }
    for (const [f, kind] of got) {
      const wanted = f.parameter.kind
      if (typeof wanted === 'string' || kind === 'any' || sameKind(kind, wanted)) continue
      const what = sameKind(wanted, FREQUENCY) && sameKind(kind, TIME) ? ' (every: takes a time)' : ''
      this.mismatch(
        f.arg.value,
        kind,
        wanted,
        `${f.parameter.name} wants ${kindName(wanted)}${what}; this is ${kindName(kind)}.`,
      )
    }
    this.oneKind(
      entry,
      [...got].filter(([f]) => f.parameter.kind === 'other'),
      'other',
    )
    const shared = [...got].filter(([f]) => f.parameter.kind === 'result' || f.parameter.kind === 'perSecond')
    const perSecond = (f: Filled, kind: Got): Got =>
      f.parameter.kind === 'perSecond' && kind !== 'any' ? product(kind, TIME) : kind
    const result = this.oneKind(
      entry,
      shared.map(([f, kind]) => [f, perSecond(f, kind)] as const),
      'result',
      node,
    )
    if (problems.length > 0) return 'any'
    this.mustBePlain(entry, node, result, new Set(filled.map(f => f.parameter.name)))
    if (entry.result === 'result') return result
    if (entry.result === 'curve') return this.curveKind(filled)
    if (entry.result !== 'rate') return entry.result
    const first = [...got.values()][0]
    return first === undefined || first === 'any' ? 'any' : quotient(first, TIME)
  }

  /** A value that is not plain is cut in steps of a size that must be said. */
  private mustBePlain(entry: Entry, node: CallNode, result: Got, given: ReadonlySet<string>): void {
    if (!entry.plainUnless || given.has(entry.plainUnless) || result === 'any' || isPlain(result)) return
    const unit = unitOfKind(result)
    const end = { from: node.to - 1, to: node.to - 1 }
    const fix = unit
      ? [replacing(end, `, ${entry.plainUnless}: 1${unit}`, `${entry.name}(…, ${entry.plainUnless}: 1${unit})`)]
      : []
    const says = `${entry.name} wants a plain value, or ${entry.plainUnless}: to say in what steps; this is ${kindName(result)}.`
    this.wrong(problem('kind', node, says, ...fix))
  }

  /** The name of a thing of the piece as an argument. */
  private thing(f: Filled, type: NonNullable<Parameter['thing']>): void {
    const { piece } = this.names
    const fits = (t: Thing) =>
      type === 'gear' || type === 'waves'
        ? t.type === 'part' && piece.parts[t.id]!.shape.type === type
        : t.type === type
    const named = this.names.named(f.word!.name)
    const own = this.target.part === null ? undefined : piece.parts[this.target.part]
    if (type === 'gear' && (own?.shape.type !== 'gear' || this.target.property?.name !== 'rotation')) {
      this.wrong(problem('argument-unknown', f.arg.value, 'Only the rotation of a gear can engage with another gear.'))
    } else if (!named || !fits(named)) {
      const known = this.names.all().filter(fits)
      this.unknown(
        f.arg.value,
        f.word!.name,
        known.map(t => t.name),
        `There is no ${type === 'waves' ? 'wave surface' : type} named`,
      )
    } else {
      const { from, to } = f.arg.value
      for (const property of READ_OF[type] ?? [])
        this.reads.push({ type: 'property', part: named.id, property, from, to, before: false })
    }
  }

  private curveKind(filled: readonly Filled[]): Got {
    const name = filled.find(f => f.parameter.thing === 'curve')?.word?.name
    const named = name === undefined ? undefined : this.names.named(name)
    return named?.type === 'curve' ? kindOfUnit(this.names.piece.curves[named.id]!.unit) : 'any'
  }

  /** All arguments that share a kind must have one; a number left out that is not 0 counts as plain. */
  private oneKind(
    entry: Entry,
    given: readonly (readonly [Filled, Got])[],
    kind: 'result' | 'other',
    call?: CallNode,
  ): Got {
    let first: readonly [Filled, Kind] | null = null
    for (const [f, got] of given) {
      if (got === 'any') continue
      if (!first) first = [f, got]
      else if (!sameKind(first[1], got)) {
        const plainFirst = isPlain(first[1])
        const [at, has, other] = plainFirst ? [first[0], first[1], got] : [f, got, first[1]]
        const names = `${first[0].parameter.name} is ${kindName(first[1])} and ${f.parameter.name} ${kindName(got)}`
        return this.mismatch(at.arg.value, has, other, `In ${entry.name} ${names}; they must be of one kind.`)
      }
    }
    if (!call) return first?.[1] ?? PLAIN
    const names = new Set(given.map(([f]) => f.parameter.name))
    const second = entry.either?.some(([, b]) =>
      b.some(n => names.has(n) && entry.takes.find(p => p.name === n)?.kind === kind),
    )
    const missing = entry.takes.find(
      p => p.kind === kind && p.initial !== undefined && p.initial !== 0 && !names.has(p.name),
    )
    if (!missing || second) return first?.[1] ?? 'any'
    if (first && !isPlain(first[1])) {
      const says = `In ${entry.name} ${first[0].parameter.name} is ${kindName(first[1])}, and ${missing.name}, left out, is a plain ${missing.initial}.`
      return this.mismatch(call, PLAIN, first[1], says)
    }
    return PLAIN
  }
}
