/** What is known of a drive for all time, in the words and units in which people read it. */
import { drivenPart, drivenProperty, isSignal } from '../piece/drive-key.ts'
import type { CompiledExpression } from '../form/compiled-expression.ts'
import type { Slot } from '../engine/slot.ts'
import type { Program } from '../engine/program.ts'
import { runningFormula } from '../engine/meaning.ts'
import { sourceName } from '../acts/sources.ts'
import { propertyNamed, type Property } from '../piece/properties.ts'
import { symmetryIn } from '../piece/symmetry.ts'
import {
  ONE,
  ZERO,
  absolute,
  compare,
  equal,
  isZero,
  over,
  rational,
  toNumber,
  type Rational,
} from '../time/rational.ts'
import { PLAIN, type Kind } from '../units/kinds.ts'
import { printNumber, sizeOfUnit, unitOfKind, type Measures } from '../units/units.ts'
import { closureOf, SMALLEST_GAP, type Closure } from './closure.ts'
import { closureOfAll, factOfAll, isFew, isTooMany, seenOfAll } from './many-copies.ts'
import { isBounded, union, type Interval } from '../facts/interval.ts'
import { DAY, type Repeats } from '../facts/repeats.ts'

export interface Report {
  /** `every 2 s`, `never repeats`, `still`. */
  readonly period: string
  /** `−24 … 24 px`; '' when it has no bounds. */
  readonly range: string
  readonly closure: Closure
  /** `loops`, `loops by symmetry`, `11.2° off at the loop point`. */
  readonly closes: string
  /** The copy that the verdict is of, counted from 0, where copies differ. */
  readonly copy: number | null
  /** Operations a value takes in a frame, where what it reads is worked out anyway: of the copy that takes most. */
  readonly cost: number
  /** How far a rate that neither rests nor comes back is added up: `added up for 11.6 days`; '' for all time. */
  readonly reach: string
  /** Whether it surely has a value at every moment; where it has none it rests at the set value. */
  readonly finite: boolean
}

/** How units are written behind a value. */
export const UNIT_SIGN: Readonly<Record<string, string>> = {
  deg: '°',
  px: ' px',
  '%': ' %',
  s: ' s',
  Hz: ' Hz',
  'px/s': ' px/s',
  'deg/s': ' °/s',
  '': '',
}

/** A value in base measure as people read it: `198.0°`, `7.4 px`. */
export function showValue(value: number, property: Property, m: Measures, decimals = 1): string {
  const size = toNumber(sizeOfUnit(property.unit, m))
  const digits = property.unit === '' ? Math.max(2, decimals) : decimals
  // Of something that comes round, whole turns are left out: 558° is shown as 198°.
  const shown = property.symmetry === undefined || property.symmetry === 'poses' ? value : value - Math.trunc(value)
  const text = (shown / size).toFixed(digits)
  const zero = Number(text) === 0
  return `${zero ? text.replace('-', '') : text.replace('-', '−')}${UNIT_SIGN[property.unit]}`
}

const seconds = (r: Rational): string => printNumber(toNumber(r), toNumber(r) < 10 ? 2 : 1)

/** What the values of a formula are measured in: the property that it drives, of a signal one made of its kind. */
export function propertyOf(program: Program, key: string): Property {
  if (!isSignal(key)) return propertyNamed(drivenProperty(key))!
  const meaning = program.meanings.all.get(key)
  const got = (meaning && runningFormula(meaning)?.result) ?? 'any'
  return propertyOfKind(sourceName(program.piece, key), got === 'any' ? PLAIN : got)
}

/** Something of a kind that is no property, to be shown like one. */
export function propertyOfKind(name: string, kind: Kind): Property {
  const unit = (unitOfKind(kind) ?? '') as Property['unit']
  return { name, group: 'place', description: 'A signal.', kind, unit, initial: 0, stride: 1 }
}

