/** What the names in a formula mean: words, things of the piece, properties of parts, single copies. */
import { PLAIN, TIME, isPlain, kindName, sameKind, type Kind } from '../units/kinds.ts'
import { propertiesOf } from '../piece/properties.ts'
import { functionNamed } from '../functions/index.ts'
import { canonical, meant, nearest } from '../units/names.ts'
import { readUnit } from '../units/units.ts'
import { BUILTINS, RELATIVES, builtinNamed, spelled, quotedName } from './words.ts'
import { problem, replacing, type Problem, type Span } from './problem.ts'
import {
  featureOf,
  hasCopyWord,
  kindOfUnit,
  levelsOut,
  partWord,
  levelsOf,
  relative,
  type Names,
  type Target,
} from './scope.ts'
import { outerSpan, type CallNode, type MemberNode, type NameNode, type Node, type NumberNode } from './tree.ts'

/** A kind, or `any` for 0 and for what already has a problem. */
export type Got = Kind | 'any'

/** What else of the piece a formula reads. */
export type FormulaRead =
  /**
   * `before`: of an earlier copy of its own (`before.x`, `tail[index - 1].x`), or, with `after`, of a later one: neither can
   * close a circle by itself.
   */
  | ({
      readonly type: 'property'
      readonly part: string
      readonly property: string
      readonly before: boolean
      readonly after?: true
    } & Span)
  | ({ readonly type: 'dial' | 'signal'; readonly id: string } & Span)

/** The kind of a signal, or `any` while it has a problem of its own. */
export type SignalKind = (id: string) => Got

/** Where two kinds met that do not fit: what stood there, and what was wanted. */
export interface Clash {
  readonly node: Node
  readonly got: Kind
  readonly wanted: Kind
}

/** Looks names up where a formula stands, and gathers what is wrong and what is read. */
/** `stageX` and `stageY` behind a part, without brackets. */
const placeNamed = (name: string) => functionNamed(name)?.parameters[0]?.thing === 'part'

/** `mallet.stageX` as the call it stands for. */
export const asPlace = (node: MemberNode): CallNode => ({
  type: 'call',
  from: node.from,
  to: node.to,
  name: node.name,
  nameAt: node.nameAt,
  method: true,
  args: [{ from: node.of.from, to: node.of.to, value: node.of }],
})

/** How many copies further on `index + k` and `index - k` are, with k a whole number; 0 for anything else. */
function stepIn(at: Node): number {
  if (at.type !== 'binary' || (at.op !== '+' && at.op !== '-')) return 0
  const { left, right } = at
  if (left.type !== 'name' || left.quoted || canonical(left.name) !== 'index' || right.type !== 'number') return 0
  if (right.unit !== '' || right.value.d !== 1n) return 0
  return Number(right.value.n) * (at.op === '+' ? 1 : -1)
}

export abstract class Lookup {
  readonly problems: Problem[] = []
  readonly clashes = new Map<Problem, Clash>()
  readonly bare = new Map<NumberNode, string>()
  readonly reads: FormulaRead[] = []
  readonly kinds = new Map<Node, Got>()
  lets: ReadonlyMap<string, Got> = new Map()

  constructor(
    protected readonly names: Names,
    protected readonly target: Target,
    protected readonly signalKind: SignalKind,
  ) {}

  protected wrong(p: Problem): 'any' {
    this.problems.push(p)
    return 'any'
  }

  mismatch(node: Node, got: Kind, wanted: Kind, says: string): 'any' {
    const p = problem('kind', outerSpan(node), says)
    this.clashes.set(p, { node, got, wanted })
    return this.wrong(p)
  }

  /** The kind of a node; `place`: whether a bare number there takes the driven property's unit. */
  abstract infer(node: Node, place: boolean): Got

  protected name(node: NameNode): Got {
    const own = node.quoted ? undefined : this.lets.get(canonical(node.name))
    if (own !== undefined) return own
    const builtin = node.quoted ? undefined : builtinNamed(node.name)
    if (builtin) return this.builtin(node, builtin.name)
    const thing = this.names.named(node.name)
    if (thing?.type === 'dial') {
      this.reads.push({ type: 'dial', id: thing.id, from: node.from, to: node.to })
      return thing.kind
    }
    if (thing?.type === 'signal') {
      this.reads.push({ type: 'signal', id: thing.id, from: node.from, to: node.to })
      return this.signalKind(thing.id)
    }
    if (thing?.type === 'curve') return kindOfUnit(this.names.piece.curves[thing.id]!.unit)
    if (thing?.type === 'part') {
      const first = propertiesOf(this.names.piece.parts[thing.id]!.shape.type)
      const wanted = first.find(p => p.name === this.target.property?.name) ?? first[0]!
      const fix = replacing(
        { from: node.to, to: node.to },
        `.${wanted.name}`,
        `${quotedName(thing.name)}.${wanted.name}`,
      )
      return this.wrong(
        problem(
          'syntax',
          node,
          `${thing.name} is a part. Add a property, as in ${quotedName(thing.name)}.${wanted.name}.`,
          fix,
        ),
      )
    }
    if (thing) {
      const how =
        thing.type === 'clock'
          ? `a clock. Write it at the end: … on ${quotedName(thing.name)}.`
          : `a cue. Read it as since(${quotedName(thing.name)}).`
      return this.wrong(problem('syntax', node, `${thing.name} is ${how}`))
    }
    if (functionNamed(node.name)) {
      return this.wrong(
        problem('syntax', node, `${node.name} is a function: write its arguments in brackets after it.`),
      )
    }
    if ((RELATIVES as readonly string[]).includes(canonical(node.name))) {
      return this.wrong(problem('syntax', node, `After ${node.name} write a property, as in ${node.name}.rotation.`))
    }
    // A word of time with a blank before it: 3 / lap.
    if (readUnit(node.name)?.kind && sameKind(readUnit(node.name)!.kind, TIME))
      return this.wrong(
        problem(
          'unknown-name',
          node,
          `${node.name} is a unit of time. Write it right after its number: 3/${node.name}.`,
        ),
      )
    return this.unknown(node, node.name, [...BUILTINS.map(b => b.name), ...this.valueNames()], 'Unknown name')
  }

