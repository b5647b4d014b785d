/** What the operators of the language make of forms; products stand in `product.ts`, sums in `form.ts`. */
import type { BinaryOp } from '../formula/tree.ts'
import * as E from '../insight/edges.ts'
import * as I from '../insight/interval.ts'
import * as R from '../insight/repeats.ts'
import { power } from '../signal/maths.ts'
import { AffineReader, add, opposite } from '../time/affine.ts'
import { ONE, ZERO, compare, isWhole, isZero, over, times, within, type Rational } from '../time/rational.ts'
import { constantOf, fixed, form, type Facts, type Form } from './form.ts'

/** The largest whole power that is worked out by multiplying. */
const MOST_FACTORS = 64

/** base ^ exponent: a whole power by multiplying, any other as `maths.ts` has it. */
export function raised(base: Form, exponent: Form, frameRate: Rational): Form {
  const b = constantOf(base)
  const e = constantOf(exponent)
  const n = e && isWhole(e) ? Number(e.n) : null
  if (n === null || Math.abs(n) > MOST_FACTORS) {
    return form(
      m => power(base.at(m), exponent.at(m)),
      () => anyPowerFacts(base.facts(), exponent.facts()),
    )
  }
  if (b && !(n < 0 && isZero(b))) {
    let value = ONE
    for (let k = 0; k < Math.abs(n) && within(value); k++) value = times(value, b)
    if (within(value)) return fixed(n < 0 ? over(ONE, value) : value, frameRate)
  }
  const at = (x: number): number => {
    let y = 1
    for (let k = 0; k < Math.abs(n); k++) y *= x
    return n < 0 ? 1 / y : y
  }
  return form(
    m => at(base.at(m)),
    () => {
      const { bounds, repeats, edges } = base.facts()
      return { bounds: I.wholePower(bounds, n), repeats: R.together([repeats]), edges }
    },
  )
}

function anyPowerFacts(x: Facts, y: Facts): Facts {
  const known = x.bounds.low >= 0 && I.isBounded(x.bounds) && y.bounds.low >= 0 && I.isBounded(y.bounds)
  return {
    bounds: known ? I.anyPower(x.bounds, y.bounds) : I.ALL,
    repeats: R.together([x.repeats, y.repeats]),
    edges: E.joined(x.edges, y.edges),
  }
}

const truth = (yes: boolean, frameRate: Rational): Form => fixed(yes ? ONE : ZERO, frameRate)

/** Truths are numbers here: 0 is no, anything else yes. */
export function opposed(of: Form, frameRate: Rational): Form {
  const known = constantOf(of)
  if (known) return truth(isZero(known), frameRate)
  return form(
    m => (of.at(m) === 0 ? 1 : 0),
    () => ({ ...of.facts(), bounds: I.interval(0, 1) }),
  )
}

/** a and b (`all`), or a or b. */
export function joined(all: boolean, a: Form, b: Form, frameRate: Rational): Form {
  const known = constantOf(a)
  if (known) return isZero(known) === all ? truth(!all, frameRate) : b
  return form(
    all ? m => (a.at(m) !== 0 && b.at(m) !== 0 ? 1 : 0) : m => (a.at(m) !== 0 || b.at(m) !== 0 ? 1 : 0),
    () => ({
      bounds: I.interval(0, 1),
      repeats: R.together([a.facts().repeats, b.facts().repeats]),
      edges: E.joined(a.facts().edges, b.facts().edges),
    }),
  )
}

const HOLDS: Readonly<Partial<Record<BinaryOp, (a: number, b: number) => boolean>>> = {
  '<': (a, b) => a < b,
  '<=': (a, b) => a <= b,
  '>': (a, b) => a > b,
  '>=': (a, b) => a >= b,
  '==': (a, b) => a === b,
  '!=': (a, b) => a !== b,
}

/** A comparison. Steady growth is compared exactly: a frame that lies on the boundary is never on its wrong side. */
export function compared(op: BinaryOp, a: Form, b: Form, frameRate: Rational): Form {
  const holds = HOLDS[op]!
  const difference = a.exact && b.exact && add(a.exact, opposite(b.exact))
  if (difference && isZero(difference.rate)) return truth(holds(compare(difference.base, ZERO), 0), frameRate)
  const facts = (): Facts => ({
    bounds: I.interval(0, 1),
    repeats: R.together([a.facts().repeats, b.facts().repeats]),
    edges: difference ? E.atZero(difference) : ['anywhere'],
  })
  if (!difference) return form(m => (holds(a.at(m), b.at(m)) ? 1 : 0), facts)
  const reader = new AffineReader(difference, frameRate)
  return form(m => (holds(reader.signAt(m), 0) ? 1 : 0), facts)
}

/** One of two values, as a truth that changes with time has it. */
export function either(test: Form, yes: Form, no: Form): Form {
  return form(
    m => (test.at(m) !== 0 ? yes.at(m) : no.at(m)),
    () => {
      const [t, y, n] = [test.facts(), yes.facts(), no.facts()]
      return {
        bounds: I.union(y.bounds, n.bounds),
        repeats: R.together([t.repeats, y.repeats, n.repeats]),
        edges: E.joined(t.edges, y.edges, n.edges),
      }
    },
  )
}