/** The turn after which what a formula gives is the same (`natural`) or looks the same (`symmetry`), base measure. */
export function symmetriesOf(program: Program, key: string): { natural: Rational; symmetry: Rational } {
  const { symmetry } = propertyOf(program, key)
  if (symmetry === undefined) return { natural: ZERO, symmetry: ZERO }
  const id = drivenPart(key)
  const part = program.piece.parts[id]
  if (symmetry === 'poses') {
    const poses = rational(part?.shape.type === 'path' ? part.shape.poses.length : 1)
    return { natural: poses, symmetry: poses }
  }
  return {
    natural: ONE,
    symmetry: symmetry === 'part' && part ? rational(1, symmetryIn(program.piece, id).turns) : ONE,
  }
}

/** Operations of all copies, each read once at a moment of its own, beyond which closing is not looked for. */
const MOST_LOOKED = 40_000

export function reportOf(program: Program, slot: Slot): Report {
  const together = isFew(slot) ? null : reportOfMany(program, slot)
  if (together) return together
  const m = program.measures
  const property = propertyOf(program, slot.key)
  const { natural, symmetry } = symmetriesOf(program, slot.key)
  const range = slot.readers.map(f => f.facts().bounds).reduce(union)
  // What takes too long to look at is left open.
  const looks = slot.forms.reduce((n, f) => n + f.facts().cost.anew, 0)
  const closures: Closure[] =
    looks > MOST_LOOKED
      ? slot.forms.map(() => ({ verdict: 'unproven', gap: NaN }))
      : slot.forms.map(f => closureOf(f, program, program.lapStart, natural, symmetry))
  const worst = worstOf(closures)
  const closure = closures[worst]!
  const differ = closures.some(
    c =>
      c.verdict !== closure.verdict ||
      ('gap' in c && 'gap' in closure && !isSameGap(c.gap, closure.gap)) ||
      ('from' in c && 'from' in closure && !equal(c.from, closure.from)),
  )
  return {
    period: periodOfAll(slot.forms, natural),
    range: rangeText(range, property, m),
    closure,
    ...worstText(closure, differ ? worst : null, property, m),
    cost: Math.max(...slot.forms.map(f => f.facts().cost.now)),
    reach: reachText(Math.min(...slot.forms.map(f => f.facts().reach))),
    finite: slot.forms.every(f => f.facts().finite),
  }
}

/**
 * Of many copies: what is proven of all together, and, of so many that no copy is looked at by itself, what is seen of
 * each. Null where they are to be looked at one by one.
 */
function reportOfMany(program: Program, slot: Slot): Report | null {
  const { measures } = program
  const property = propertyOf(program, slot.key)
  const round = { measures, start: program.lapStart, ...symmetriesOf(program, slot.key) }
  const proven = closureOfAll(program, slot.key, round)
  if (!proven && !isTooMany(slot)) return null
  const { closure, copy, differ } = proven
    ? { closure: proven, copy: 0, differ: false }
    : seenOfAll(program, slot.key, round)
  const repeats = factOfAll(program, slot.key, 'repeats')
  const range = factOfAll(program, slot.key, 'bounds')
  return {
    // What is not known to come back may do so at every copy by itself.
    period: repeats?.every ? periodOf(repeats, round.natural) : '',
    range: range ? rangeText(range, property, measures) : '',
    closure,
    ...worstText(closure, differ ? copy : null, property, measures),
    cost: factOfAll(program, slot.key, 'cost')?.now ?? slot.forms[0]!.facts().cost.now,
    reach: reachText(factOfAll(program, slot.key, 'reach') ?? Infinity),
    finite: factOfAll(program, slot.key, 'finite') ?? true,
  }
}

const worstText = (closure: Closure, copy: number | null, property: Property, m: Measures) => ({
  closes: closesText(closure, property, m) + (copy === null ? '' : `, copy ${copy + 1}`),
  copy,
})

const reachText = (reach: number): string =>
  Number.isFinite(reach) ? `adds up for ${printNumber(reach / 86_400, 1)} days, then holds` : ''

const RANK = { yes: 0, symmetry: 1, later: 2, unproven: 3, no: 4 } as const

