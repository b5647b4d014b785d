/**
 * One expression that stands for every copy of a drive at once: what differs from copy to copy is known by its bounds alone
 * (`form/value-across-copies.ts`). What is proven of it is proven of all copies together, at the price of one; what isn't may still be
 * so of each by itself.
 */
import { propertyKey } from '../piece/drive-key.ts'
import { interval, union } from '../facts/interval.ts'
import { tightened } from '../facts/suppose.ts'
import {
  bounds,
  constantOf,
  constantExpression,
  expressionOf,
  type CompiledExpression,
} from '../form/compiled-expression.ts'
import { valueAcrossCopies } from '../form/value-across-copies.ts'
import { DiffersByCopy, ofEveryCopy, refuseToRead } from '../form/differs-by-copy.ts'
import { propertyNamed } from '../piece/properties.ts'
import { ONE, type Rational } from '../time/rational.ts'
import { commonOf, fractionsOf, toNumbers, wholesOf, type Fractions } from '../columns/fractions.ts'
import { compile } from './compile.ts'
import { CannotRun, type Env } from './env.ts'
import { copyWordOfAll } from './instances.ts'
import type { Program } from './program.ts'

const known = new WeakMap<Program, Map<string, CompiledExpression | null>>()

/** A drive as its every copy is read, set value and all; null where it takes one copy to make it ready. */
export function everyCopy(program: Program, key: string): CompiledExpression | null {
  const slot = program.slots.get(key)
  if (!slot) return null
  if (slot.count === 1) return slot.readers[0]!
  let made = known.get(program)
  if (!made) known.set(program, (made = new Map()))
  let found = made.get(key)
  if (found === undefined) {
    // What comes back to itself has no expression of this kind.
    made.set(key, null)
    made.set(key, (found = ofEveryCopy(() => makeOf(program, key))))
  }
  return found
}

function makeOf(program: Program, key: string): CompiledExpression | null {
  const { target, text, good } = program.meanings.all.get(key)!
  const { running } = program.slots.get(key)!
  const base = alike(program.handForms(target.part!, target.property!), program.measures.frameRate)
  const checked = running === 'text' ? text : running === 'good' ? good : null
  if (!checked) return base
  let of: CompiledExpression
  try {
    of = compile(checked, envOf(program, key))
  } catch (e) {
    // It runs copy by copy: a number of steps, say, that differs from one to the next.
    if (e instanceof CannotRun) return null
    throw e
  }
  const facts = of.facts()
  const every: CompiledExpression = expressionOf(
    refuseToRead,
    {
      bounds: () => tightened(every.facts(), () => (facts.finite ? bounds(of) : union(bounds(of), bounds(base)))),
      repeats: () => facts.repeats,
      bends: () => facts.bends,
      leaps: () => facts.leaps,
      reach: () => facts.reach,
      cost: () => facts.cost,
      finite: () => facts.finite,
      slope: () => facts.slope,
    },
    { grid: of.grid ?? null },
  )
  return every
}

/** What the formula of every copy finds around it. */
function envOf(program: Program, key: string): Env {
  const { part, property } = program.meanings.all.get(key)!.target
  const { piece, measures } = program
  const here = program.instancesOf(part!)
  const first = program.envFor(key, 0)
  // A name that is read twice is one value in both places.
  const words = new Map<string, CompiledExpression | null>()
  const wordOf = (name: string): CompiledExpression | null => {
    let found = words.get(name)
    if (found === undefined) {
      const all = copyWordOfAll(piece, here, name)
      words.set(name, (found = all && spreadOf(all, measures.frameRate)))
    }
    return found
  }
  return {
    ...first,
    place: `${key}.every`,
    builtin: (name, beat) =>
      wordOf(name) ??
      (name === 'base'
        ? alike(program.handForms(part!, property!, beat), measures.frameRate)
        : first.builtin(name, beat)),
    property: (of, name, copy) => {
      if (program.instancesOf(of).count === 1) return first.property(of, name, copy)
      if (copy === 'before') throw new DiffersByCopy()
      // The number of copies decides whether there is one, which is the same wherever it is read.
      if (first.property(of, name, copy) === null) return null
      const other = propertyKey(of, name)
      const found = program.slots.has(other)
        ? everyCopy(program, other)
        : alike(program.handForms(of, propertyNamed(name)!), measures.frameRate)
      if (!found) throw new DiffersByCopy()
      return found
    },
    spot: (of, near, copy) => {
      if (here.count > 1) throw new DiffersByCopy()
      return first.spot(of, near, copy)
    },
    seed: (name, nth, forAll) => (nth < 0 || forAll ? first.seed(name, nth, forAll) : null),
  }
}

/** What is set by hand on every copy. */
function alike(forms: readonly CompiledExpression[], frameRate: Rational): CompiledExpression {
  const [first] = forms as [CompiledExpression]
  if (forms.every(f => f === first)) return first
  const values = forms.map(constantOf)
  if (values.some(v => v === null)) throw new DiffersByCopy()
  return spreadOf(fractionsOf(values as Rational[]), frameRate)
}

/** Constants of copies: one where all have the same. */
function spreadOf(all: Fractions, frameRate: Rational): CompiledExpression {
  const common = commonOf(all)
  if (common) return constantExpression(common, frameRate)
  const [low, high] = toNumbers(all).reduce(([l, h], v) => [Math.min(l, v), Math.max(h, v)], [Infinity, -Infinity])
  return valueAcrossCopies(interval(low, high), wholesOf(all) ? ONE : null)
}