  protected valueNames(): string[] {
    return [...this.names.all().map(t => t.name), ...this.lets.keys()]
  }

  protected unknown(at: Span, name: string, known: readonly string[], says: string): 'any' {
    const near = nearest(name, known)
    return this.wrong(
      problem(
        'unknown-name',
        at,
        `${says} “${name}”.${meant(near)}`,
        ...near.map(n => replacing(at, this.names.named(n) ? quotedName(n) : spelled(n))),
      ),
    )
  }

  protected builtin(node: NameNode, name: string): Got {
    const builtin = builtinNamed(name)!
    const { part } = this.target
    if (builtin.copies && !(part && hasCopyWord(this.names.piece, part, builtin))) {
      const lacks = builtin.layered ? 'layers' : builtin.lettered ? 'letters that are copies' : 'copies'
      const what = part ? `This part has no ${lacks}` : 'A signal doesn’t belong to a copy'
      return this.wrong(problem('index', node, `${what}, so there’s no ${name} here.`))
    }
    if (builtin.kind !== 'base') return builtin.kind
    return (
      this.target.property?.kind ??
      this.wrong(problem('unknown-name', node, 'A signal doesn’t drive a property, so it has no base.'))
    )
  }

  protected member(node: MemberNode): Got {
    const { piece } = this.names
    const before = partWord(node.of.type === 'index' ? node.of.of : node.of)
    if (!before) return this.wrong(problem('syntax', node, 'Write the name of a part before the dot.'))
    const of = before.name
    const word = canonical(before.word)
    let part: string
    if (before.relative) {
      if (word.startsWith('parent') && builtinNamed(node.name)?.copies) return this.outerCopy(node, levelsOut(word))
      const found = relative(piece, word, this.target.part)
      if (typeof found !== 'string') return this.wrong(problem('unknown-name', of, found.says))
      part = found
    } else {
      const thing = this.names.named(of.name)
      if (thing?.type !== 'part') {
        const parts = this.names.all().filter(t => t.type === 'part')
        return this.unknown(of, of.name, [...RELATIVES, ...parts.map(t => t.name)], 'Unknown part')
      }
      part = thing.id
    }
    const feature = featureOf(piece, part, node.name)
    if (!feature && placeNamed(node.name)) return this.infer(asPlace(node), false)
    const { name, shape } = piece.parts[part]!
    if (!feature) {
      return this.unknown(
        node.nameAt,
        node.name,
        propertiesOf(shape.type).map(p => p.name),
        `${name} has no property`,
      )
    }
    this.copyOf(node, of, part)
    if ('setting' in feature) return PLAIN
    const { from, to } = node
    const previous = before.relative && word === 'before'
    const step = part === this.target.part && node.of.type === 'index' ? stepIn(node.of.at) : 0
    this.reads.push({
      type: 'property',
      part,
      property: feature.name,
      from,
      to,
      before: previous || step !== 0,
      ...(step > 0 && { after: true as const }),
    })
    return feature.kind
  }

  /** `parent.index` and its like: the copies so many levels further out. */
  protected outerCopy(node: MemberNode, out: number): Got {
    const { part } = this.target
    const word = builtinNamed(node.name)!
    if (part && hasCopyWord(this.names.piece, part, word, out)) return word.kind as Kind
    const path = `${'parent.'.repeat(out)}${node.name}`
    return this.wrong(problem('index', node, `There are no outer copies, so there’s no ${path} here.`))
  }

  /** A copied part read from outside its copies needs to say which. */
  protected copyOf(node: MemberNode, of: NameNode, part: string): void {
    const { piece } = this.names
    const there = levelsOf(piece, part)
    const here = this.target.part ? levelsOf(piece, this.target.part) : []
    const shared = there.filter((l, i) => here[i]?.part === l.part).length
    if (node.of.type === 'index') {
      const got = this.infer(node.of.at, false)
      if (got !== 'any' && !isPlain(got))
        this.mismatch(node.of.at, got, PLAIN, `The copy number must be a plain number; this is ${kindName(got)}.`)
      if (there.length === 0) {
        const at = { from: of.to, to: node.of.to }
        this.wrong(problem('index', at, `${of.name} has no copies.`, replacing(at, '', `${of.name}.${node.name}`)))
      }
      return
    }
    if (there.length > shared) {
      const { count } = there.at(-1)!.copies
      const fix = replacing({ from: of.to, to: of.to }, '[0]', `${of.name}[0].${node.name}`)
      this.wrong(
        problem('index', of, `${of.name} has ${count} copies. Say which one, from [0] to [${count - 1}].`, fix),
      )
    }
  }
}
