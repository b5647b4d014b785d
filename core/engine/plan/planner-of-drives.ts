/**
 * Columns of drives whose formulas have one shape, a lane a drive. What their formulas have in common is compiled once, in the
 * surroundings of the first; their numbers, set values, seeds and links differ by lane. What has no kernel leaves all of
 * them to the plain evaluator.
 */
import type { Checked } from '../../formula/check.ts'
import { letRead } from '../../formula/scope.ts'
import { builtinNamed } from '../../formula/words.ts'
import {
  everyNode,
  type CallNode,
  type MemberNode,
  type NameNode,
  type Node,
  type NumberNode,
} from '../../formula/tree.ts'
import { canonical } from '../../units/names.ts'
import type { Measures } from '../../units/units.ts'
import { fixedLanes, moving, one, type Column } from '../../columns/column.ts'
import { fractionsOf, type Fractions } from '../../columns/fractions.ts'
import { orSet, readAtMoment } from '../../columns/elsewhere.ts'
import type { Elsewhere } from '../../columns/kernel.ts'
import { SteadyLanes } from '../../columns/steady.ts'
import { PIECE_CLOCK, type ActiveClock } from '../../form/active-clock.ts'
import type { CompiledExpression } from '../../form/compiled-expression.ts'
import type { Entry } from '../../functions/entry.ts'
import { functionNamed } from '../../functions/index.ts'
import { negate, within, type Rational } from '../../time/rational.ts'
import { isPerLap, numberIn } from '../compile.ts'
import type { Env } from '../env.ts'
import { numberNodes } from '../formula-shape.ts'
import { columnOf, exactOf, exactTogether, type ExactLane } from './exact-lanes.ts'
import { CannotPlan, DEEPEST_FOLLOWED, Planner } from './planner.ts'
import { sameOnAllLanes, noColumn, SplitLanes } from './split.ts'
import { Varying } from './varies.ts'

/** What a lane reads: a driven value of the moment by its key, or what is exact. */
export type LaneRead = { readonly key: string } | ExactLane

export interface DrivesHost {
  /** The formulas by lane, all of one shape. */
  readonly checked: readonly Checked[]
  readonly measures: Measures
  /** The surroundings of a lane. */
  readonly env: (lane: number) => Env
  /** A set value of its own; null where keyframes move it. */
  readonly base: (lane: number) => ExactLane | null
  /** What it reads by its n-th link; null where only the plain evaluator follows. */
  readonly read: (lane: number, nth: number) => LaneRead | null
  /** Seed of the n-th call of a function that draws on chance. */
  readonly seed: (lane: number, name: string, nth: number) => number
  /** The shape of another drive; null where it can't be planned with others. */
  readonly shape: (key: string) => string | null
  /** Other drives of one shape, which a plan then holds as they are. */
  readonly others: (keys: readonly string[]) => DrivesHost
}

/** The place of what is read at another moment, of which its columns are alike: `readAtMoment` gives them theirs. */
const ELSEWHERE = {}

export class PlannerOfDrives extends Planner {
  readonly isWhole = true
  private readonly varying: VaryingInDrives
  private readonly numbers: readonly (readonly NumberNode[])[]
  private readonly which: ReadonlyMap<Node, number>
  /** Whether what is planned is read at another moment. */
  private isElsewhere = false

  /**
   * @param drives the lanes that are planned together: what they share is compiled for the first
   * @param deep how many links at other moments led here
   */
  constructor(
    private readonly host: DrivesHost,
    private readonly drives: readonly number[],
    private readonly deep = 0,
  ) {
    const first = drives[0]!
    const env = host.env(first)
    super(host.checked[first]!, env, drives.length)
    this.numbers = drives.map(lane => numberNodes(host.checked[lane]!))
    const own = this.numbers[0]!
    this.which = new Map(own.map((n, k) => [n, k]))
    const spelled = (i: number, k: number): string => {
      const n = this.numbers[i]![k]!
      return host.checked[drives[i]!]!.formula.text.slice(n.from, n.to)
    }
    const differing = new Set<Node>(own.filter((_, k) => drives.some((_, i) => spelled(i, k) !== spelled(0, k))))
    this.varying = new VaryingInDrives(differing, this.checked, env)
  }

  protected override get place(): object | null {
    return this.isElsewhere ? ELSEWHERE : null
  }

  protected leaf(node: Node): Column | null {
    if (!this.varying.has(node)) return one(this.plain.form(node))
    return node.type === 'number' ? this.number(this.which.get(node)!) : null
  }
  argument(node: Node, form: CompiledExpression | undefined): Column | null {
    return form && !this.varying.has(node) ? one(form) : null
  }

