/** How a driven value is read: worked out once a moment, and the set value where it is not finite. */
import { ALL, union } from '../facts/interval.ts'
import type { FactSources } from '../facts/facts.ts'
import type { Rational } from '../time/rational.ts'
import { costRead } from '../facts/cost.ts'
import { MomentCache } from './moment-cache.ts'
import { tightenBoundsBySampling } from './bounds-by-sampling.ts'
import { supposing, tightened } from '../facts/suppose.ts'
import type { Moment } from '../time/moment.ts'
import { bounds, expressionOf, repeats, type CompiledExpression } from './compiled-expression.ts'
import type { WorkQueue } from './work-queue.ts'

/** Readings of earlier moments after which values are kept by moment. */
const OFTEN = 16

/** Remembers the last moment, and others where it is often asked for earlier ones, which never changes a result. */
export function withFallback(
  f: CompiledExpression,
  base: CompiledExpression,
  frameRate: Rational,
  queue: WorkQueue,
): CompiledExpression {
  if (f.exact) return f
  let last: Moment | null = null
  let value = 0
  let back = 0
  let kept: MomentCache | null = null
  const at = (m: Moment): number => {
    if (m === last) return value
    if (kept) {
      const known = kept.at(m)
      if (!Number.isNaN(known)) return known
    } else if (last !== null && m.seconds < last.seconds && ++back > OFTEN) kept = new MomentCache()
    const before = queue.requestCount
    const v = f.at(m)
    // What has no value may only be on its way, and so may something that it reads: it is asked again.
    if (!Number.isFinite(v)) return base.at(m)
    if (queue.requestCount !== before) return v
    value = v
    last = m
    kept?.keep(m, v)
    return value
  }
  const facts: FactSources = {
    bounds: () => {
      const known = tightened(reader.facts(), () => (f.facts().finite ? bounds(f) : union(bounds(f), bounds(base))))
      return supposing() ? known : tightenBoundsBySampling(reader, known, frameRate, queue)
    },
    repeats: () => repeats(f),
    bends: () => f.facts().bends,
    leaps: () => f.facts().leaps,
    reach: () => f.facts().reach,
    cost: () => costRead(reader, f.facts().cost.anew),
    finite: () => f.facts().finite,
    slope: () => (f.facts().finite ? f.facts().slope : ALL),
  }
  const reader: CompiledExpression = expressionOf(at, facts, { exactly: f.exactly })
  return reader
}
