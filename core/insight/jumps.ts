/**
 * Where a value leaps, when and by how much. The candidates are the edges of its form, known exactly; each is
 * looked at from both sides, so that an edge without a leap (two stages that meet) is not reported.
 */
import { absorb } from '../engine/absorb.ts'
import { compileNode } from '../engine/compile.ts'
import { CannotRun } from '../engine/env.ts'
import { constantOf, type Form } from '../form/form.ts'
import type { Program } from '../engine/program.ts'
import { argumentsOf } from '../formula/arguments.ts'
import { functionNamed } from '../functions/index.ts'
import { rewrite } from '../engine/rewrite.ts'
import { change, type Fix } from '../formula/problem.ts'
import { everyNode, type IfNode } from '../formula/tree.ts'
import { momentOfSeconds } from '../time/moment.ts'
import {
  compare,
  floor,
  fromNumber,
  minus,
  over,
  plus,
  rational,
  times,
  toNumber,
  ONE,
  ZERO,
  type Rational,
} from '../time/rational.ts'
import { unitOfKind, type Measures } from '../units/units.ts'
import type { Edge } from '../facts/edges.ts'

export interface Jump {
  /** Seconds of the piece. */
  readonly at: Rational
  /** It leaps again every so many seconds; null when once. */
  readonly every: Rational | null
  /** In base measure. */
  readonly from: number
  readonly to: number
}

export interface Jumps {
  /** The first leap of each edge, in the order of time, from second 0 on where it repeats. */
  readonly jumps: readonly Jump[]
  /** Whether there may be leaps at moments that are not known beforehand. */
  readonly more: boolean
}

/** How near the edge it is looked at, in seconds: far below a frame, far above a double's grain. */
const NEAR = rational(1, 1 << 20)
/** Repeats of an edge that are looked at before it is taken for none. */
const LOOKS = 12
/** Less than this share of the value is no leap. */
const SMALL = 1e-6

/** @param turn growth after which the value is the same (a turn), which is no leap; 0 for none */
export function jumpsOf(form: Form, m: Measures, turn: number): Jumps {
  const jumps: Jump[] = []
  let more = false
  for (const edge of form.facts().edges) {
    if (edge === 'anywhere') more = true
    else {
      const found = leap(form, edge, m, turn)
      if (found) jumps.push(found)
    }
  }
  jumps.sort((a, b) => compare(a.at, b.at))
  return { jumps, more }
}

function leap(form: Form, edge: Exclude<Edge, 'anywhere'>, m: Measures, turn: number): Jump | null {
  const read = (t: Rational) => form.at(momentOfSeconds(t, m.frameRate))
  let t = edge.at
  if (edge.every) {
    const rounds = floor(over(minus(ZERO, edge.at), edge.every))
    t = plus(edge.at, times(rational(rounds), edge.every))
    if (compare(t, ZERO) < 0) t = plus(t, edge.every)
  }
  for (let k = 0; k < (edge.every ? LOOKS : 1); k++) {
    const right = read(t)
    // What the value was heading for: two readings before, carried on.
    const before = 2 * read(minus(t, NEAR)) - read(minus(t, times(NEAR, rational(2))))
    const raw = right - before
    const size = turn > 0 ? raw - Math.round(raw / turn) * turn : raw
    if (Math.abs(size) > SMALL * Math.max(Math.abs(right), Math.abs(before), turn || 1e-3)) {
      return { at: t, every: edge.every, from: right - size, to: right }
    }
    if (edge.every) t = plus(t, edge.every)
  }
  return null
}

/**
 * What closes a leap: a constant on the later of two stages that meet; for a curve or ramp that repeats though its
 * ends differ, another way to go on. Null when there is neither.
 */
export function jumpFix(program: Program, key: string, jump: Jump): Fix | null {
  return jump.every ? seamFix(program, key, jump) : stageFix(program, key, jump)
}

/** Ways in which what repeats with unequal ends may go on instead, the likeliest first. */
const WAYS = [
  ['carry', 'carry on from the end value'],
  ['mirror', 'go back the way it came'],
] as const

function seamFix(program: Program, key: string, jump: Jump): Fix | null {
  const { formula } = program.meanings.all.get(key)?.text ?? {}
  for (const node of formula ? everyNode(formula) : []) {
    const entry = node.type === 'call' ? functionNamed(node.name) : undefined
    if (node.type !== 'call' || !entry) continue
    const after = argumentsOf(node, entry).filled.find(f => f.parameter.name === 'after' && f.word?.name === 'repeat')
    if (!after) continue
    const { from, to } = after.arg.value
    for (const [word, says] of WAYS) {
      if (!after.parameter.words?.().includes(word)) continue
      const changes = [{ from, to, insert: word }]
      if (closed(program, key, change(formula!.text, changes), jump)) return { says, changes }
    }
  }
  return null
}

/** Whether a drive with another text no longer leaps there. */
function closed(program: Program, key: string, text: string, jump: Jump): boolean {
  const m = program.measures
  const slot = rewrite(program, key, text, momentOfSeconds(ZERO, m.frameRate), false).program.slots.get(key)
  return slot?.running === 'text' && !leap(slot.forms[0]!, { at: jump.at, every: jump.every }, m, 0)
}

function stageFix(program: Program, key: string, jump: Jump): Fix | null {
  const checked = program.meanings.all.get(key)?.text
  if (!checked) return null
  const stage = everyNode(checked.formula).find(n => n.type === 'if' && changesAt(program, key, n, jump.at)) as
    IfNode | undefined
  const unit =
    stage && checked.kinds.get(stage) && checked.kinds.get(stage) !== 'any'
      ? unitOfKind(checked.kinds.get(stage) as never)
      : undefined
  if (!stage || unit === undefined) return null
  const later = holdsAfter(program, key, stage, jump.at) ? stage.yes : stage.no
  const lacks = { value: fromNumber(round12(jump.from - jump.to)), carry: null, keep: null }
  const sum =
    later.type === 'if' && !later.outer
      ? null
      : absorb(checked.formula.text, later, null, lacks, unit, program.measures)
  return sum && { says: 'go on from where the stage before ends', changes: sum }
}

const round12 = (x: number): number => Math.round(x * 1e12) / 1e12

function testForm(program: Program, key: string, stage: IfNode): Form | null {
  const checked = program.meanings.all.get(key)!.text!
  try {
    return compileNode(checked, program.envFor(key, 0), stage.test)
  } catch (e) {
    if (e instanceof CannotRun) return null
    throw e
  }
}

function changesAt(program: Program, key: string, stage: IfNode, at: Rational): boolean {
  const test = testForm(program, key, stage)
  if (!test || constantOf(test)) return false
  const read = (t: Rational) => test.at(momentOfSeconds(t, program.measures.frameRate)) !== 0
  return read(at) !== read(minus(at, NEAR))
}

const holdsAfter = (program: Program, key: string, stage: IfNode, at: Rational): boolean =>
  testForm(program, key, stage)!.at(momentOfSeconds(at, program.measures.frameRate)) !== 0

/** A leap in words: `leaps from 90.0° to 0.0° at 3 s`, with the values shown by `show`. */
export function jumpText(jump: Jump, show: (value: number) => string): string {
  const seconds = (r: Rational) => String(Number(toNumber(r).toFixed(3)))
  const again =
    jump.every && compare(jump.every, ONE) >= 0
      ? ` and every ${seconds(jump.every)} s`
      : jump.every
        ? ` and ${seconds(over(ONE, jump.every))} times a second`
        : ''
  return `leaps from ${show(jump.from)} to ${show(jump.to)} at ${seconds(jump.at)} s${again}`
}
