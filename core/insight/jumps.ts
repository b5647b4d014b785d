/** What closes a leap, and a leap in words. */
import { mergeIntoConstant } from '../engine/merge-constant.ts'
import { compileNode } from '../engine/compile.ts'
import { CannotRun } from '../engine/env.ts'
import { constantOf, type CompiledExpression } from '../form/compiled-expression.ts'
import type { Program } from '../engine/program.ts'
import { argumentsOf } from '../formula/arguments.ts'
import { functionNamed } from '../functions/index.ts'
import { rewrite } from '../engine/rewrite.ts'
import { change, type Fix } from '../formula/problem.ts'
import { everyNode, type IfNode } from '../formula/tree.ts'
import { momentOfSeconds } from '../time/moment.ts'
import { compare, fromNumber, minus, over, rational, toNumber, ONE, ZERO, type Rational } from '../time/rational.ts'
import { unitOfKind } from '../units/units.ts'
import { leapAt, type Jump } from './leaps.ts'

/** How near a moment the stage before is asked for, in seconds. */
const NEAR = rational(1, 1 << 20)

/**
 * What closes a leap: a constant on the later of two stages that meet; for a curve or ramp that repeats though its
 * ends differ, another way to go on. Null when there is neither.
 */
export function jumpFix(program: Program, key: string, jump: Jump): Fix | null {
  return jump.every ? seamFix(program, key, jump) : stageFix(program, key, jump)
}

/** Ways in which what repeats with unequal ends may go on instead, the likeliest first. */
const WAYS = [
  ['carry', 'continue from the end value'],
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
      if (closed(program, key, change(formula!.text, changes), jump)) return { label: says, changes }
    }
  }
  return null
}

/** Whether a drive with another text no longer leaps there. */
function closed(program: Program, key: string, text: string, jump: Jump): boolean {
  const made = rewrite(program, key, text, momentOfSeconds(ZERO, program.measures.frameRate), false).program
  const slot = made.slots.get(key)
  return slot?.running === 'text' && !slot.forms.some(f => leapAt(f, jump.at, made, 0))
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
      : mergeIntoConstant(checked.formula.text, later, null, lacks, unit, program.measures)
  return sum && { label: 'continue from where the stage before ends', changes: sum }
}

const round12 = (x: number): number => Math.round(x * 1e12) / 1e12

function testForm(program: Program, key: string, stage: IfNode): CompiledExpression | null {
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

/** A leap in words: `jumps from 90.0° to 0.0° at 3 s`, with the values shown by `show`. */
export function jumpText(jump: Jump, show: (value: number) => string): string {
  const seconds = (r: Rational) => String(Number(toNumber(r).toFixed(3)))
  const again =
    jump.every && compare(jump.every, ONE) >= 0
      ? ` and every ${seconds(jump.every)} s`
      : jump.every
        ? ` and ${seconds(over(ONE, jump.every))} times a second`
        : ''
  return `jumps from ${show(jump.from)} to ${show(jump.to)} at ${seconds(jump.at)} s${again}`
}