  private number(k: number): Column {
    const { checked, measures } = this.host
    const values = this.drives.map((lane, i) => {
      const value = numberIn(checked[lane]!, this.numbers[i]![k]!, measures)
      return within(value) ? value : noColumn()
    })
    return fixedLanes(fractionsOf(values), isPerLap(this.checked, this.numbers[0]![k]!))
  }

  protected byLane(): Column {
    throw new CannotPlan()
  }
  seeds(node: CallNode, entry: Entry): number[] {
    const nth = this.plain.placeOf(node)
    return this.drives.map(lane => this.host.seed(lane, canonical(entry.name), nth))
  }
  steady(rate: Fractions | Rational, base: Fractions, beat: ActiveClock | null): SteadyLanes {
    return new SteadyLanes(rate, base, this.frameRate, beat)
  }

  elsewhere(value: Node): Elsewhere {
    const there = (): Column => {
      const before = this.isElsewhere
      this.isElsewhere = true
      try {
        return this.column(value)
      } finally {
        this.isElsewhere = before
      }
    }
    return {
      at: to => readAtMoment(there(), to),
      earlier: seconds => {
        const ahead = negate(sameOnAllLanes(seconds))
        const of = there()
        // What is exact stays exact at another moment, which the plain evaluator follows.
        return exactOf(of, this.lanes) ? noColumn() : readAtMoment(of, m => m.ahead(ahead))
      },
    }
  }

  protected named(node: NameNode): Column {
    if (builtinNamed(node.name)?.name !== 'base' || this.plain.beat !== PIECE_CLOCK) return noColumn()
    const bases = this.drives.map(lane => this.host.base(lane) ?? noColumn())
    return columnOf(exactTogether(bases)!, this.frameRate)
  }

  protected member(node: MemberNode): Column {
    const nth = this.checked.reads.findIndex(r => r.type === 'property' && r.from === node.from && r.to === node.to)
    if (nth < 0 || node.of.type === 'index') return noColumn()
    const reads = this.drives.map(lane => this.host.read(lane, nth) ?? noColumn())
    const exact = exactTogether(reads.map(r => ('key' in r ? null : r)))
    if (exact) return columnOf(exact, this.frameRate)
    const keys = reads.map(r => (r as { key: string }).key)
    if (this.isElsewhere || this.deep > 0) return this.formulasOf(keys)
    const places = new Int32Array(keys.length)
    let known: ReadonlyMap<string, number> | null = null
    return moving(({ offsets, values }, from, count, out) => {
      if (offsets !== known) {
        for (let i = 0; i < keys.length; i++) places[i] = offsets.get(keys[i]!)!
        known = offsets
      }
      for (let i = 0; i < count; i++) out[i] = values[places[from + i]!]!
    })
  }

  /** Other drives at a moment that is not the snapshot's: their formulas are followed, a lane each. */
  private formulasOf(keys: readonly string[]): Column {
    if (this.deep === DEEPEST_FOLLOWED) throw new CannotPlan()
    const shapes = keys.map(key => this.host.shape(key) ?? noColumn())
    const alike = Float64Array.from(shapes, s => (s === shapes[0] ? 1 : 0))
    if (alike.includes(0)) throw new SplitLanes(alike)
    const others = this.host.others(keys)
    const planner = new PlannerOfDrives(others, [...keys.keys()], this.deep + 1)
    const of = planner.column(planner.checked.formula.body)
    this.operations += planner.operations + everyNode(planner.checked.formula).length
    return orSet(of)
  }
}

/** Which pieces of a formula differ from drive to drive: what does between copies, numbers, links, and what is set. */
class VaryingInDrives extends Varying {
  constructor(
    private readonly differing: ReadonlySet<Node>,
    checked: Checked,
    env: Env,
  ) {
    super(checked, env, NO_COPIES)
  }

  protected override look(node: Node): boolean {
    if (node.type === 'member' || this.differing.has(node)) return true
    // Where a part is, and how it meshes, differs from one to the other.
    if (
      node.type === 'call' &&
      functionNamed(node.name)?.parameters.some(t => t.thing === 'part' || t.thing === 'gear')
    )
      return true
    if (
      node.type === 'name' &&
      !letRead(this.checked.formula, node) &&
      !node.quoted &&
      builtinNamed(node.name)?.name === 'base'
    )
      return true
    return super.look(node)
  }
}

const NO_COPIES = { own: { part: '', property: '' }, instancesOf: () => 1, hasOwn: () => true }
