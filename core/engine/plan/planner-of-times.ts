/**
 * Columns of a formula on one copy at many moments, a lane a moment: each is so many seconds ahead of the moment that is
 * asked for, so that the same columns serve wherever a stretch begins. `delay` means other lanes.
 */
import type { Checked } from '../../formula/check.ts'
import { builtinNamed } from '../../formula/words.ts'
import type { CallNode, MemberNode, NameNode, Node } from '../../formula/tree.ts'
import { one, steadyLanes, type Column } from '../../columns/column.ts'
import { commonOf, plusLanes, scaledLanes, shiftedLanes, uniform, type Fractions } from '../../columns/fractions.ts'
import type { Elsewhere } from '../../columns/kernel.ts'
import { SteadyLanes } from '../../columns/steady.ts'
import type { ActiveClock } from '../../form/active-clock.ts'
import { constantOf, type CompiledExpression } from '../../form/compiled-expression.ts'
import type { Entry } from '../../functions/entry.ts'
import type { Rational } from '../../time/rational.ts'
import type { Env } from '../env.ts'
import { Planner } from './planner.ts'
import { noColumn } from './split.ts'

/** The moments of lanes, in seconds ahead of the one that is asked for. */
export interface LaneTimes {
  readonly ahead: Fractions
  /** The same so many seconds earlier: the same object for the same. */
  readonly earlier: (seconds: Rational) => LaneTimes
}

export class PlannerOfTimes extends Planner {
  /** @param link what a driven value is at these moments, by the expression that reads it; null where nothing drives it */
  constructor(
    checked: Checked,
    private readonly env: Env,
    lanes: number,
    private times: LaneTimes,
    private readonly link: (reader: CompiledExpression, at: LaneTimes) => Column | null,
  ) {
    super(checked, env, lanes)
  }

  protected override get place(): object {
    return this.times
  }

  protected leaf(node: Node): Column | null {
    return this.argument(node, this.plain.form(node))
  }

  argument(_: Node, form: CompiledExpression | undefined): Column | null {
    if (!form) return null
    if (constantOf(form)) return one(form)
    if (form.exact) {
      const { rate, base } = form.exact
      const grown = scaledLanes(this.times.ahead, rate)
      const all = grown && shiftedLanes(grown, base)
      return all ? steadyLanes(uniform(rate, this.lanes), all, new SteadyLanes(rate, all, this.frameRate)) : noColumn()
    }
    // Time on a clock that is not steady is counted on that.
    return form.onClock ? noColumn() : null
  }

  /** Nothing is read lane by lane: what has no kernel leaves the formula to the plain evaluator. */
  protected byLane(): Column {
    return noColumn()
  }

  seeds(node: CallNode, entry: Entry): number[] {
    return new Array<number>(this.lanes).fill(this.plain.seedBy(this.env, node, entry)!)
  }

  steady(rate: Fractions | Rational, base: Fractions, beat: ActiveClock | null): SteadyLanes | null {
    // All lanes are of one copy, which has one pace.
    const pace = 'big' in rate ? commonOf(rate) : rate
    const grown = beat ? null : pace && scaledLanes(this.times.ahead, pace)
    const all = grown && plusLanes(grown, base)
    return all && new SteadyLanes(pace!, all, this.frameRate)
  }

  elsewhere(value: Node): Elsewhere {
    const earlier = (seconds: Fractions): Column => {
      const before = this.times
      this.times = before.earlier(commonOf(seconds) ?? noColumn())
      try {
        return this.column(value)
      } finally {
        this.times = before
      }
    }
    return { earlier, at: null }
  }

  protected named(node: NameNode): Column {
    const builtin = node.quoted ? undefined : builtinNamed(node.name)
    if (builtin?.name === 'lapProgress' || builtin?.name === 'lapIndex') return this.lap(builtin.name)
    return builtin ? noColumn() : this.member(node)
  }

  protected member(node: MemberNode | NameNode): Column {
    return this.link(this.plain.form(node), this.times) ?? noColumn()
  }
}