/** Gaps that differ by the last bits of what they are the difference of are the same. */
const isSameGap = (a: number, b: number): boolean =>
  Math.abs(a - b) <= SMALLEST_GAP * (1 + Math.abs(a)) || Object.is(a, b)

/** The copy with the worst verdict, and of those the widest gap, or the one that loops last. */
function worstOf(closures: readonly Closure[]): number {
  let worst = 0
  closures.forEach((c, i) => {
    const w = closures[worst]!
    const wider =
      ('gap' in c && 'gap' in w && Math.abs(c.gap) > Math.abs(w.gap) && !isSameGap(c.gap, w.gap)) ||
      ('from' in c && 'from' in w && compare(c.from, w.from) > 0)
    if (RANK[c.verdict] > RANK[w.verdict] || (RANK[c.verdict] === RANK[w.verdict] && wider)) worst = i
  })
  return worst
}

/** How far a value is from standing still: what never repeats before what grows, what takes long, what rests, and when. */
function restlessness({ every, gain, from }: Repeats): readonly [number, number, number] {
  const since = from ? toNumber(from) : -Infinity
  if (every === null) return [4, 0, since]
  if (!isZero(every)) return isZero(gain) ? [2, toNumber(every), since] : [3, toNumber(every), since]
  return isZero(gain) ? [0, 0, since] : [1, 1 / Math.abs(toNumber(gain)), since]
}

/** The period of the copy that takes longest to come back, told as that of all. */
function periodOfAll(forms: readonly CompiledExpression[], natural: Rational): string {
  const all = forms.map(f => f.facts().repeats)
  const longer = (a: Repeats, b: Repeats): boolean => {
    const [x, y] = [restlessness(a), restlessness(b)]
    const k = x.findIndex((v, i) => v !== y[i])
    return k >= 0 && x[k]! > y[k]!
  }
  const copy = all.reduce((most, r, i) => (longer(r, all[most]!) ? i : most), 0)
  const text = periodOf(all[copy]!, natural)
  if (all.every(r => periodOf(r, natural) === text)) return text
  if (text.startsWith('every')) return `${text} at most`
  return text.startsWith('rests') ? `${text} at the latest` : `${text}, copy ${copy + 1}`
}

function rangeText(range: Interval, property: Property, m: Measures): string {
  const { low, high } = range
  if (!isBounded(range) || low === high) return ''
  const unit = UNIT_SIGN[property.unit]!
  const digits = (v: number) => {
    const size = toNumber(sizeOfUnit(property.unit, m))
    return printNumber(Number((v / size).toFixed(property.unit === '' ? 3 : 1)), 3).replace('-', '−')
  }
  return `${digits(low)} … ${digits(high)}${unit}`
}

function periodOf({ every, gain, from }: Repeats, natural: Rational): string {
  if (every === null) return 'never repeats'
  if (from && isZero(every) && isZero(gain)) return `settles after ${seconds(from)} s`
  if (isZero(every)) {
    if (isZero(gain)) return 'still'
    return isZero(natural) ? 'steady' : `every ${seconds(over(natural, absolute(gain)))} s`
  }
  if (!isZero(gain)) return 'grows'
  return compare(every, DAY) > 0 ? 'practically never repeats' : `every ${seconds(every)} s`
}

function closesText(c: Closure, property: Property, m: Measures): string {
  if (c.verdict === 'yes') return 'loops'
  if (c.verdict === 'later') return `${c.rests ? 'settles' : 'loops'} after ${seconds(c.from)} s`
  if (!('gap' in c)) return 'loops by symmetry'
  if (c.verdict === 'unproven') return 'loop not proven'
  // A gap is never said to be 0.0.
  let gap = ''
  for (let digits = 1; digits <= 9 && !(parseFloat(gap) > 0); digits++)
    gap = showValue(Math.abs(c.gap), property, m, digits)
  return `${gap} off ${c.within ? 'within the lap' : 'at the loop point'}`
}
