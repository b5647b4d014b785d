/** Which pieces of a formula differ from copy to copy; all others are read once a moment for all copies. */
import { argumentsOf } from '../../formula/arguments.ts'
import type { Checked } from '../../formula/check.ts'
import { letRead, partBefore } from '../../formula/scope.ts'
import { builtinNamed } from '../../formula/words.ts'
import { children, type CallNode, type MemberNode, type Node } from '../../formula/tree.ts'
import { functionNamed } from '../../functions/index.ts'
import type { Env } from '../env.ts'

/** What is asked of the piece. */
export interface Surroundings {
  /** How many instances a part has. */
  readonly instancesOf: (part: string) => number
  /** Whether a property's set value differs between copies. */
  readonly hasOwn: (part: string, property: string) => boolean
  /** The property that is driven. */
  readonly own: { readonly part: string; readonly property: string }
}

/** Words of the language that may change with time. */
const MOVING_WORDS = new Set(['time', 'frame', 'lapProgress', 'lapIndex', 'base'])

export class Varying {
  private readonly known = new Map<Node, boolean>()

  constructor(
    protected readonly checked: Checked,
    private readonly env: Env,
    private readonly around: Surroundings,
  ) {}

  has(node: Node): boolean {
    let found = this.known.get(node)
    if (found === undefined) this.known.set(node, (found = this.look(node)))
    return found
  }

  protected look(node: Node): boolean {
    switch (node.type) {
      case 'name':
        return this.name(node)
      case 'member':
        return this.member(node)
      case 'call':
        return this.call(node)
      default:
        return children(node).some(c => this.has(c))
    }
  }

  private name(node: Node & { type: 'name' }): boolean {
    const own = letRead(this.checked.formula, node)
    if (own) return this.has(own.value)
    const builtin = node.quoted ? undefined : builtinNamed(node.name)
    if (builtin?.name === 'base') return this.around.hasOwn(this.around.own.part, this.around.own.property)
    return builtin?.copies ?? false
  }

  private member(node: MemberNode): boolean {
    const before = partBefore(node)
    if (!before) return true
    const { word } = before
    if (before.relative && (word === 'before' || builtinNamed(node.name)?.copies)) return true
    const feature = this.env.feature(word, node.name, before.relative)
    if (!feature) return true
    return !('setting' in feature) && this.around.instancesOf(feature.part) > 1
  }

  /** What draws on chance, and sums with slips of their own, differ even where their arguments do not. */
  private call(node: CallNode): boolean {
    if (children(node).some(c => this.has(c))) return true
    const entry = functionNamed(node.name)
    if (!entry) return true
    const { filled } = argumentsOf(node, entry)
    const given = new Set(filled.map(f => f.parameter.name))
    if (entry.seeded && !given.has('seed') && !given.has('at')) return true
    if (entry.name === 'stageX' || entry.name === 'stageY') return true
    const paces = [entry.pace?.freq, entry.pace?.every]
    return filled.some(
      ({ parameter, arg }) =>
        (parameter.kind === 'perSecond' || paces.includes(parameter.name)) && !this.isConstant(arg.value),
    )
  }

  /** Whether a pace is written in numbers and dials alone. */
  private isConstant(node: Node): boolean {
    if (node.type === 'number') return true
    if (node.type === 'name') {
      const own = letRead(this.checked.formula, node)
      if (own) return this.isConstant(own.value)
      const builtin = node.quoted ? undefined : builtinNamed(node.name)
      if (builtin) return !MOVING_WORDS.has(builtin.name)
      return this.checked.reads.some(r => r.type === 'dial' && r.from === node.from && r.to === node.to)
    }
    return (node.type === 'binary' || node.type === 'unary') && children(node).every(c => this.isConstant(c))
  }
}
