/** What a call means: its arguments, their kinds, and what it gives. */
import {
  FREQUENCY,
  PLAIN,
  TIME,
  isPlain,
  kindName,
  productKind,
  quotientKind,
  sameKind,
  type Kind,
} from '../units/kinds.ts'
import { unitOfKind } from '../units/units.ts'
import { argumentsOf, type Filled } from './arguments.ts'
import { FUNCTIONS, functionNamed } from '../functions/index.ts'
import type { Entry } from '../functions/entry.ts'
import type { Parameter } from '../functions/parameter.ts'
import { Lookup, type Got } from './lookup.ts'
import { problem, replacing } from './problem.ts'
import { POSED } from '../piece/transform.ts'
import { canonical } from '../units/names.ts'
import { kindOfUnit, partWord, relative, type Thing } from './scope.ts'
import { outerSpan, type CallNode, type Node } from './tree.ts'

/** What is read of a part that stands as an argument. */
const READ_OF: Readonly<Record<string, readonly string[]>> = {
  gear: ['rotation'],
  waves: ['height', 'swell', 'crest', 'foam'],
}

export abstract class Calls extends Lookup {
  /** A number of any kind, but no yes or no. */
  protected measured(node: Node, got: Got): Got {
    if (got === 'any' || !got.truth) return got
    return this.wrong(
      problem(
        'kind',
        outerSpan(node),
        'You can’t calculate with a yes or no. Use if … then … else … to choose a value.',
      ),
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
        'Unknown function',
      )
    }
    const { filled, problems } = argumentsOf(node, entry)
    this.problems.push(...problems)
    const got = new Map<Filled, Got>()
    for (const f of filled) {
      if (f.word) {
        if (f.parameter.thing) this.thing(f, f.parameter.thing)
        if (f.word.curve) this.easingCurve(f)
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
        `${f.parameter.name} needs ${kindName(wanted)}${what}, but this is ${kindName(kind)}.`,
      )
    }
    this.oneKind(
      entry,
      [...got].filter(([f]) => f.parameter.kind === 'other'),
      'other',
    )
    const shared = [...got].filter(([f]) => f.parameter.kind === 'result' || f.parameter.kind === 'perSecond')
    const perSecond = (f: Filled, kind: Got): Got =>
      f.parameter.kind === 'perSecond' && kind !== 'any' ? productKind(kind, TIME) : kind
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
    return first === undefined || first === 'any' ? 'any' : quotientKind(first, TIME)
  }

  /** A value that is not plain is cut in steps of a size that must be said. */
  private mustBePlain(entry: Entry, node: CallNode, result: Got, given: ReadonlySet<string>): void {
    if (!entry.plainUnless || given.has(entry.plainUnless) || result === 'any' || isPlain(result)) return
    const unit = unitOfKind(result)
    const end = { from: node.to - 1, to: node.to - 1 }
    const fix = unit
      ? [replacing(end, `, ${entry.plainUnless}: 1${unit}`, `${entry.name}(…, ${entry.plainUnless}: 1${unit})`)]
      : []
    const says = `${entry.name} needs a plain value, or ${entry.plainUnless}: for the size of its steps; this is ${kindName(result)}.`
    this.wrong(problem('kind', node, says, ...fix))
  }

  /** The name of a thing of the piece as an argument. */
  private thing(f: Filled, type: NonNullable<Parameter['thing']>): void {
    const { piece } = this.names
    const fits = (t: Thing) =>
      type === 'gear' || type === 'waves'
        ? t.type === 'part' && piece.parts[t.id]!.shape.type === type
        : t.type === type
    if (type === 'part') return this.place(f)
    const named = this.names.named(f.word!.name)
    const own = this.target.part === null ? undefined : piece.parts[this.target.part]
    if (type === 'gear' && (own?.shape.type !== 'gear' || this.target.property?.name !== 'rotation')) {
      this.wrong(problem('argument-unknown', f.arg.value, 'Only a gear’s rotation can engage with another gear.'))
    } else if (!named || !fits(named)) {
      const known = this.names.all().filter(fits)
      this.unknown(
        f.arg.value,
        f.word!.name,
        known.map(t => t.name),
        `Unknown ${type === 'waves' ? 'wave surface' : type}`,
      )
    } else {
      const { from, to } = f.arg.value
      for (const property of READ_OF[type] ?? [])
        this.reads.push({ type: 'property', part: named.id, property, from, to, before: false })
    }
  }

  /** A part whose place on the stage is read: all that puts it there is read, of itself and of what it hangs on. */
  private place(f: Filled): void {
    const { piece } = this.names
    const node = f.arg.value
    const before = partWord(node.type === 'index' ? node.of : node)
    const found = before?.relative
      ? relative(piece, canonical(before.word), this.target.part)
      : this.names.named(before?.word ?? '')
    const thing = typeof found === 'object' && 'type' in found && found.type === 'part' ? found.id : null
    const part = typeof found === 'string' ? found : thing
    if (part === null) {
      const parts = this.names.all().filter(t => t.type === 'part')
      if (typeof found === 'object' && 'says' in found) this.wrong(problem('unknown-name', node, found.says))
      else
        this.unknown(
          node,
          before?.word ?? 'this',
          parts.map(t => t.name),
          'Unknown part',
        )
      return
    }
    this.copyOf(
      { type: 'member', of: node, name: 'stageX', nameAt: node, from: node.from, to: node.to },
      before!.name,
      part,
    )
    for (let at: string | null = part; at !== null; at = piece.parts[at]!.parent) {
      for (const property of POSED)
        this.reads.push({ type: 'property', part: at, property, from: node.from, to: node.to, before: false })
    }
  }

  /** A name that is no easing may be a curve, whose values are shares. */
  private easingCurve(f: Filled): void {
    const named = this.names.named(f.word!.name)
    if (named?.type !== 'curve') {
      const curves = this.names.all().filter(t => t.type === 'curve')
      const known = [...(f.parameter.words?.() ?? []), ...curves.map(t => t.name)]
      this.unknown(f.arg.value, f.word!.name, known, 'Unknown easing or curve')
      return
    }
    const kind = kindOfUnit(this.names.piece.curves[named.id]!.unit)
    if (isPlain(kind)) return
    const says = `An easing curvemust go from 0 to 1; ${named.name} gives ${kindName(kind)}. Set its unit to % or to none.`
    this.wrong(problem('kind', f.arg.value, says))
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
        return this.mismatch(
          at.arg.value,
          has,
          other,
          `In ${entry.name} ${names}; they must have the same kind of unit.`,
        )
      }
    }
    if (!call) return first?.[1] ?? PLAIN
    const names = new Set(given.map(([f]) => f.parameter.name))
    const second = entry.alternatives?.some(([, b]) =>
      b.some(n => names.has(n) && entry.parameters.find(p => p.name === n)?.kind === kind),
    )
    const missing = entry.parameters.find(
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
